import fc from "fast-check"
import { document, documentFormat, leavesOf, p } from "@biblon/core/document"
import { readDocument } from "@biblon/core/document/reading"
import { samplesIn } from "@biblon/core/editing"
import { ShelfChange } from "@biblon/wire"
import { openDatabase } from "../src/store/database"
import { DocumentStore } from "../src/store/documents"
import { Searching } from "../src/store/searching"
import { deepest, ShelfProblem, ShelfStore } from "../src/store/shelf"
import { StarterStore } from "../src/store/starters"
import { sweepRemoved } from "../src/store/sweeping"
import { shippedStarters } from "../src/starters/starters"

function shelf() {
  const db = openDatabase(":memory:")
  const store = new DocumentStore(db)
  const own = new ShelfStore(db)
  const documents = ["Letter", "Minutes", "Report"].map((name, i) => store.create(document([p(name)]), name, i).id)
  const all = () => ({ documents: store.list(), folders: own.folders(), binned: store.binned() })
  const lies = () => Object.fromEntries(store.list().map(({ name, folder }) => [name, folder]))
  return { db, store, own, documents, all, lies }
}

const made = (id: string, folder: string | null = null): ShelfChange => ({
  kind: "folder",
  id,
  gone: false,
  name: `Of ${id}`,
  folder,
})

test("a folder is made of two documents in one change; what takes it back comes with it", () => {
  const { own, documents, all, lies } = shelf()
  const before = all()
  const [letter = "", minutes = ""] = documents
  const back = own.change(
    [
      made("season27"),
      { kind: "document", id: letter, folder: "season27" },
      { kind: "document", id: minutes, folder: "season27" },
    ],
    5,
  )
  expect(lies()).toEqual({ Letter: "season27", Minutes: "season27", Report: null })
  expect(back.map(({ kind }) => kind)).toEqual(["document", "document", "folder"])
  own.change(back, 6)
  expect(all()).toEqual(before)
})

test("a folder neither lies in itself nor is dropped with what it holds, and nothing of such a change is made", () => {
  const { own, documents, all } = shelf()
  own.change([made("season27"), made("meetings", "season27")], 1)
  const [letter = ""] = documents
  own.change([{ kind: "document", id: letter, folder: "meetings" }], 1)
  const before = all()
  const refused = (...changes: ShelfChange[]) =>
    expect(() => own.change([{ kind: "document", id: letter, name: "Other" }, ...changes], 2)).toThrow(ShelfProblem)
  refused({ kind: "folder", id: "season27", folder: "meetings" })
  refused({ kind: "folder", id: "season27", folder: "season27" })
  refused({ kind: "folder", id: "meetings", gone: true })
  refused({ kind: "folder", id: "elsewhere", name: "No" })
  refused({ kind: "document", id: letter, folder: "elsewhere" })
  expect(all()).toEqual(before)
})

test(`folders lie ${deepest} deep in one another, also when a whole tree of them moves`, () => {
  const { own } = shelf()
  const name = (tree: string, i: number) => `${tree}-folder-${i}`
  for (const tree of ["a", "b"])
    for (let i = 0; i < 12; i++) own.change([made(name(tree, i), i === 0 ? null : name(tree, i - 1))], 1)
  const under = (i: number): ShelfChange => ({ kind: "folder", id: name("b", 0), folder: name("a", i) })
  expect(() => own.change([under(11)], 2)).toThrow("20 deep")
  own.change([under(7)], 2)
})

test("what is removed can be had back for a day; then it is gone, with what was known of its words", () => {
  const { db, store, own, documents, all } = shelf()
  const [letter = ""] = documents
  const searching = new Searching(db, store)
  expect(searching.find("letter")).toHaveLength(1)
  own.change([{ kind: "document", id: letter, binned: true }], 1)
  const before = all()
  const back = own.change([{ kind: "document", id: letter, removed: true }], 1)
  expect(store.binned()).toEqual([])
  own.change(back, 2)
  expect(all()).toEqual(before)
  expect(() => own.change([{ kind: "document", id: letter, removed: true }], 3, () => true)).toThrow("open somewhere")
  own.change([{ kind: "document", id: letter, removed: true }], 3)
  expect(sweepRemoved(db, 86_400_003)).toBe(0)
  expect(sweepRemoved(db, 86_400_004)).toBe(1)
  expect(db.prepare("select body from texts").pluck().all()).toEqual(["Report", "Minutes"])
})

