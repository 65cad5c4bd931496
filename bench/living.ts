/** People who write at once, and a server that comes back: on a process of its own. */
import { Slice, Fragment } from "prosemirror-model"
import { ReplaceStep } from "prosemirror-transform"
import { WebSocket } from "ws"
import { document, p, readStep, schema } from "@biblon/core/document"
import type { FromServer } from "@biblon/wire"
import { TestServer } from "../e2e/server"
import { percentile } from "./figures"
import { prose } from "./text"

export interface LivingFigures {
  /** From a letter typed to its confirmation, the median, with so many people in one document. */
  confirmMs20: number
  confirmMs50: number
  /** The same for 20 people, each in a document of their own. */
  confirmMsApart20: number
  /** A server that was killed, from its start to the content of 1,000 sheets with changes on top. */
  restartMs: number
}

const seconds = 8
/** Milliseconds between the letters of one person. */
const pace = 180

async function keep(server: TestServer, doc: ReturnType<typeof document>): Promise<string> {
  const response = await fetch(`${server.address}/api/documents/kept`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ name: null, document: doc.toJSON() as unknown }),
  })
  return ((await response.json()) as { id: string }).id
}

/** Somebody who types at the end of a paragraph of their own, and follows what others do by where that is. */
class Typist {
  private version = 0
  private pending: number[] = []
  private sent = 0
  readonly times: number[] = []
  private readonly socket: WebSocket
  private timer: ReturnType<typeof setInterval> | undefined
  private ready = false

  constructor(
    address: string,
    id: string,
    private readonly client: string,
    private at: number,
  ) {
    this.socket = new WebSocket(`${address.replace("http", "ws")}/live/${id}?since=0`)
    this.socket.on("message", (data) => this.take(JSON.parse(String(data)) as FromServer))
  }

  start(): void {
    this.timer = setInterval(
      () => {
        this.pending.push(performance.now())
        this.send()
      },
      pace * (0.5 + Math.random()),
    )
  }

  stop(): void {
    clearInterval(this.timer)
    this.socket.terminate()
  }

  private send(): void {
    if (!this.ready || this.sent > 0 || this.pending.length === 0) return
    this.sent = this.pending.length
    const step = new ReplaceStep(this.at, this.at, new Slice(Fragment.from(schema.text("e".repeat(this.sent))), 0, 0))
    this.socket.send(
      JSON.stringify({ type: "steps", version: this.version, client: this.client, steps: [step.toJSON()] }),
    )
  }

  private take(message: FromServer): void {
    if (message.type === "ready") this.ready = true
    if (message.type === "refused" || message.type === "postponed") throw new Error(message.reason)
    if (message.type === "behind") this.sent = 0
    if (message.type === "steps")
      for (const { client, steps } of message.batches) {
        this.version += steps.length
        for (const json of steps)
          this.at = readStep(json)
            .getMap()
            .map(this.at, client === this.client ? 1 : -1)
        if (client !== this.client) continue
        const now = performance.now()
        this.times.push(...this.pending.splice(0, this.sent).map((typed) => now - typed))
        this.sent = 0
      }
    this.send()
  }
}

async function confirmMs(server: TestServer, people: number, apart: boolean): Promise<number> {
  const doc = document(Array.from({ length: people }, (_, i) => p(`Person ${i}: `)))
  const ids = await Promise.all(Array.from({ length: apart ? people : 1 }, () => keep(server, doc)))
  let end = 1
  const typists = Array.from({ length: people }, (_, i) => {
    end += doc.child(0).child(i).nodeSize
    return new Typist(server.address, ids[apart ? i : 0] as string, `person${i}`, end - 1)
  })
  await new Promise((resolve) => setTimeout(resolve, 500))
  for (const typist of typists) typist.start()
  await new Promise((resolve) => setTimeout(resolve, seconds * 1000))
  for (const typist of typists) typist.stop()
  return percentile(
    typists.flatMap(({ times }) => times),
    0.5,
  )
}

async function restartMs(server: TestServer): Promise<number> {
  const id = await keep(server, prose(480_000))
  const typist = new Typist(server.address, id, "one", 5)
  await new Promise((resolve) => setTimeout(resolve, 500))
  typist.start()
  await new Promise((resolve) => setTimeout(resolve, 4000))
  typist.stop()
  await server.kill()
  const start = performance.now()
  await server.start()
  await (await fetch(`${server.address}/api/documents/${id}/content`)).text()
  return performance.now() - start
}

export async function measureLiving(): Promise<LivingFigures> {
  const server = new TestServer()
  await server.start()
  const figures = {
    confirmMs20: await confirmMs(server, 20, false),
    confirmMs50: await confirmMs(server, 50, false),
    confirmMsApart20: await confirmMs(server, 20, true),
    restartMs: await restartMs(server),
  }
  await server.stop()
  return figures
}

if (process.argv[1]?.endsWith("living.ts")) console.log(JSON.stringify(await measureLiving()))
