/** A program in a thread of its own. One that goes beyond its bounds of time or memory is ended, and the next task begins another. */
import { Worker } from "node:worker_threads"
import { projectRoot } from "@biblon/core/node"
import { programPath, type ThreadProgram } from "./program"

const memory = { maxOldGenerationSizeMb: 700, maxYoungGenerationSizeMb: 64 }

/** What a thread answers instead where it could not do its task. */
export interface Failure {
  error: string
}

export class Thread<Task, Answer extends object> {
  private worker: Worker | null = null

  constructor(
    private readonly program: ThreadProgram,
    /** That one task may take, in milliseconds. */
    private readonly longest: number,
  ) {}

  /** Rejects with what happened. One task is done at a time. */
  async ask(task: Task): Promise<Answer> {
    const worker = (this.worker ??= new Worker(await programPath(this.program), {
      resourceLimits: memory,
      execArgv: [],
      env: { ...process.env, BIBLON_ROOT: projectRoot() },
    }))
    return new Promise<Answer>((resolve, reject) => {
      const end = (act: () => void, over: boolean) => {
        clearTimeout(timer)
        worker.off("message", taken).off("error", failed).off("exit", ended)
        worker.unref()
        if (over) {
          this.worker = null
          // What it still has to say interests nobody.
          worker.on("error", () => undefined)
          void worker.terminate()
        }
        act()
      }
      const fail = (message: string) => end(() => reject(new Error(message)), true)
      const taken = (answer: Answer | Failure) =>
        end(() => ("error" in answer ? reject(new Error(answer.error)) : resolve(answer)), false)
      const failed = (error: Error) => fail(error.message)
      const ended = (code: number) => fail(`its thread ended with ${code}`)
      const timer = setTimeout(() => fail(`it took over ${this.longest / 1000} s`), this.longest)
      worker.ref()
      worker.on("message", taken).on("error", failed).on("exit", ended)
      worker.postMessage(task)
    })
  }

  async close(): Promise<void> {
    await this.worker?.terminate()
    this.worker = null
  }
}
