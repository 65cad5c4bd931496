/** The real server on a temporary database, as a process of its own that can be killed and started again. */
import { spawn, type ChildProcess } from "node:child_process"
import { existsSync, mkdtempSync, rmSync, statSync } from "node:fs"
import { tmpdir } from "node:os"
import { dirname, join } from "node:path"
import { fileURLToPath } from "node:url"
import { programNamed } from "../scripts/programs.mjs"

export const root = join(dirname(fileURLToPath(import.meta.url)), "..")

// Once for each process that runs tests: what is edited meanwhile does not reach them.
const program = programNamed("server")

export interface StoredParagraph {
  style: string
  text: string
  format: Record<string, unknown> | null
  runs: { text: string; marks: Record<string, unknown> }[]
}

interface NodeJson {
  type: string
  attrs?: Record<string, unknown>
  content?: NodeJson[]
  text?: string
  marks?: { type: string; attrs: { value: unknown } }[]
}

export interface StartWays {
  /** No file may grow much larger than the database is. */
  fileLimit?: boolean
  /** Milliseconds by which its clock is behind. */
  clockBack?: number
}

export class TestServer {
  private process: ChildProcess | null = null
  private readonly folder = mkdtempSync(join(tmpdir(), "biblon-"))
  port = 0

  get database(): string {
    return join(this.folder, "test.sqlite")
  }

  get address(): string {
    return `http://127.0.0.1:${this.port}`
  }

  /** @returns whether it came up, where one of the ways could hinder it; otherwise it throws */
  async start(demo = false, ways: StartWays = {}): Promise<boolean> {
    const child = this.spawn(demo, this.port, ways)
    this.process = child
    const hindered = ways.fileLimit === true
    this.port = await new Promise<number>((resolve, reject) => {
      let errors = ""
      child.stderr.on("data", (data) => (errors += String(data)))
      child.stdout.on("data", (data) => {
        const port = /127\.0\.0\.1:(\d+)/.exec(String(data))?.[1]
        if (port) resolve(Number(port))
      })
      child.on("exit", () => (hindered ? resolve(this.port) : reject(new Error(`The server did not start: ${errors}`))))
    })
    return child.exitCode === null && child.signalCode === null
  }

  private spawn(
    demo: boolean,
    port: number,
    { fileLimit, clockBack }: StartWays,
  ): ChildProcess & { stderr: NodeJS.ReadableStream; stdout: NodeJS.ReadableStream } {
    const clock = clockBack
      ? ["--import", `data:text/javascript,const now=Date.now;Date.now=()=>now()-${clockBack}`]
      : []
    const call = [process.execPath, ...clock, program]
    // In blocks of 1 kB; the database may grow by a little more, as on a disk that is nearly full.
    const most = fileLimit
      ? Math.ceil(
          ["", "-wal"].reduce(
            (sum, end) => Math.max(sum, existsSync(this.database + end) ? statSync(this.database + end).size : 0),
            0,
          ) / 1024,
        ) + 8
      : 0
    const [command = "", ...args] = fileLimit
      ? ["bash", "-c", `ulimit -f ${most}; exec "$@"`, "limited", ...call]
      : call
    return spawn(command, args, {
      cwd: root,
      env: {
        ...process.env,
        BIBLON_ROOT: root,
        BIBLON_PORT: String(port),
        BIBLON_DATABASE: this.database,
        BIBLON_DEMO: demo ? "1" : "",
      },
      stdio: ["ignore", "pipe", "pipe"],
    }) as ChildProcess & { stderr: NodeJS.ReadableStream; stdout: NodeJS.ReadableStream }
  }

  /** Tries to start another server on the same database. @returns whether it came up */
  async second(): Promise<boolean> {
    const child = this.spawn(false, 0, {})
    return new Promise((resolve) => {
      child.on("exit", () => resolve(false))
      child.stdout.on("data", (data) => {
        if (!/127\.0\.0\.1:/.test(String(data))) return
        child.kill("SIGKILL")
        resolve(true)
      })
    })
  }

  /** As a power cut would: no chance to tidy up; or by another signal, with one. */
  async kill(signal: NodeJS.Signals = "SIGKILL"): Promise<void> {
    const child = this.process
    if (!child) return
    if (child.exitCode === null && child.signalCode === null) {
      const gone = new Promise((resolve) => child.on("exit", resolve))
      child.kill(signal)
      await gone
    }
    this.process = null
  }

  async stop(): Promise<void> {
    await this.kill()
    rmSync(this.folder, { recursive: true, force: true })
  }

  /** @param document as JSON; left out for a blank one */
  async create(document?: unknown): Promise<string> {
    const response = document
      ? await fetch(`${this.address}/api/documents/kept`, {
          method: "POST",
          headers: { "Content-Type": "application/json" },
          body: JSON.stringify({ name: null, document }),
        })
      : await fetch(`${this.address}/api/documents`, { method: "POST" })
    return ((await response.json()) as { id: string }).id
  }

  /** What the server has of a document, read past the application. */
  async paragraphs(id: string): Promise<StoredParagraph[]> {
    const doc = (await (await fetch(`${this.address}/api/documents/${id}/content`)).json()) as NodeJson
    return (doc.content?.[0]?.content ?? []).map(({ attrs, content = [] }) => ({
      style: String(attrs?.style),
      format: (attrs?.format ?? null) as StoredParagraph["format"],
      text: content.map((c) => c.text ?? "\n").join(""),
      runs: content.map((c) => ({
        text: c.text ?? "\n",
        marks: Object.fromEntries((c.marks ?? []).map((m) => [m.type, m.attrs.value])),
      })),
    }))
  }

  /** The styles that the server has of a document. */
  async styles(
    id: string,
  ): Promise<
    Record<string, { name: string; paragraph: Record<string, unknown>; letters: Record<string, unknown> } | undefined>
  > {
    const doc = (await (await fetch(`${this.address}/api/documents/${id}/content`)).json()) as {
      attrs: { styles: { styles: Record<string, never> } }
    }
    return doc.attrs.styles.styles
  }

  async text(id: string): Promise<string> {
    return (await this.paragraphs(id)).map((p) => p.text).join("\n")
  }
}
