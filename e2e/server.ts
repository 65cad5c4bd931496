/** The real server on a temporary database, as a process of its own that can be killed and started again. */
import { spawn, type ChildProcess } from "node:child_process"
import { mkdtempSync, rmSync } from "node:fs"
import { tmpdir } from "node:os"
import { dirname, join } from "node:path"
import { fileURLToPath } from "node:url"

export const root = join(dirname(fileURLToPath(import.meta.url)), "..")

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

export class TestServer {
  private process: ChildProcess | null = null
  private readonly folder = mkdtempSync(join(tmpdir(), "biblon-"))
  private port = 0

  get address(): string {
    return `http://127.0.0.1:${this.port}`
  }

  async start(demo = false): Promise<void> {
    const child = spawn(process.execPath, ["--import", "tsx", join(root, "apps/server/src/main.ts")], {
      cwd: root,
      env: { ...process.env, BIBLON_PORT: String(this.port), BIBLON_DATABASE: join(this.folder, "test.sqlite"), BIBLON_DEMO: demo ? "1" : "" },
    })
    this.process = child
    this.port = await new Promise<number>((resolve, reject) => {
      let errors = ""
      child.stderr.on("data", (data) => (errors += String(data)))
      child.stdout.on("data", (data) => {
        const port = /127\.0\.0\.1:(\d+)/.exec(String(data))?.[1]
        if (port) resolve(Number(port))
      })
      child.on("exit", () => reject(new Error(`The server did not start: ${errors}`)))
    })
  }

  /** As a power cut would: no chance to tidy up. */
  async kill(): Promise<void> {
    const child = this.process
    if (!child) return
    const gone = new Promise((resolve) => child.on("exit", resolve))
    child.kill("SIGKILL")
    await gone
    this.process = null
  }

  async stop(): Promise<void> {
    await this.kill()
    rmSync(this.folder, { recursive: true, force: true })
  }

  async create(): Promise<string> {
    const response = await fetch(`${this.address}/api/documents`, { method: "POST" })
    return ((await response.json()) as { id: string }).id
  }

  /** What the server has of a document, read past the application. */
  async paragraphs(id: string): Promise<StoredParagraph[]> {
    const doc = (await (await fetch(`${this.address}/api/documents/${id}/content`)).json()) as NodeJson
    return (doc.content?.[0]?.content ?? []).map(({ attrs, content = [] }) => ({
      style: String(attrs?.style),
      format: (attrs?.format ?? null) as StoredParagraph["format"],
      text: content.map((c) => c.text ?? "\n").join(""),
      runs: content.map((c) => ({ text: c.text ?? "\n", marks: Object.fromEntries((c.marks ?? []).map((m) => [m.type, m.attrs.value])) })),
    }))
  }

  async text(id: string): Promise<string> {
    return (await this.paragraphs(id)).map((p) => p.text).join("\n")
  }
}
