import { mkdtempSync, readFileSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import { brotliDecompressSync } from "node:zlib"
import Database from "better-sqlite3"
import { EditorState } from "prosemirror-state"
import { collab, receiveTransaction, sendableSteps, getVersion } from "prosemirror-collab"
import fc from "fast-check"
import { document, p, readStep } from "@biblon/core/document"
import { readDocument } from "@biblon/core/document/reading"
import { insertText, splitParagraph, setStyle, deleteBackward, type Command } from "@biblon/core/editing"
import type { FromApp, FromServer } from "@biblon/wire"
import { Room, type Member } from "../src/live/room"
import { openDatabase } from "../src/store/database"
import { AssetStore } from "../src/store/assets"
import { dispensable } from "../src/store/snapshots"
import { sweepAssets, unusedFor } from "../src/store/sweeping"
import { Writing } from "../src/store/writing"
import { DocumentStore } from "../src/store/documents"

function shelf() {
  const db = openDatabase(":memory:")
  const store = new DocumentStore(db)
  const { id } = store.create(document([p("The chain")]), null, 1000)
  const writing = new Writing(db)
  return { db, store, id, writing, room: Room.open(id, store, writing, () => 2000)! }
}

const typed = (pos: number, text: string) => ({
  stepType: "replace",
  from: pos,
  to: pos,
  slice: { content: [{ type: "text", text }] },
})

/** A member that keeps what it was sent. */
function member() {
  const got: FromServer[] = []
  return { got, person: "imre", right: "edit" as const, send: (message: FromServer) => void got.push(message) }
}

test("a change is in the database before it is confirmed, and the shelf knows of it", () => {
  const { store, id, room, writing } = shelf()
  const seen: string[] = []
  const one = {
    person: "imre",
    right: "edit" as const,
    send: (m: FromServer) => void (m.type === "steps" && seen.push(String(store.at(id, 1)?.textContent))),
  }
  room.join(one, 0, null, null)
  room.receive(one, { type: "steps", version: 0, steps: [typed(11, " ferry")], client: "a" })
  expect(seen).toEqual([])
  writing.flush()
  expect(seen).toEqual(["The chain ferry"])
  expect(store.entry(id)).toMatchObject({ version: 1, changed: 2000, opening: "The chain ferry", name: null })
})

test("who made a change is kept with it and told to others; who may only read changes nothing", () => {
  const { db, store, id, room, writing } = shelf()
  const [imre, nell, reader] = [
    member(),
    { ...member(), person: "nell" },
    { ...member(), person: "reader", right: "read" as const },
  ]
  for (const one of [imre, nell, reader]) room.join(one, 0, null, null)
  room.receive(reader, { type: "steps", version: 0, steps: [typed(2, "no")], client: "r" })
  expect(reader.got.at(-1)).toMatchObject({
    type: "refused",
    reason: expect.stringContaining("who may read it does not change it"),
  })
  room.receive(imre, { type: "steps", version: 0, steps: [typed(2, "a")], client: "i" })
  room.receive(nell, { type: "steps", version: 0, steps: [typed(2, "b")], client: "n" })
  writing.flush()
  expect(db.prepare("select person from steps where document = ? order by version").pluck().all(id)).toEqual([
    "imre",
    "nell",
  ])
  expect(reader.got.filter((m) => m.type === "steps").flatMap((m) => m.batches.map(({ person }) => person))).toEqual([
    "imre",
    "nell",
  ])
  expect([...store.batches(id, 0, 2, 1e6)].flat().map(({ person }) => person)).toEqual(["imre", "nell"])
})

test("of a message that does not fit as a whole, what comes before the first unfit change is kept", () => {
  const { store, id, room, writing } = shelf()
  const one = member()
  room.join(one, 0, null, null)
  room.receive(one, { type: "steps", version: 3, steps: [typed(2, "x")], client: "a" })
  room.receive(one, { type: "steps", version: 0, steps: [typed(999, "x")], client: "a" })
  room.receive(one, { type: "steps", version: 0, steps: [{ stepType: "nonsense" }], client: "a" })
  expect(one.got.map((m) => m.type)).toEqual(["ready", "behind", "refused", "refused"])
  expect(store.entry(id)?.version).toBe(0)
  room.receive(one, {
    type: "steps",
    version: 0,
    steps: [
      typed(2, "x"),
      { stepType: "addMark", mark: { type: "size", attrs: { value: -5 } }, from: 2, to: 4 },
      typed(3, "y"),
    ],
    client: "a",
  })
  writing.flush()
  expect(one.got.slice(4).map((m) => m.type)).toEqual(["steps", "refused"])
  expect(store.at(id, 1)?.textContent).toBe("xThe chain")
})

test.each([
  ["places that are no whole numbers", { ...typed(2, "x"), from: 2.5, to: 3 }],
  ["places in the wrong order", { ...typed(4, "x"), to: 2 }],
  ["a place before the document", { ...typed(-1, "x") }],
  [
    "a mark twice",
    {
      stepType: "replace",
      from: 2,
      to: 2,
      slice: {
        content: [
          {
            type: "text",
            text: "x",
            marks: [
              { type: "bold", attrs: { value: true } },
              { type: "bold", attrs: { value: false } },
            ],
          },
        ],
      },
    },
  ],
  [
    "a key that objects have",
    { stepType: "entries", pos: null, attr: "styles", entries: [{ path: ["lists", "__proto__"], value: {} }] },
  ],
  [
    "5,000 levels",
    JSON.parse(`${'{"stepType":"replace","from":1,"to":1,"a":'.repeat(5000)}1${"}".repeat(5000)}`) as Record<
      string,
      unknown
    >,
  ],
])("a change with %s is refused", (_what, step) => {
  const { room, id, store } = shelf()
  const one = member()
  room.join(one, 0, null, null)
  room.receive(one, { type: "steps", version: 0, steps: [step], client: "a" })
  expect(one.got.at(-1)?.type).toBe("refused")
  expect(store.entry(id)?.version).toBe(0)
})

test("what is not understood of a change is neither kept nor passed on", () => {
  const { db, room, writing } = shelf()
  const one = member()
  room.join(one, 0, null, null)
  const junk = "x".repeat(100_000)
  room.receive(one, {
    type: "steps",
    version: 0,
    steps: [
      { ...typed(2, "a"), junk },
      {
        stepType: "entries",
        pos: null,
        attr: "styles",
        entries: [
          { path: ["nowhere", "at", "all"], value: junk },
          { path: ["styles", "body", "name"], value: "Text", junk },
        ],
      },
    ],
    client: "a",
  })
  writing.flush()
  const { size } = db.prepare("select sum(length(step)) as size from steps").get() as { size: number }
  expect(size).toBeLessThan(1000)
  expect(JSON.stringify(one.got)).not.toContain(junk)
})

test("a newcomer gets what it lacks, batch by batch; one with another history is told so and may not write", () => {
  const { room, store, id, writing } = shelf()
  const [one, two, three, four] = [member(), member(), member(), member()]
  room.join(one, 0, store.stamp(id, 0), null)
  room.receive(one, { type: "steps", version: 0, steps: [typed(2, "a"), typed(3, "b")], client: "a" })
  writing.flush()
  room.join(two, 1, store.stamp(id, 1), "Name")
  expect(two.got).toEqual([
    { type: "steps", version: 1, batches: [{ client: "a", person: "imre", saved: 2000, steps: [typed(3, "b")] }] },
    { type: "ready", version: 2, name: "Name" },
  ])
  expect(room.join(three, 9, null, null)).toBe(false)
  expect(room.join(four, 2, "another", null)).toBe(false)
  for (const member of [three, four]) {
    room.receive(member, { type: "steps", version: 2, steps: [typed(2, "x")], client: "b" })
    expect(member.got.map((m) => m.type)).toEqual(["unfit"])
  }
})

test("who types on an older version is brought up to date, not sent back", () => {
  const { room, writing, store, id } = shelf()
  const [one, two] = [member(), member()]
  room.join(one, 0, null, null)
  room.join(two, 0, null, null)
  room.receive(one, { type: "steps", version: 0, steps: [typed(2, "Look: ")], client: "a" })
  room.receive(two, { type: "steps", version: 0, steps: [typed(11, " ferry"), typed(17, "!")], client: "b" })
  writing.flush()
  expect(store.at(id, 3)?.textContent).toBe("Look: The chain ferry!")
  expect(two.got.map((m) => m.type)).toEqual(["ready", "steps", "steps"])
  // The same changes again, as after a lost confirmation: it has to hear of its own first.
  room.receive(two, { type: "steps", version: 1, steps: [typed(17, " ferry"), typed(23, "!")], client: "b" })
  expect(two.got.at(-1)).toEqual({ type: "behind", version: 3 })
})

test("where the disk is full nothing is confirmed, reading goes on, and the same changes pass when there is room again", () => {
  const { db, store, id, room, writing } = shelf()
  const one = member()
  room.join(one, 0, null, null)
  const pages = db.pragma("page_count", { simple: true }) as number
  db.pragma(`max_page_count = ${pages}`)
  const much = { type: "steps" as const, version: 0, steps: [typed(2, "x".repeat(100_000))], client: "a" }
  room.receive(one, much)
  writing.flush()
  expect(one.got.at(-1)).toEqual({ type: "postponed", reason: "the server's disk is full" })
  expect(store.at(id, 0)?.textContent).toBe("The chain")
  db.pragma("max_page_count = 1000000")
  room.receive(one, much)
  writing.flush()
  expect(one.got.at(-1)?.type).toBe("steps")
  expect(store.entry(id)?.version).toBe(1)
})

test("what is kept whole is sent as it lies, what has changed since with its changes; there is nothing for versions that are not", () => {
  const { store, id, room, writing } = shelf()
  const kept = store.packedAt(id, 0)!
  expect(store.contentAt(id, 0)).toBe(brotliDecompressSync(kept).toString())
  const one = member()
  room.join(one, 0, null, null)
  room.receive(one, { type: "steps", version: 0, steps: [typed(11, " ferry")], client: "a" })
  writing.flush()
  expect(store.packedAt(id, 0)).toEqual(kept)
  expect(store.packedAt(id, 1)).toBeUndefined()
  expect(readDocument(JSON.parse(store.contentAt(id, 1)!)).textContent).toBe("The chain ferry")
  for (const version of [2, -1]) expect(store.contentAt(id, version)).toBeUndefined()
  expect(store.contentAt("other", 0)).toBeUndefined()
})

test("a document is written down whole when the last person leaves it", async () => {
  const { store, id, room, writing } = shelf()
  const one = member()
  room.join(one, 0, null, null)
  room.receive(one, { type: "steps", version: 0, steps: [typed(11, " ferry")], client: "a" })
  writing.flush()
  room.leave(one)
  room.close()
  while (store.lastWhole(id) !== 1) await new Promise(setImmediate)
  expect(readDocument(JSON.parse(brotliDecompressSync(store.packedAt(id, 1)!).toString())).textContent).toBe(
    "The chain ferry",
  )
})

test("of old snapshots the first, one an hour for a day and one a day stay, and the last always", () => {
  const hour = 3_600_000
  const now = 1000 * 24 * hour
  const saved = [0, now - 50 * hour, now - 49 * hour, now - 3 * hour, now - 3 * hour + 1, now - 1, now]
  expect(
    dispensable(
      saved.map((time, version) => ({ version, saved: time })),
      now,
    ),
  ).toEqual([1, 3])
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: now })), (times) => {
      const all = times.sort((a, b) => a - b).map((time, version) => ({ version, saved: time }))
      const gone = new Set(dispensable(all, now))
      expect(gone.has(0) || gone.has(all.length - 1)).toBe(false)
      // Thinned once, there is nothing more to thin; and few are left of the last day.
      const left = all.filter(({ version }) => !gone.has(version))
      expect(dispensable(left, now)).toEqual([])
      expect(left.filter((one) => now - one.saved < 24 * hour).length).toBeLessThanOrEqual(27)
    }),
  )
})

