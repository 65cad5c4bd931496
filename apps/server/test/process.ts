/** The server as a process of its own, on a database that goes with it. */
import { spawn, type ChildProcess } from "node:child_process"
import { mkdtempSync, rmSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"

const root = join(__dirname, "../../..")

export class ServerProcess {
  private child: ChildProcess | null = null
  readonly folder = mkdtempSync(join(tmpdir(), "biblon-process-"))
  readonly database = join(this.folder, "test.sqlite")
  errors = ""
  port = 0

  /** @param env further settings. @returns whether it came up */
  async start(env: Record<string, string> = {}): Promise<boolean> {
    const child = spawn(process.execPath, ["--import", "tsx", join(root, "apps/server/src/main.ts")], {
      cwd: root,
      env: { ...process.env, BIBLON_PORT: String(this.port), BIBLON_DATABASE: this.database, ...env },
    })
    this.child = child
    child.stderr.on("data", (data) => (this.errors += String(data)))
    return new Promise((resolve) => {
      child.stdout.on("data", (data) => {
        const port = /127\.0\.0\.1:(\d+)/.exec(String(data))?.[1]
        if (port) resolve(((this.port = Number(port)), true))
      })
      child.on("exit", () => resolve(false))
    })
  }

  get address(): string {
    return `http://127.0.0.1:${this.port}`
  }

  get alive(): boolean {
    return this.child !== null && this.child.exitCode === null && this.child.signalCode === null
  }

  /** As a power cut would, or gently. */
  async end(signal: NodeJS.Signals = "SIGKILL"): Promise<void> {
    const { child } = this
    if (!child || !this.alive) return
    const gone = new Promise((resolve) => child.on("exit", resolve))
    child.kill(signal)
    await gone
  }

  async remove(): Promise<void> {
    await this.end()
    rmSync(this.folder, { recursive: true, force: true })
  }
}
