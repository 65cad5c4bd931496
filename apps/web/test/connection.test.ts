/** Keeping in step with the server, against a socket that a test plays. */
import { collab, getVersion, sendableSteps } from "prosemirror-collab"
import { EditorState, type Transaction } from "prosemirror-state"
import { document as makeDocument, p } from "@biblon/core/document"
import type { FromServer } from "@biblon/wire"
import { Connection, type Saving } from "../src/live/connection"
import type { Aside, PendingRecord } from "../src/live/records"

const kept: PendingRecord[] = []
jest.mock("../src/live/pending", () => ({
  PendingKeeper: class {
    keep(record: PendingRecord) {
      kept.push(record)
    }
    flush() {}
  },
  dropRecord: () => Promise.resolve(),
}))

class FakeSocket {
  static readonly OPEN = 1
  static all: FakeSocket[] = []
  readyState = 1
  sent: { type: string; version: number; steps: unknown[]; client: string }[] = []
  onmessage: ((event: { data: string }) => void) | null = null
  onclose: (() => void) | null = null
  constructor(readonly url: string) {
    FakeSocket.all.push(this)
  }
  send(data: string) {
    this.sent.push(JSON.parse(data))
  }
  close() {
    this.readyState = 3
  }
  say(message: FromServer) {
    this.onmessage?.({ data: JSON.stringify(message) })
  }
  drop() {
    this.readyState = 3
    this.onclose?.()
  }
}

const listeners = new Map<string, () => void>()
Object.assign(globalThis, {
  WebSocket: FakeSocket,
  location: { protocol: "http:", host: "desk.example" },
  addEventListener: (name: string, listener: () => void) => listeners.set(name, listener),
  removeEventListener: (name: string) => listeners.delete(name),
})

function desk() {
  FakeSocket.all = []
  kept.length = 0
  let state = EditorState.create({
    doc: makeDocument([p("The chain")]),
    plugins: [collab({ version: 4, clientID: "me" })],
  })
  const said: Saving[] = []
  const names: (string | null)[] = []
  const aside: Aside[] = []
  const reopened = jest.fn()
  const connection = new Connection({
    id: "doc12345",
    client: "me",
    stamp: "1.x",
    state: () => state,
    receive: (tr: Transaction) => (state = state.apply(tr)),
    onSaving: (s) => said.push(s),
    onName: (n) => names.push(n),
    onAside: (own) => aside.push(own),
    onUnfit: reopened,
  })
  return {
    connection,
    names,
    aside,
    reopened,
    type(text: string) {
      this.insert(state.doc.content.size - 2, text)
    },
    insert(at: number, text: string) {
      state = state.apply(state.tr.insertText(text, at))
      connection.changed()
    },
    get socket() {
      return FakeSocket.all.at(-1) as FakeSocket
    },
    saving: () => said.at(-1),
    text: () => state.doc.textContent,
    version: () => getVersion(state),
    pending: () => sendableSteps(state)?.steps.length ?? 0,
  }
}

const confirmation = (socket: FakeSocket, clients = ["me"]): FromServer => {
  const last = socket.sent.at(-1)!
  return {
    type: "steps",
    version: last.version,
    batches: [{ client: clients[0]!, person: "", steps: last.steps as Record<string, unknown>[], saved: 1000 }],
  }
}

beforeEach(() => jest.useFakeTimers())
afterEach(() => jest.useRealTimers())

test("asks for what it lacks, sends when it may, and says that it saved when it is confirmed", () => {
  const d = desk()
  expect(d.socket.url).toMatch(/^ws:\/\/desk\.example\/live\/doc12345\?since=4&stamp=1\.x&person=[\w-]{8,60}$/)
  d.type("!")
  expect(d.socket.sent).toEqual([])
  d.socket.say({ type: "ready", version: 4, name: "Letter" })
  expect(d.names).toEqual(["Letter"])
  expect(d.socket.sent[0]).toMatchObject({ type: "steps", version: 4, client: "me" })
  expect(d.saving()).toEqual({ kind: "saving" })
  d.socket.say(confirmation(d.socket))
  expect([d.saving(), d.version(), d.pending()]).toEqual([{ kind: "saved", at: 1000 }, 5, 0])
  expect(kept.at(-1)).toMatchObject({ client: "me", document: "doc12345", version: 5, steps: [] })
})

test("has one message under way at a time and keeps all else on the device", () => {
  const d = desk()
  d.socket.say({ type: "ready", version: 4, name: null })
  d.type("a")
  d.type("b")
  d.type("c")
  expect(d.socket.sent.map((m) => m.steps.length)).toEqual([1])
  expect(kept.at(-1)!.steps.length).toBe(3)
  d.socket.say(confirmation(d.socket))
  expect(d.socket.sent.map((m) => [m.version, m.steps.length])).toEqual([
    [4, 1],
    [5, 2],
  ])
})

test("puts its own changes on top of other people's and sends them again", () => {
  const d = desk()
  d.socket.say({ type: "ready", version: 4, name: null })
  d.type("!")
  d.socket.say({ type: "behind", version: 5 })
  const theirs = EditorState.create({ doc: makeDocument([p("The chain")]) }).tr.insertText("See: ", 2)
  d.socket.say({
    type: "steps",
    version: 4,
    batches: [
      { client: "them", person: "", saved: 900, steps: theirs.steps.map((s) => s.toJSON() as Record<string, unknown>) },
    ],
  })
  expect(d.text()).toBe("See: The chain!")
  expect(d.socket.sent.at(-1)).toMatchObject({ version: 5 })
})