test("a database of before opens: its documents get what has come since; a damaged one stays as it is and says so when it is opened", () => {
  const path = join(mkdtempSync(join(tmpdir(), "biblon-store-")), "older.sqlite")
  const old = new Database(path)
  old.exec(readFileSync(join(__dirname, "older.sql"), "utf8"))
  old.close()
  const now = new DocumentStore(openDatabase(path))
  const read = JSON.parse(now.contentAt("old", 0)!) as { attrs: { typesetting: unknown; styles: { fonts: unknown } } }
  expect([read.attrs.typesetting, read.attrs.styles.fonts]).toEqual([expect.any(Object), {}])
  expect(now.at("old", 1)?.textContent).toBe("The chain!")
  expect(now.packedAt("old", 0)).toBeUndefined()
  expect(now.contentAt("broken", 0)).toBe('{"type":"doc"')
  expect(() => now.at("broken", 0)).toThrow()
})

test("every version can be read again, across snapshots", async () => {
  const { store, id, room, writing } = shelf()
  const one = member()
  room.join(one, 0, null, null)
  for (let i = 0; i < 700; i++) {
    room.receive(one, { type: "steps", version: i, steps: [typed(2 + i, "x")], client: "a" })
    writing.flush()
  }
  while (store.lastWhole(id) !== 600) await new Promise(setImmediate)
  for (const version of [0, 1, 299, 300, 301, 650, 700])
    expect(store.at(id, version)?.textContent).toBe("x".repeat(version) + "The chain")
  expect(store.at(id, 701)).toBeUndefined()
  expect([...store.batches(id, 690, 700, 100)].flat().length).toBe(10)
})

