/** Work that can wait until what was typed is on the screen. */

import { Delayed } from "../ui/delayed"

/** A tab out of sight gets no frames: then work waits so long, in milliseconds. */
const unseenDelay = 200
/** A change of so many positions is work that takes the page for long. */
const longChange = 20_000

/** Runs tasks in order, in a task of its own behind the next frame. One that is asked for again while it waits runs once. */
export class AfterPaint {
  private readonly waiting = new Set<() => void>()
  private frame = 0
  private readonly unseen = new Delayed(() => this.flush())
  private readonly turn = new MessageChannel()

  constructor() {
    this.turn.port1.onmessage = () => this.flush()
    addEventListener("pagehide", this.flush)
    document.addEventListener("visibilitychange", this.flush)
  }

  /** @param change how long the change is that it comes of: what comes of a long one has a task of its own, so that none takes the page for long */
  later(task: () => void, change = 0): void {
    if (change > longChange) return void setTimeout(task)
    this.waiting.add(task)
    if (this.waiting.size > 1) return
    this.frame = requestAnimationFrame(() => this.turn.port2.postMessage(null))
    this.unseen.in(unseenDelay)
  }

  /** Does at once what waits: the page may be about to go. */
  readonly flush = (): void => {
    cancelAnimationFrame(this.frame)
    this.unseen.cancel()
    const tasks = [...this.waiting]
    this.waiting.clear()
    for (const task of tasks) task()
  }

  close(): void {
    this.flush()
    this.unseen.close()
    this.turn.port1.close()
    removeEventListener("pagehide", this.flush)
    document.removeEventListener("visibilitychange", this.flush)
  }
}
