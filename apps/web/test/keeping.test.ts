/** What is unconfirmed lies on the device: also where a storage is denied, and where the page goes in the next moment. */
import "fake-indexeddb/auto"
import fc from "fast-check"
import { kept } from "./browser"
import { device } from "../src/live/device"
import type * as pending from "../src/live/pending"
import { dropRecord, PendingKeeper, recordOf, sessionsOf } from "../src/live/pending"
import { takeSession } from "../src/live/sessions"
import { Fragment, Slice } from "prosemirror-model"
import { p } from "@biblon/core/document"
import { asideOf, asidesOf, dropAside, joinedAside, keepAside } from "../src/live/aside"
import { insertedBy } from "@biblon/core/editing"

const record = (client: string, ...texts: string[]) => ({
  client,
  document: "doc",
  version: 3,
  stamp: "1.a",
  steps: texts.map(step),
})
const inserting = (text: string) => ({
  stepType: "replace",
  from: 2,
  to: 2,
  slice: { content: [{ type: "text", text }] },
})
const step = (text: string) => JSON.stringify(inserting(text))
const textsOf = async (client: string) =>
  (await recordOf(client))?.steps.map(
    (own) => (own as { slice: { content: { text: string }[] } }).slice.content[0]!.text,
  )
const settled = async (client: string) => {
  for (let i = 0; i < 50 && kept.has(`biblon-pending-${client}`); i++)
    await new Promise((resolve) => setTimeout(resolve, 5))
}

beforeEach(() => kept.clear())

test("what was kept is there in the same task, and once IndexedDB has it in that alone", async () => {
  const keeper = new PendingKeeper(() => {})
  keeper.keep(record("one", "a"))
  expect(kept.size).toBe(1)
  expect(await textsOf("one")).toEqual(["a"])
  await settled("one")
  expect(kept.size).toBe(0)
  expect(await textsOf("one")).toEqual(["a"])
  expect(await sessionsOf("doc")).toContain("one")
  await dropRecord("one")
  expect(await recordOf("one")).toBeNull()
})

test("only what IndexedDB lacks is written twice, and the two are joined", async () => {
  const keeper = new PendingKeeper(() => {})
  keeper.keep(record("two", "a", "b"))
  await settled("two")
  const db = await device()
  const before = await db.get("pending", "two")
  keeper.keep(record("two", "a", "b", "c"))
  const first = kept.get("biblon-pending-two")!
  expect(JSON.parse(first)).toMatchObject({ after: 2, steps: [{ slice: { content: [{ text: "c" }] } }] })
  // While that is being written.
  keeper.keep(record("two", "a", "b", "c", "d"))
  const second = kept.get("biblon-pending-two")!
  await settled("two")
  // As if the page had gone before IndexedDB took the last, or both.
  kept.set("biblon-pending-two", second)
  await db.put("pending", { ...before!, turn: before!.turn + 1 })
  expect(await textsOf("two")).toEqual(["a", "b", "c", "d"])
  for (const [mirror, texts] of [
    [first, ["a", "b", "c"]],
    [second, ["a", "b", "c", "d"]],
  ] as const) {
    await db.put("pending", before!)
    kept.set("biblon-pending-two", mirror)
    expect(await textsOf("two")).toEqual(texts)
  }
  // A mirror that is older than the record says nothing. Older programs kept steps within it, and as objects; what cannot be read is no step.
  await db.put("pending", { ...before!, turn: 9, steps: [step("z")] })
  expect(await textsOf("two")).toEqual(["z"])
  await db.put("pending", { ...before!, turn: 10, steps: [inserting("y"), "{"] })
  expect((await recordOf("two"))?.steps.map((own) => own !== null)).toEqual([true, false])
})

