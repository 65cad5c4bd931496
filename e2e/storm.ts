/**
 * Writers whose server is ill-treated: `npm run storm -- --minutes 15`. They keep in step as the page does, by its own code; the
 * server is killed at random moments and while it writes snapshots, ended, put on a disk that is full, given a clock that is set
 * back, a second server on its database, upgrades that are broken off, and sockets that close or fall silent. At the end everything
 * that was confirmed is in the document, once and in order, and the database is whole.
 */
import "fake-indexeddb/auto"
import { connect } from "node:net"
import { parseArgs } from "node:util"
import Database from "better-sqlite3"
import { collab, sendableSteps } from "prosemirror-collab"
import { Node } from "prosemirror-model"
import { EditorState } from "prosemirror-state"
import { WebSocket } from "ws"
import { document, leavesOf, p, schema, textOf } from "@biblon/core/document"
import { TestServer } from "./server"

const { values } = parseArgs({ options: { minutes: { type: "string" }, seconds: { type: "string", default: "60" } } })
const duration = values.minutes === undefined ? Number(values.seconds) * 1000 : Number(values.minutes) * 60_000
const writers = 5
const longestCalm = 4000

const server = new TestServer()
const kept = new Map<string, string>()
const sockets = new Set<WebSocket>()

class TrackedSocket extends WebSocket {
  constructor(url: string) {
    super(url)
    sockets.add(this)
    this.on("close", () => sockets.delete(this))
    this.on("error", () => this.terminate())
  }
}

Object.assign(globalThis, {
  WebSocket: TrackedSocket,
  addEventListener: () => {},
  removeEventListener: () => {},
  localStorage: {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
    key: () => null,
    length: 0,
  },
})
const setLocation = () =>
  Object.assign(globalThis, { location: { protocol: "http:", host: `127.0.0.1:${server.port}` } })

const { Connection } = await import("../apps/web/src/live/connection")

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
const any = <T>(list: readonly T[]): T => list[Math.floor(Math.random() * list.length)] as T

interface Tally {
  typed: number
  asides: string[]
  unfit: number
}

/** Somebody who types numbers, one after the other, into a paragraph of their own. */
class Writer {
  private state: EditorState
  private readonly connection: InstanceType<typeof Connection>
  private next = 0
  readonly tally: Tally = { typed: 0, asides: [], unfit: 0 }

  constructor(
    id: string,
    private readonly number: number,
    content: string,
    version: number,
    stamp: string,
  ) {
    const client = `writer${number}`
    this.state = EditorState.create({
      doc: Node.fromJSON(schema, JSON.parse(content)),
      plugins: [collab({ version, clientID: client })],
    })
    this.connection = new Connection({
      id,
      client,
      stamp,
      state: () => this.state,
      receive: (tr) => (this.state = this.state.apply(tr)),
      onSaving: () => {},
      onName: () => {},
      onAside: ({ text, reason }) => void this.tally.asides.push(`${text} (${reason})`),
      onUnfit: () => void this.tally.unfit++,
    })
  }

  type(): void {
    const { doc } = this.state
    // The paragraph with this writer's sign, wherever others have moved it.
    const leaf = leavesOf(doc).nodes.findIndex((own) => textOf(own).startsWith(`${this.number}:`))
    const end = leavesOf(doc).end(leaf)
    this.state = this.state.apply(this.state.tr.insertText(` ${this.next++}`, end))
    this.tally.typed++
    this.connection.changed()
  }

  get saved(): boolean {
    return sendableSteps(this.state) === null
  }

  get text(): string {
    return this.state.doc.textContent
  }

  close(): void {
    this.connection.close()
  }
}

const done: Record<string, number> = {}

function junk(): Promise<void> {
  return new Promise((resolve) => {
    const socket = connect(server.port, "127.0.0.1", () => {
      socket.write(
        `GET ${any(["//", "http://[/", "/live/x", `/live/${id}?since=0`])} HTTP/1.1\r\nHost: 127.0.0.1:${server.port}\r\nUpgrade: websocket\r\nConnection: Upgrade\r\nSec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\nSec-WebSocket-Version: 13\r\n\r\n`,
      )
      // Some stay open and silent.
      if (Math.random() < 0.6) setTimeout(() => socket.resetAndDestroy(), 20)
      else setTimeout(() => socket.destroy(), 3000)
      resolve()
    })
    socket.on("error", () => resolve())
  })
}

