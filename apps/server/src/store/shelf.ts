/** Where documents lie: on the shelf, in its folders, in the bin. One kind of change does all of it, and each tells what takes it back. */
import type { Folder, ShelfChange } from "@biblon/wire"
import type { Db } from "./database"

/** A change that cannot be made, with a reason for people. */
export class ShelfProblem extends Error {}

/** So many folders lie in one another at most. */
export const deepest = 20

interface DocumentPlace {
  name: string | null
  folder: string | null
  binned: number | null
  removed: number | null
}

type DocumentChange = Extract<ShelfChange, { kind: "document" }>
type FolderChange = Extract<ShelfChange, { kind: "folder" }>

export class ShelfStore {
  private readonly sql

  constructor(private readonly db: Db) {
    this.sql = {
      folders: db.prepare<[], Folder>("select id, name, folder, created from folders order by created, id"),
      folder: db.prepare<[string], Folder>("select id, name, folder, created from folders where id = ?"),
      put: db.prepare("insert or replace into folders (id, name, folder, created) values (?, ?, ?, ?)"),
      drop: db.prepare("delete from folders where id = ?"),
      holds: db
        .prepare<[string, string], number>(
          `select exists (select 1 from folders where folder = ?)
           or exists (select 1 from documents where folder = ? and binned is null and removed is null)`,
        )
        .pluck(),
      place: db.prepare<[string], DocumentPlace>("select name, folder, binned, removed from documents where id = ?"),
      lay: db.prepare("update documents set name = ?, folder = ?, binned = ?, removed = ? where id = ?"),
      lying: db.prepare<[string], string>("select id from documents where folder = ? order by id").pluck(),
      layOut: db.prepare("update documents set folder = null where folder = ?"),
    }
  }

  folders(): Folder[] {
    return this.sql.folders.all()
  }

  /**
   * Makes all of the changes, in their order, or none.
   * @param isOpen whether somebody has a document open, which is not removed then
   * @returns the changes that take them back, in their order
   * @throws ShelfProblem
   */
  change(changes: readonly ShelfChange[], now: number, isOpen: (id: string) => boolean = () => false): ShelfChange[] {
    return this.db.transaction(() =>
      changes
        .map((change) =>
          change.kind === "folder" ? this.changeFolder(change, now) : [this.changeDocument(change, now, isOpen)],
        )
        .reverse()
        .flat(),
    )()
  }

  private changeDocument(change: DocumentChange, now: number, isOpen: (id: string) => boolean): DocumentChange {
    const { id, name, folder, binned, removed } = change
    const was = this.sql.place.get(id)
    if (!was) throw new ShelfProblem("a document is no longer there")
    if (folder) this.folder(folder)
    if ((removed ?? was.removed !== null) && !(binned ?? was.binned !== null))
      throw new ShelfProblem("a document is not in the bin")
    if (removed && isOpen(id)) throw new ShelfProblem("a document is open somewhere; close it there first")
    const time = (asked: boolean | undefined, old: number | null) =>
      asked === undefined ? old : asked ? (old ?? now) : null
    this.sql.lay.run(
      name === undefined ? was.name : name || null,
      folder === undefined ? was.folder : folder,
      time(binned, was.binned),
      time(removed, was.removed),
      id,
    )
    return {
      kind: "document",
      id,
      ...(name !== undefined && { name: was.name }),
      ...(folder !== undefined && { folder: was.folder }),
      ...(binned !== undefined && { binned: was.binned !== null }),
      ...(removed !== undefined && { removed: was.removed !== null }),
    }
  }

  private folder(id: string): Folder {
    const found = this.sql.folder.get(id)
    if (!found) throw new ShelfProblem("a folder is no longer there")
    return found
  }

  private changeFolder({ id, name, folder, gone }: FolderChange, now: number): ShelfChange[] {
    const was = this.sql.folder.get(id)
    if (gone) {
      const { name: oldName, folder: oldFolder } = this.folder(id)
      if (this.sql.holds.get(id, id)) throw new ShelfProblem("a folder still holds something")
      // What was in it and lies in the bin is put back onto the shelf itself, if it is.
      const binned = this.sql.lying.all(id)
      this.sql.layOut.run(id)
      this.sql.drop.run(id)
      return [
        { kind: "folder", id, gone: false, name: oldName, folder: oldFolder },
        ...binned.map((own) => ({ kind: "document" as const, id: own, folder: id })),
      ]
    }
    if (!was && gone === undefined) this.folder(id)
    const inside = folder === undefined ? (was?.folder ?? null) : folder
    this.checkDepth(id, inside)
    this.sql.put.run(id, name === undefined ? (was?.name ?? null) : name || null, inside, was?.created ?? now)
    if (!was) return [{ kind: "folder", id, gone: true }]
    const back = { ...(name !== undefined && { name: was.name }), ...(folder !== undefined && { folder: was.folder }) }
    return [{ kind: "folder", id, ...back }]
  }

  /** @throws ShelfProblem if a folder would lie in itself, or too deep with those that lie in it */
  private checkDepth(id: string, inside: string | null): void {
    let above = 0
    for (let at = inside; at !== null; at = this.folder(at).folder) {
      if (at === id) throw new ShelfProblem("a folder cannot lie in itself")
      if (++above >= deepest) throw new ShelfProblem(`folders lie in one another ${deepest} deep at most`)
    }
    if (above + this.heightOf(id) >= deepest)
      throw new ShelfProblem(`folders lie in one another ${deepest} deep at most`)
  }

  /** How many folders lie below one another in it. */
  private heightOf(id: string): number {
    const inside = new Map<string, string[]>()
    for (const { id: own, folder } of this.folders())
      if (folder !== null) inside.set(folder, [...(inside.get(folder) ?? []), own])
    let height = 0
    for (let row = inside.get(id) ?? []; row.length > 0; row = row.flatMap((own) => inside.get(own) ?? [])) height++
    return height
  }
}
