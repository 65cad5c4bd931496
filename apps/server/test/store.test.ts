import { mkdtempSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import { EditorState } from "prosemirror-state"
import { collab, receiveTransaction, sendableSteps, getVersion } from "prosemirror-collab"
import fc from "fast-check"
import { document, p, readStep } from "@biblon/core/document"
import { readDocument } from "@biblon/core/document/reading"
import { insertText, splitParagraph, setStyle, deleteBackward, type Command } from "@biblon/core/editing"
import type { FromServer } from "@biblon/wire"
import { Room } from "../src/live/room"
import { openDatabase } from "../src/store/database"
import { DocumentStore } from "../src/store/documents"

function shelf() {
  const db = openDatabase(":memory:")
  const store = new DocumentStore(db)
  const { id } = store.create(document([p("The chain")]), null, 1000)
  return { db, store, id, room: Room.open(id, store, () => 2000)! }
}

const typed = (pos: number, text: string) => ({ stepType: "replace", from: pos, to: pos, slice: { content: [{ type: "text", text }] } })

/** A member that keeps what it was sent. */
function member() {
  const got: FromServer[] = []
  return { got, send: (message: FromServer) => void got.push(message) }
}

test("a change is in the database before it is confirmed, and the shelf knows of it", () => {
  const { store, id, room } = shelf()
  const seen: string[] = []
  const one = { send: (m: FromServer) => void (m.type === "steps" && seen.push(String(store.at(id, 1)?.textContent))) }
  room.join(one, 0, null)
  room.receive(one, { type: "steps", version: 0, steps: [typed(11, " ferry")], client: "a" })
  expect(seen).toEqual(["The chain ferry"])
  expect(store.entry(id)).toMatchObject({ version: 1, changed: 2000, opening: "The chain ferry", name: null })
})

test("changes on an older version, and those that do not fit, leave everything as it was", () => {
  const { store, id, room } = shelf()
  const one = member()
  room.join(one, 0, null)
  room.receive(one, { type: "steps", version: 3, steps: [typed(2, "x")], client: "a" })
  room.receive(one, { type: "steps", version: 0, steps: [typed(999, "x")], client: "a" })
  room.receive(one, { type: "steps", version: 0, steps: [typed(2, "x"), { stepType: "addMark", mark: { type: "size", attrs: { value: -5 } }, from: 2, to: 4 }], client: "a" })
  room.receive(one, { type: "steps", version: 0, steps: [{ stepType: "nonsense" }], client: "a" })
  expect(one.got.map((m) => m.type)).toEqual(["ready", "behind", "refused", "refused", "refused"])
  expect(store.entry(id)?.version).toBe(0)
})

test("a newcomer gets what it lacks; one that is ahead of the server is told so", () => {
  const { room } = shelf()
  const [one, two, three] = [member(), member(), member()]
  room.join(one, 0, null)
  room.receive(one, { type: "steps", version: 0, steps: [typed(2, "a"), typed(3, "b")], client: "a" })
  room.join(two, 1, "Name")
  expect(two.got).toEqual([{ type: "steps", version: 1, steps: [typed(3, "b")], clients: ["a"], saved: 2000 }, { type: "ready", version: 2, name: "Name" }])
  room.join(three, 9, null)
  expect(three.got.map((m) => m.type)).toEqual(["refused"])
})

test("what is kept whole is sent as it lies, what has changed since with its changes; there is nothing for versions that are not", () => {
  const { db, store, id, room } = shelf()
  const kept = (db.prepare("select content from snapshots where document = ?").get(id) as { content: string }).content
  expect(store.contentAt(id, 0)).toBe(kept)
  room.receive(member(), { type: "steps", version: 0, steps: [typed(11, " ferry")], client: "a" })
  expect(store.contentAt(id, 0)).toBe(kept)
  expect(readDocument(JSON.parse(store.contentAt(id, 1)!)).textContent).toBe("The chain ferry")
  for (const version of [2, -1]) expect(store.contentAt(id, version)).toBeUndefined()
  expect(store.contentAt("other", 0)).toBeUndefined()
})

test("documents that an older version kept get what has come since; a damaged one stays as it is and says so when it is opened", () => {
  const path = join(mkdtempSync(join(tmpdir(), "biblon-store-")), "older.sqlite")
  const before = openDatabase(path)
  const store = new DocumentStore(before)
  const older = JSON.parse(JSON.stringify(document([p("The chain")]).toJSON())) as { attrs: { typesetting?: unknown; styles: { fonts?: unknown } } }
  delete older.attrs.typesetting
  delete older.attrs.styles.fonts
  const [old, broken] = [store.create(document([p("x")]), "old", 1), store.create(document([p("y")]), "broken", 2)]
  const keep = before.prepare("update snapshots set content = ? where document = ?")
  keep.run(JSON.stringify(older), old.id)
  keep.run('{"type":"doc"', broken.id)
  before.pragma("user_version = 2")
  before.close()
  const now = new DocumentStore(openDatabase(path))
  const read = JSON.parse(now.contentAt(old.id, 0)!) as typeof older
  expect([read.attrs.typesetting, read.attrs.styles.fonts]).toEqual([expect.any(Object), {}])
  expect(readDocument(read).textContent).toBe("The chain")
  expect(now.contentAt(broken.id, 0)).toBe('{"type":"doc"')
  expect(() => now.at(broken.id, 0)).toThrow()
})

test("every version can be read again, across snapshots", () => {
  const { store, id, room } = shelf()
  const one = member()
  for (let i = 0; i < 700; i++) room.receive(one, { type: "steps", version: i, steps: [typed(2 + i, "x")], client: "a" })
  for (const version of [0, 1, 299, 300, 301, 650, 700]) expect(store.at(id, version)?.textContent).toBe("x".repeat(version) + "The chain")
  expect(store.at(id, 701)).toBeUndefined()
  expect(store.steps(id, 698, 700).length).toBe(2)
})

test("people who change a document at once, over connections that come and go, end with the same text", () => {
  const act = fc.record({ who: fc.nat(2), kind: fc.nat(5), at: fc.nat(40) })
  const commands: Command[] = [insertText("a"), insertText("bc"), splitParagraph, setStyle("heading1"), deleteBackward]
  fc.assert(
    fc.property(fc.array(act, { maxLength: 40 }), (acts) => {
      const { store, id, room } = shelf()
      const people = [0, 1, 2].map((n) => {
        const inbox: FromServer[] = []
        const person = {
          client: `p${n}`,
          state: EditorState.create({ doc: store.at(id, 0)!, plugins: [collab({ version: 0, clientID: `p${n}` })] }),
          send: (m: FromServer) => void inbox.push(m),
          talk() {
            for (const m of inbox.splice(0))
              if (m.type === "steps") {
                const known = getVersion(person.state) - m.version
                person.state = person.state.apply(receiveTransaction(person.state, m.steps.slice(known).map(readStep), m.clients.slice(known)))
              }
            const sendable = sendableSteps(person.state)
            if (sendable) room.receive(person, { type: "steps", version: sendable.version, steps: sendable.steps.map((s) => s.toJSON()), client: person.client })
          },
        }
        room.join(person, 0, null)
        return person
      })
      for (const { who, kind, at } of acts) {
        const person = people[who]!
        if (kind === 5) person.talk()
        else {
          const $pos = person.state.doc.resolve(1 + (at % (person.state.doc.content.size - 1)))
          person.state = person.state.apply(person.state.tr.setSelection((person.state.selection.constructor as any).near($pos)))
          commands[kind]!(person.state, (tr) => (person.state = person.state.apply(tr)))
        }
      }
      for (let round = 0; round < 4; round++) people.forEach((person) => person.talk())
      const kept = store.at(id, room.version)!
      for (const { state } of people) expect(state.doc.eq(kept)).toBe(true)
    }),
    { numRuns: 60 },
  )
})