const blows: Record<string, () => Promise<void>> = {
  killed: async () => {
    await server.kill()
    await pause(Math.random() * 800)
    await server.start()
  },
  "killed at a snapshot": async () => {
    // A flood of changes passes the next snapshot; the kill comes while it is on its way.
    for (let i = 0; i < 400; i++) any(people).type()
    await pause(Math.random() * 120)
    await server.kill()
    await server.start()
  },
  ended: async () => {
    await server.kill("SIGTERM")
    await server.start()
  },
  "disk full": async () => {
    await server.kill()
    const grown = await server.start(false, { fileLimit: true })
    if (grown) await pause(2500)
    await server.kill()
    await server.start()
  },
  "clock set back": async () => {
    await server.kill()
    await server.start(false, { clockBack: 3_600_000 })
    await pause(1500)
    await server.kill()
    await server.start()
  },
  "second server": async () => {
    if (await server.second()) throw new Error("A second server came up on the same database")
  },
  "sockets closed": async () => {
    for (const socket of [...sockets]) if (Math.random() < 0.6) socket.terminate()
  },
  "broken upgrades": async () => {
    for (let i = 0; i < 10; i++) await junk()
  },
}

await server.start()
setLocation()
const id = await server.create(document(Array.from({ length: writers }, (_, i) => p(`${i}:`))).toJSON())
const content = await fetch(`${server.address}/api/documents/${id}/content`)
const text = await content.text()
const people = Array.from(
  { length: writers },
  (_, i) =>
    new Writer(id, i, text, Number(content.headers.get("Biblon-Version")), content.headers.get("Biblon-Stamp") ?? ""),
)
const typing = people.map((person) => setInterval(() => person.type(), 40 + Math.random() * 160))

const end = Date.now() + duration
while (Date.now() < end) {
  await pause(Math.random() * longestCalm)
  const [name, blow] = any(Object.entries(blows))
  await blow()
  done[name] = (done[name] ?? 0) + 1
}
for (const timer of typing) clearInterval(timer)
for (let i = 0; i < 600 && !people.every((person) => person.saved); i++) await pause(100)

const stored = (await server.paragraphs(id)).map((own) => own.text)
const unsaved = people.filter((person) => !person.saved).length
const apart = people.filter((person) => person.text !== stored.join("")).length
for (const person of people) person.close()
await server.kill("SIGTERM")
const db = new Database(server.database, { readonly: true })
const integrity = db.pragma("integrity_check", { simple: true }) as string
const versions = db.prepare("select count(*) as steps, max(version) + 1 as last from steps").get() as {
  steps: number
  last: number
}
db.close()
await server.stop()

let [confirmed, lost, doubled] = [0, 0, 0]
people.forEach(({ tally }, i) => {
  const found = (stored.find((own) => own.startsWith(`${i}:`)) ?? "").split(" ").slice(1).map(Number)
  const set = new Set(found)
  confirmed += set.size
  lost += tally.typed - set.size
  doubled += found.length - set.size
  if (found.some((n, at) => n !== at)) console.log(`Writer ${i}: out of order`)
})
const asides = people.flatMap(({ tally }) => tally.asides)
const unfit = people.reduce((sum, { tally }) => sum + tally.unfit, 0)
console.log(
  Object.entries(done)
    .map(([name, n]) => `${name}: ${n}`)
    .join(", "),
)
console.log(
  `confirmed ${confirmed}, lost ${lost}, doubled ${doubled}, set aside ${asides.length}, unfit ${unfit}, unsaved writers ${unsaved}, pages unlike the server ${apart}, integrity ${integrity}, steps ${versions.steps} of ${versions.last}`,
)
for (const aside of asides.slice(0, 5)) console.log(aside)
process.exit(
  lost + doubled + asides.length + unfit + unsaved + apart === 0 &&
    integrity === "ok" &&
    versions.steps === versions.last
    ? 0
    : 1,
)
