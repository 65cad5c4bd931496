import fc from "fast-check"
import type { Folder, ShelfContents, ShelfEntry } from "@biblon/wire"
import {
  between,
  binning,
  documentsIn,
  folderTitle,
  gathering,
  lyingIn,
  moving,
  pathTo,
  takingApart,
  withInside,
} from "../src/shelf/arranging"

const entry = (id: string, folder: string | null, more: Partial<ShelfEntry> = {}): ShelfEntry => ({
  id,
  name: id,
  opening: "",
  created: 0,
  changed: 0,
  version: 0,
  folder,
  sheets: null,
  ...more,
})
const folder = (id: string, inside: string | null, name: string | null = id): Folder => ({
  id,
  name,
  folder: inside,
  created: 0,
})

/** Meetings lies in Season, with the minutes; a letter lies on the shelf. */
const contents: ShelfContents = {
  folders: [folder("season", null), folder("meetings", "season"), folder("empty", null, null)],
  documents: [
    entry("Minutes 10", "meetings", { changed: 3, sheets: 1 }),
    entry("minutes 2", "meetings", { changed: 1, sheets: 9, created: 5 }),
    entry("Letter", null, { changed: 2 }),
  ],
  binned: [],
}
const ids = (...order: Parameters<typeof lyingIn>) => lyingIn(...order).map(({ id }) => id)

test("a folder shows its folders by name, then its documents in the order that was chosen", () => {
  expect(ids(contents, null, "changed")).toEqual(["empty", "season", "Letter"])
  expect(ids(contents, "season", "name")).toEqual(["meetings"])
  expect(ids(contents, "meetings", "changed")).toEqual(["Minutes 10", "minutes 2"])
  expect(ids(contents, "meetings", "name")).toEqual(["minutes 2", "Minutes 10"])
  expect(ids(contents, "meetings", "created")).toEqual(["minutes 2", "Minutes 10"])
  expect(ids(contents, "meetings", "sheets")).toEqual(["minutes 2", "Minutes 10"])
  expect(ids(contents, "nowhere", "name")).toEqual([])
  expect(lyingIn(contents, null, "name")).toBe(lyingIn(contents, null, "name"))
})

test("a folder without a name is called by what lies in it; the way to it is known, also round in a circle", () => {
  expect(folderTitle(folder("season", null, null), contents)).toEqual({ text: "Minutes 10, minutes 2…", named: false })
  expect(folderTitle(folder("empty", null, null), contents).text).toBe("Empty folder")
  expect(pathTo(contents, "meetings").map(({ id }) => id)).toEqual(["season", "meetings"])
  expect(documentsIn(contents, "season").map(({ id }) => id)).toEqual(["Minutes 10", "minutes 2"])
  const circle = { ...contents, folders: [folder("a", "b"), folder("b", "a")] }
  expect(pathTo(circle, "a").map(({ id }) => id)).toEqual(["b", "a"])
  expect([...withInside(circle, ["a"])]).toEqual(["a", "b"])
})

test("what lies there already stays, and no folder is laid in itself", () => {
  expect(moving(contents, ["Letter", "Minutes 10"], null)).toEqual([
    { kind: "document", id: "Minutes 10", folder: null },
  ])
  expect(moving(contents, ["season", "Letter"], "meetings")).toEqual([
    { kind: "document", id: "Letter", folder: "meetings" },
  ])
  expect(gathering(contents, ["Letter"], "new", null)).toEqual([
    { kind: "folder", id: "new", gone: false, name: null, folder: null },
    { kind: "document", id: "Letter", folder: "new" },
  ])
})

test("put into the bin, a folder's documents lie there, and its folders go from the inside out; taken apart, all lies where it lay", () => {
  expect(binning(contents, ["season"])).toEqual([
    { kind: "document", id: "Minutes 10", binned: true },
    { kind: "document", id: "minutes 2", binned: true },
    { kind: "folder", id: "meetings", gone: true },
    { kind: "folder", id: "season", gone: true },
  ])
  expect(
    takingApart(contents, "meetings").map((change) => [change.id, "folder" in change ? change.folder : "gone"]),
  ).toEqual([
    ["Minutes 10", "season"],
    ["minutes 2", "season"],
    ["meetings", "gone"],
  ])
})

test("a press with Shift chooses all in between, from either side", () => {
  const items = lyingIn(contents, null, "name")
  expect(between(items, "Letter", "empty")).toEqual(["empty", "season", "Letter"])
  expect(between(items, "nowhere", "season")).toEqual(["season"])
})

test("every document and folder lies in one place, and is found on the way to it", () => {
  const place = fc.option(fc.integer({ min: 0, max: 5 }), { nil: null })
  fc.assert(
    fc.property(fc.array(place, { maxLength: 6 }), fc.array(place, { maxLength: 12 }), (inside, lying) => {
      const known = (n: number | null, below: number) => (n === null || n >= below ? null : `f${n}`)
      const drawn: ShelfContents = {
        folders: inside.map((n, i) => folder(`f${i}`, known(n, i))),
        documents: lying.map((n, i) => entry(`d${i}`, known(n, inside.length))),
        binned: [],
      }
      const all = [null, ...drawn.folders.map(({ id }) => id)].flatMap((at) => ids(drawn, at, "name"))
      expect(all.sort()).toEqual([...drawn.folders, ...drawn.documents].map(({ id }) => id).sort())
      for (const { id, folder: at } of drawn.documents)
        for (const own of pathTo(drawn, at)) expect(documentsIn(drawn, own.id).map((found) => found.id)).toContain(id)
    }),
  )
})