test("any changes that are made are taken back by what they answered", () => {
  const ids = ["folder-a", "folder-b", "folder-c"]
  const folder = fc.constantFrom(null, ...ids)
  const change = (documents: readonly string[]) =>
    fc.oneof(
      fc.record(
        {
          kind: fc.constant("document" as const),
          id: fc.constantFrom(...documents),
          name: fc.constantFrom("Tide table", null),
          folder,
          binned: fc.boolean(),
          removed: fc.boolean(),
        },
        { requiredKeys: ["kind", "id"] },
      ),
      fc.record(
        {
          kind: fc.constant("folder" as const),
          id: fc.constantFrom(...ids),
          name: fc.constantFrom("Season", null),
          folder,
          gone: fc.boolean(),
        },
        { requiredKeys: ["kind", "id"] },
      ),
    )
  const { own, documents, all } = shelf()
  fc.assert(
    fc.property(fc.array(change(documents), { minLength: 1, maxLength: 6 }), (drawn) => {
      const changes = drawn.map((one) => ShelfChange.parse(one))
      const before = all()
      let back: ShelfChange[]
      try {
        back = own.change(changes, 9)
      } catch (error) {
        expect(error).toBeInstanceOf(ShelfProblem)
        expect(all()).toEqual(before)
        return
      }
      own.change(back, 9)
      expect(all()).toEqual(before)
      own.change(changes, 9)
    }),
    {
      numRuns: 200,
      // A folder is dropped in which something of the bin lay, which is then removed.
      examples: [
        [
          [
            { kind: "folder", id: "folder-a", folder: null, gone: false },
            { kind: "document", id: documents[0]!, folder: "folder-a", binned: true },
          ],
        ],
        [
          [
            { kind: "folder", id: "folder-a", gone: true },
            { kind: "document", id: documents[0]!, folder: null, removed: true },
          ],
        ],
      ],
    },
  )
})

test("starters that ship are put in once, are read like any document, and hold text to be typed over", () => {
  const db = openDatabase(":memory:")
  const store = new DocumentStore(db)
  const starters = new StarterStore(db, store)
  starters.ship(shippedStarters())
  const rows = () => db.prepare("select id, rowid from documents order by rowid").all()
  const before = rows()
  starters.ship(shippedStarters())
  expect(rows()).toEqual(before)
  expect(starters.list().length).toBeGreaterThanOrEqual(11)
  expect(store.list()).toEqual([])
  expect(new Searching(db, store).find("harbour")).toEqual([])
  for (const { id } of starters.list()) {
    const doc = readDocument(JSON.parse(store.contentAt(id, 0) ?? "null"), documentFormat)
    expect(leavesOf(doc).nodes.some((leaf) => samplesIn(leaf).length > 0)).toBe(true)
  }
  const [changed, ...rest] = shippedStarters()
  starters.ship([{ ...changed!, doc: document([p("Anew")]) }, ...rest])
  expect(store.newest(changed!.id)?.textContent).toBe("Anew")
})

test("a document is begun from a starter; one of people's own is a copy that stays as it was", () => {
  const { db, store, own, documents } = shelf()
  const starters = new StarterStore(db, store)
  const [letter = ""] = documents
  const starter = starters.keep(letter, 4)!
  expect(starter).toMatchObject({ name: "Letter", purpose: null })
  own.change([made("season27")], 1)
  const begun = starters.begin(starter.id, 5, "season27")!
  expect(begun).toMatchObject({ name: null, folder: "season27", opening: "Letter" })
  expect(starters.begin(letter, 5, null)).toBeUndefined()
  expect(starters.keep("nowhere at all", 5)).toBeUndefined()
  own.change([{ kind: "document", id: starter.id, binned: true, removed: true }], 6)
  expect(starters.list()).toEqual([])
})
