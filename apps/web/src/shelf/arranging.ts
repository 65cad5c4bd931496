/** What lies where on the shelf, and the changes that people make there. */
import type { Folder, ShelfChange, ShelfContents, ShelfEntry } from "@biblon/wire"

/** A document or a folder. */
export type Item = { kind: "document"; id: string; entry: ShelfEntry } | { kind: "folder"; id: string; folder: Folder }

export const orders = [
  ["changed", "Changed last"],
  ["name", "By name"],
  ["created", "Begun last"],
  ["sheets", "Longest"],
] as const
export type Order = (typeof orders)[number][0]

const words = new Intl.Collator("en", { numeric: true, sensitivity: "base" })
const nameOf = ({ name, opening }: ShelfEntry) => name ?? opening

const comparing: Record<Order, (a: ShelfEntry, b: ShelfEntry) => number> = {
  changed: (a, b) => b.changed - a.changed,
  name: (a, b) => words.compare(nameOf(a), nameOf(b)),
  created: (a, b) => b.created - a.created,
  sheets: (a, b) => (b.sheets ?? 0) - (a.sheets ?? 0),
}

interface Lying {
  folders: Folder[]
  documents: ShelfEntry[]
}

const nothing: Lying = { folders: [], documents: [] }
const arranged = new WeakMap<ShelfContents, ReadonlyMap<string | null, Lying>>()

/** What lies directly in each folder, and by null on the shelf itself. */
function places(contents: ShelfContents): ReadonlyMap<string | null, Lying> {
  const known = arranged.get(contents)
  if (known) return known
  const made = new Map<string | null, Lying>()
  const at = (folder: string | null): Lying => {
    let lying = made.get(folder)
    if (!lying) made.set(folder, (lying = { folders: [], documents: [] }))
    return lying
  }
  for (const folder of contents.folders) at(folder.folder).folders.push(folder)
  for (const entry of contents.documents) at(entry.folder).documents.push(entry)
  arranged.set(contents, made)
  return made
}

const listed = new WeakMap<ShelfContents, Map<string, Item[]>>()

/** What lies in a folder, or with null on the shelf itself: folders by name, then documents in an order. */
export function lyingIn(contents: ShelfContents, folder: string | null, order: Order): Item[] {
  let lists = listed.get(contents)
  if (!lists) listed.set(contents, (lists = new Map()))
  const key = `${order} ${folder ?? ""}`
  let items = lists.get(key)
  if (!items) lists.set(key, (items = list(contents, folder, order)))
  return items
}

function list(contents: ShelfContents, folder: string | null, order: Order): Item[] {
  const lying = places(contents).get(folder) ?? nothing
  const folders = lying.folders
    .map((own) => ({ own, title: folderTitle(own, contents).text }))
    .sort((a, b) => words.compare(a.title, b.title))
  return [
    ...folders.map(({ own }) => ({ kind: "folder" as const, id: own.id, folder: own })),
    ...[...lying.documents].sort(comparing[order]).map((entry) => ({ kind: "document" as const, id: entry.id, entry })),
  ]
}

/** The folders from the shelf down to one, with it. */
export function pathTo({ folders }: ShelfContents, id: string | null): Folder[] {
  const known = new Map(folders.map((folder) => [folder.id, folder]))
  const path: Folder[] = []
  for (let at = known.get(id ?? ""); at && !path.includes(at); at = known.get(at.folder ?? "")) path.unshift(at)
  return path
}

/** Folders with all that lie in them, from the outside in. */
export function withInside(contents: ShelfContents, ids: readonly string[]): Set<string> {
  const own = new Set(ids)
  const all = new Set(contents.folders.filter(({ id }) => own.has(id)).map(({ id }) => id))
  // A set is walked in the order in which it grows.
  for (const id of all) for (const inside of places(contents).get(id)?.folders ?? []) all.add(inside.id)
  return all
}

const held = new WeakMap<ShelfContents, Map<string, ShelfEntry[]>>()

/** The documents in a folder and the folders below it, those changed last first. */
export function documentsIn(contents: ShelfContents, folder: string): ShelfEntry[] {
  let known = held.get(contents)
  if (!known) held.set(contents, (known = new Map()))
  let entries = known.get(folder)
  if (!entries) {
    const inside = [...withInside(contents, [folder])].flatMap((id) => places(contents).get(id)?.documents ?? [])
    known.set(folder, (entries = inside.sort(comparing.changed)))
  }
  return entries
}

/** What stands for a folder: its name, or the names of what lies in it. */
export function folderTitle({ id, name }: Folder, contents: ShelfContents): { text: string; named: boolean } {
  if (name) return { text: name, named: true }
  const inside = documentsIn(contents, id).map(nameOf).filter(Boolean).slice(0, 2)
  return { text: inside.length > 0 ? `${inside.join(", ")}…` : "Empty folder", named: false }
}

/** Lays things into a folder, or with null on the shelf itself; what lies there already, and a folder on its way into itself, stay. */
export function moving(contents: ShelfContents, ids: readonly string[], to: string | null): ShelfChange[] {
  const own = new Set(ids)
  const above = new Set(pathTo(contents, to).map(({ id }) => id))
  return [
    ...contents.folders
      .filter(({ id, folder }) => own.has(id) && folder !== to && !above.has(id))
      .map(({ id }) => ({ kind: "folder" as const, id, folder: to })),
    ...contents.documents
      .filter(({ id, folder }) => own.has(id) && folder !== to)
      .map(({ id }) => ({ kind: "document" as const, id, folder: to })),
  ]
}

/** Makes a folder with an id in another and lays things into it. */
export function gathering(
  contents: ShelfContents,
  ids: readonly string[],
  id: string,
  inside: string | null,
): ShelfChange[] {
  return [{ kind: "folder", id, gone: false, name: null, folder: inside }, ...moving(contents, ids, id)]
}

/** Puts documents into the bin, and all those of folders, which then are no more. */
export function binning(contents: ShelfContents, ids: readonly string[]): ShelfChange[] {
  const own = new Set(ids)
  const folders = withInside(contents, ids)
  return [
    ...contents.documents
      .filter(({ id, folder }) => own.has(id) || (folder !== null && folders.has(folder)))
      .map(({ id }) => ({ kind: "document" as const, id, binned: true })),
    ...[...folders].reverse().map((id) => ({ kind: "folder" as const, id, gone: true })),
  ]
}

/** Lays what is in a folder where the folder lies, which then is no more. */
export function takingApart(contents: ShelfContents, id: string): ShelfChange[] {
  const inside = [...contents.folders, ...contents.documents].filter(({ folder }) => folder === id).map((own) => own.id)
  const to = contents.folders.find((folder) => folder.id === id)?.folder ?? null
  return [...moving(contents, inside, to), { kind: "folder", id, gone: true }]
}

/** Those from one to another as they lie, both with it: what a press with Shift chooses. */
export function between(items: readonly Item[], from: string, to: string): string[] {
  const [a, b] = [from, to].map((id) => items.findIndex((item) => item.id === id))
  if (a === undefined || b === undefined || a < 0 || b < 0) return [to]
  return items.slice(Math.min(a, b), Math.max(a, b) + 1).map(({ id }) => id)
}