test("whatever is confirmed, brought up to date, set aside and written, what is there is the last; and only what is new goes there", async () => {
  const change = fc.record({ confirmed: fc.nat(4), rebased: fc.boolean(), added: fc.nat(3), waits: fc.boolean() })
  let count = 0
  const more = (wanted: number) => Array.from({ length: wanted }, () => `${count++}`)
  const put = jest.spyOn(IDBObjectStore.prototype, "put")
  await fc.assert(
    fc.asyncProperty(fc.nat(3), fc.array(change, { minLength: 1, maxLength: 8 }), async (left, changes) => {
      const client = crypto.randomUUID()
      const before = new PendingKeeper(() => {})
      let texts = more(left)
      before.keep(record(client, ...texts))
      await settled(client)
      const keeper = new PendingKeeper(() => {})
      keeper.keep(record(client, ...texts))
      await settled(client)
      let written: string[] | null = texts
      for (const { confirmed, rebased, added, waits } of changes) {
        texts = [...texts.slice(confirmed).map((text) => (rebased ? `${text}'` : text)), ...more(added)]
        put.mockClear()
        keeper.keep({ ...record(client, ...texts), version: 3 + confirmed })
        const there = written
        written = null
        if (!waits) continue
        await settled(client)
        expect((await textsOf(client)) ?? []).toEqual(texts)
        const still = rebased ? 0 : Math.max(0, (there?.length ?? 0) - confirmed)
        if (still > 0) expect(put).toHaveBeenCalledTimes(1 + texts.length - still)
        written = texts
      }
      await settled(client)
      expect((await textsOf(client)) ?? []).toEqual(texts)
      expect(await (await device()).count("steps", IDBKeyRange.bound([client, -1], [client, Infinity]))).toBe(
        texts.length,
      )
    }),
    { numRuns: 40 },
  )
  put.mockRestore()
})

test("a storage that is denied is said to be so, once, and asked again in peace", async () => {
  const opened = jest.spyOn(indexedDB, "open").mockImplementation(() => {
    throw new DOMException("denied", "SecurityError")
  })
  const setTimeout = globalThis.setTimeout
  const later: (() => void)[] = []
  const timed = jest
    .spyOn(globalThis, "setTimeout")
    .mockImplementation(((act: () => void, ms: number) =>
      ms === 3000 && later.length === 0 ? later.push(act) : setTimeout(act, ms)) as typeof globalThis.setTimeout)
  const heard: boolean[] = []
  let keeper: PendingKeeper | undefined
  jest.isolateModules(() => {
    const { PendingKeeper: Fresh } = jest.requireActual<typeof pending>("../src/live/pending")
    keeper = new Fresh((own) => heard.push(own))
  })
  for (let i = 0; i < 500; i++) keeper!.keep(record("three", `t${i}`))
  await new Promise((resolve) => setTimeout(resolve, 50))
  expect(heard).toEqual([false])
  expect(opened.mock.calls.length).toBeLessThan(3)
  opened.mockRestore()
  later[0]?.()
  for (let i = 0; i < 50 && heard.length < 2; i++) await new Promise((resolve) => setTimeout(resolve, 5))
  expect(heard).toEqual([false, true])
  expect(await textsOf("three")).toHaveLength(1)
  timed.mockRestore()
})

test("two tabs that ask for one session in the same moment: one gets it, the other when that is gone", async () => {
  const held = new Map<string, Promise<unknown>>()
  const request = async (name: string, _options: unknown, act: (lock: object | null) => unknown) => {
    if (held.has(name)) return act(null)
    const done = Promise.resolve(act({}))
    held.set(name, done)
    await done
    held.delete(name)
  }
  Object.defineProperty(globalThis, "navigator", { value: { locks: { request } }, configurable: true })
  let end = () => {}
  const ended = new Promise<void>((resolve) => (end = resolve))
  expect(await Promise.all([takeSession("s", ended), takeSession("s", ended)])).toEqual([true, false])
  end()
  await new Promise((resolve) => setTimeout(resolve, 1))
  expect(await takeSession("s", ended)).toBe(true)
})

test("letters that are set aside one after the other are one text, other reasons another", () => {
  const of = (text: string, reason = "x") => asideOf("doc", "refused", reason, new Slice(Fragment.from(p(text)), 1, 1))
  const word = ["t", "i", "d", "e"].map((letter) => of(letter)).reduce((a, b) => joinedAside(a, b) ?? a)
  expect([word.text, joinedAside(word, of("?", "y")), joinedAside(undefined, word)]).toEqual(["tide", null, null])
  expect(
    joinedAside(word, asideOf("doc", "refused", "x", new Slice(Fragment.from([p("a"), p("b")]), 0, 0)))?.text,
  ).toBe("tide\na\nb")
})

test("what was set aside stays until it is dropped, with its words", async () => {
  const slice = insertedBy([
    inserting("Mind "),
    inserting("the chain"),
    { stepType: "nonsense" },
    {
      stepType: "replace",
      from: 2,
      to: 2,
      slice: { content: [{ type: "paragraph", content: [{ type: "text", text: "And the tide." }] }] },
    },
  ])
  const aside = asideOf("doc", "unfit", "It was put back.", slice)
  expect(aside.text).toBe("Mind the chain\nAnd the tide.")
  expect(await keepAside(aside)).toBe(true)
  expect(await asidesOf("doc")).toEqual([aside])
  await dropAside(aside.id)
  expect(await asidesOf("doc")).toEqual([])
})