test("people who change a document at once, over connections that are slow and break, end with the same text", () => {
  const act = fc.record({ who: fc.nat(2), kind: fc.nat(8), at: fc.nat(40) })
  const commands: Command[] = [insertText("a"), insertText("bc"), splitParagraph, setStyle("heading1"), deleteBackward]
  fc.assert(
    fc.property(fc.array(act, { maxLength: 60 }), (acts) => {
      const { store, id, room, writing } = shelf()
      const people = [0, 1, 2].map((n) => {
        const person = {
          client: `p${n}`,
          state: EditorState.create({ doc: store.at(id, 0)!, plugins: [collab({ version: 0, clientID: `p${n}` })] }),
          inbox: [] as FromServer[],
          outbox: [] as FromApp[],
          inFlight: false,
          member: null as Member | null,
          connect() {
            if (person.member) room.leave(person.member)
            Object.assign(person, { inbox: [], outbox: [], inFlight: false })
            const member: Member = {
              person: person.client,
              right: "edit",
              send: (m) => void (person.member === member && person.inbox.push(m)),
            }
            person.member = member
            room.join(member, getVersion(person.state), null, null)
          },
          /** Takes in what came, and sends. */
          talk() {
            for (const m of person.inbox.splice(0)) {
              if (m.type === "behind") person.inFlight = false
              if (m.type !== "steps") continue
              for (const { client, steps } of m.batches) {
                person.state = person.state.apply(
                  receiveTransaction(
                    person.state,
                    steps.map(readStep),
                    steps.map(() => client),
                  ),
                )
                if (client === person.client) person.inFlight = false
              }
            }
            const sendable = sendableSteps(person.state)
            if (!sendable || person.inFlight) return
            person.inFlight = true
            person.outbox.push({
              type: "steps",
              version: sendable.version,
              steps: sendable.steps.slice(0, 3).map((s) => s.toJSON() as Record<string, unknown>),
              client: person.client,
            })
          },
          arrive() {
            for (const m of person.outbox.splice(0)) room.receive(person.member!, m)
          },
        }
        person.connect()
        return person
      })
      for (const { who, kind, at } of acts) {
        const person = people[who]!
        if (kind === 5) person.talk()
        else if (kind === 6) person.arrive()
        else if (kind === 7) writing.flush()
        else if (kind === 8) person.connect()
        else {
          const $pos = person.state.doc.resolve(1 + (at % (person.state.doc.content.size - 1)))
          person.state = person.state.apply(
            person.state.tr.setSelection((person.state.selection.constructor as any).near($pos)),
          )
          commands[kind]!(person.state, (tr) => (person.state = person.state.apply(tr)))
        }
      }
      for (let round = 0; round < 60; round++) {
        for (const person of people) {
          person.talk()
          person.arrive()
        }
        writing.flush()
      }
      const kept = store.at(id, room.version)!
      for (const { state } of people) {
        expect(sendableSteps(state)).toBeNull()
        expect(state.doc.eq(kept)).toBe(true)
      }
    }),
    { numRuns: 150 },
  )
})

test("files that no version uses go after a while; those of a version, of a taken back change, and new ones stay", async () => {
  const { db, room, writing } = shelf()
  const assets = new AssetStore(db)
  const late = unusedFor + 5000
  const file = (name: string, added = 1000) => assets.put(new TextEncoder().encode(name), "image/png", added)
  const [used, removed, stray, fresh] = [file("used"), file("removed"), file("stray"), file("fresh", late)]
  const one = member()
  room.join(one, 0, null, null)
  const picture = (asset: string) => ({
    stepType: "replace",
    from: 2,
    to: 2,
    slice: { content: [{ type: "picture", attrs: { asset, source: null, pixels: [10, 10], format: null } }] },
  })
  const gone = { stepType: "replace", from: 2, to: 3 }
  room.receive(one, { type: "steps", version: 0, steps: [picture(removed), gone, picture(used)], client: "a" })
  writing.flush()
  expect(one.got.at(-1)).toMatchObject({ type: "steps" })
  expect(await sweepAssets(db, 2000)).toBe(0)
  expect(await sweepAssets(db, late)).toBe(1)
  expect([used, removed, stray, fresh].map((name) => assets.get(name) !== undefined)).toEqual([true, true, false, true])
})