test("comes back after a loss, with growing pauses, and knows its own changes that were saved but not confirmed", () => {
  const d = desk()
  d.socket.say({ type: "ready", version: 4, name: null })
  d.type("!")
  const lost = d.socket
  const answer = confirmation(lost)
  lost.drop()
  expect(d.saving()).toEqual({ kind: "offline", kept: true })
  jest.advanceTimersByTime(400)
  expect(FakeSocket.all.length).toBe(2)
  d.socket.drop()
  jest.advanceTimersByTime(400)
  expect(FakeSocket.all.length).toBe(2)
  jest.advanceTimersByTime(400)
  expect(FakeSocket.all.length).toBe(3)
  expect(d.socket.url).toContain("since=4")
  d.socket.say(answer)
  d.socket.say({ type: "ready", version: 5, name: null })
  expect([d.pending(), d.socket.sent, d.text()]).toEqual([0, [], "The chain!"])
})

test("a connection that stands but does not answer is given up", () => {
  const d = desk()
  d.socket.say({ type: "ready", version: 4, name: null })
  d.type("!")
  jest.advanceTimersByTime(9000)
  expect(FakeSocket.all.length).toBeGreaterThan(1)
  expect(d.saving()?.kind).toBe("offline")
})

test("what is refused is set aside with what depends on it, and writing goes on saved", () => {
  const d = desk()
  d.socket.say({ type: "ready", version: 4, name: null })
  d.type(" holds?")
  d.insert(6, "long ")
  d.insert(20, "er")
  d.socket.say({ type: "refused", reason: "It does not fit." })
  expect(d.text()).toBe("The long chain")
  expect(d.aside.map(({ cause, reason, text }) => [cause, reason, text])).toEqual([
    ["refused", "It does not fit.", "holerds?"],
  ])
  expect(d.socket.sent.at(-1)).toMatchObject({ version: 4 })
  d.socket.say(confirmation(d.socket))
  expect([d.saving(), d.pending()]).toEqual([{ kind: "saved", at: 1000 }, 0])
})

test("while the server cannot write it is asked at growing intervals, and what is typed goes with it", () => {
  const d = desk()
  d.socket.say({ type: "ready", version: 4, name: null })
  d.type("!")
  d.socket.say({ type: "postponed", reason: "the server's disk is full" })
  expect(d.saving()).toEqual({ kind: "postponed", reason: "the server's disk is full", kept: true })
  d.type("?")
  expect(d.socket.sent.length).toBe(1)
  jest.advanceTimersByTime(600)
  expect(d.socket.sent.at(-1)!.steps.length).toBe(2)
  d.socket.say(confirmation(d.socket))
  expect(d.saving()).toEqual({ kind: "saved", at: 1000 })
})

test("a server that could not write and then went away is asked again when it is back", () => {
  const d = desk()
  d.socket.say({ type: "ready", version: 4, name: null })
  d.type("!")
  d.socket.say({ type: "postponed", reason: "the server's disk is full" })
  d.socket.drop()
  jest.advanceTimersByTime(600)
  d.socket.say({ type: "ready", version: 4, name: null })
  expect(d.socket.sent).toHaveLength(1)
  d.socket.say(confirmation(d.socket))
  expect(d.saving()).toEqual({ kind: "saved", at: 1000 })
})

test("a copy of another history is given up for a fresh one", () => {
  const d = desk()
  d.type(" ferry")
  d.socket.say({ type: "unfit", reason: "It was put back." })
  expect(d.reopened.mock.calls).toEqual([["It was put back."]])
  jest.advanceTimersByTime(20_000)
  expect(FakeSocket.all.length).toBe(1)
})

test("long changes go in messages that the server takes, one that is too long for any is set aside", () => {
  const d = desk()
  d.socket.say({ type: "ready", version: 4, name: null })
  for (let i = 0; i < 5; i++) d.type("x".repeat(300_000))
  const sizes: number[] = []
  while (d.pending() > 0) {
    sizes.push(d.socket.sent.at(-1)!.steps.length)
    d.socket.say(confirmation(d.socket))
  }
  expect(sizes).toEqual([1, 2, 2])
  d.type("ø".repeat(7_000_000))
  expect([d.pending(), d.aside.map(({ cause }) => cause)]).toEqual([0, ["tooLarge"]])
  expect(d.aside[0]?.text.length).toBe(7_000_000)
})

test("own changes that others overtook come back brought up to date, batch by batch", () => {
  const d = desk()
  d.socket.say({ type: "ready", version: 4, name: null })
  d.type("!")
  const mine = d.socket.sent[0]!.steps[0] as { from: number; to: number }
  const theirs = EditorState.create({ doc: makeDocument([p("The chain")]) }).tr.insertText("See: ", 2)
  const batches = [
    { client: "them", person: "", saved: 900, steps: theirs.steps.map((s) => s.toJSON() as Record<string, unknown>) },
    {
      client: "me",
      person: "",
      saved: 901,
      steps: [{ ...mine, from: mine.from + 5, to: mine.to + 5 }] as Record<string, unknown>[],
    },
  ]
  d.socket.say({ type: "steps", version: 4, batches })
  expect([d.text(), d.version(), d.pending(), d.saving()]).toEqual([
    "See: The chain!",
    6,
    0,
    { kind: "saved", at: 901 },
  ])
  d.socket.drop()
  jest.advanceTimersByTime(400)
  expect(d.socket.url).toContain("since=6&stamp=901.me")
})

test("when the network is back it does not wait, and once closed it stays away", () => {
  const d = desk()
  d.socket.drop()
  listeners.get("online")!()
  expect(FakeSocket.all.length).toBe(2)
  d.connection.close()
  jest.advanceTimersByTime(20_000)
  expect(FakeSocket.all.length).toBe(2)
  expect(listeners.has("pagehide")).toBe(false)
})
