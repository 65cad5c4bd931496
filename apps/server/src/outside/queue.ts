/**
 * The outside, simulated: a printer that takes a moment for each side of paper, and a post that carries letters. Both may be kept from
 * going on, on purpose; then what was handed over waits and is tried again. Nothing is done twice, also when the server ends meanwhile.
 */
import type { Job, JobHead, Outside, Trouble } from "@biblon/wire"
import type { Db } from "../store/database"

type Kind = JobHead["kind"]
const kinds: readonly Kind[] = ["print", "send"]

interface Row {
  id: string
  kind: Kind
  head: string
  size: number
  state: Job["state"]
  reason: string | null
  steps: number
  tries: number
  made: number
  due: number
  ended: number | null
}

const troubleWords: Readonly<Record<Trouble, string>> = {
  paper: "There is no paper",
  jam: "Paper is jammed",
  line: "The line is down",
}
/** What can keep each from going on. */
const troublesOf: Readonly<Record<Kind, readonly Trouble[]>> = { print: ["paper", "jam"], send: ["line"] }

/** Milliseconds that a step takes, such as a side of paper; steps of what was not counted, and at most. */
const beat = 200
const steps = { uncounted: 4, most: 50 }
/** A letter that could not be carried is tried again after so many milliseconds, then after twice as many, up to the longest. */
const again = { first: 1000, longest: 60_000 }
/** So many jobs are shown. */
const most = 100

const stepsOf = (head: JobHead) => (head.kind === "send" ? 1 : Math.min(steps.most, head.sides ?? steps.uncounted))

export class JobQueue {
  private readonly sql
  private timer: ReturnType<typeof setTimeout> | undefined

  constructor(
    private readonly db: Db,
    private readonly now: () => number = Date.now,
  ) {
    const columns = "id, kind, head, length(bytes) as size, state, reason, steps, tries, made, due, ended"
    this.sql = {
      list: db.prepare<[number], Row>(`select ${columns} from jobs order by made desc, id limit ?`),
      next: db.prepare<[Kind], Row>(
        `select ${columns} from jobs where kind = ? and state in ('waiting', 'going') order by made, id limit 1`,
      ),
      put: db.prepare(
        `insert or ignore into jobs (id, kind, head, bytes, state, reason, steps, tries, made, due, ended)
         values (?, ?, ?, ?, 'waiting', null, 0, 0, ?, 0, null)`,
      ),
      set: db.prepare("update jobs set state = ?, reason = ?, steps = ?, tries = ?, due = ?, ended = ? where id = ?"),
      stop: db.prepare("update jobs set state = 'stopped', ended = ? where id = ? and state in ('waiting', 'going')"),
      bytes: db.prepare<[string], { head: string; bytes: Buffer }>("select head, bytes from jobs where id = ?"),
      trouble: db.prepare<[Kind], Trouble>("select trouble from troubles where kind = ?").pluck(),
      setTrouble: db.prepare("insert or replace into troubles (kind, trouble) values (?, ?)"),
      noTrouble: db.prepare("delete from troubles where kind = ?"),
    }
    this.wake()
  }

  close(): void {
    clearTimeout(this.timer)
  }

  all(): Outside {
    return {
      jobs: this.sql.list.all(most).map(({ head, size, state, reason, steps: done, tries, made, ended }) => {
        const own = JSON.parse(head) as JobHead
        return { head: own, size, state, reason, progress: done / stepsOf(own), tries, made, ended }
      }),
      troubles: { print: this.troubleOf("print"), send: this.troubleOf("send") },
    }
  }

  private troubleOf(kind: Kind): Trouble | null {
    return this.sql.trouble.get(kind) ?? null
  }

  /** Takes something over; what was taken over before under the same id is left as it is. */
  take(head: JobHead, bytes: Uint8Array): void {
    this.sql.put.run(head.id, head.kind, JSON.stringify(head), bytes, this.now())
    this.wake()
  }

  /** @returns whether it was still to be stopped */
  stop(id: string): boolean {
    return this.sql.stop.run(this.now(), id).changes > 0
  }

  file(id: string): { head: JobHead; bytes: Buffer } | undefined {
    const row = this.sql.bytes.get(id)
    return row && { head: JSON.parse(row.head) as JobHead, bytes: row.bytes }
  }

  /** Keeps one from going on, or with null lets it. @returns false for what cannot happen to it */
  setTrouble(kind: Kind, trouble: Trouble | null): boolean {
    if (trouble !== null && !troublesOf[kind].includes(trouble)) return false
    if (trouble === null) this.sql.noTrouble.run(kind)
    else this.sql.setTrouble.run(kind, trouble)
    this.wake()
    return true
  }

  private wake(): void {
    clearTimeout(this.timer)
    this.timer = setTimeout(() => {
      if (!this.db.open) return
      try {
        if (this.goOn()) this.wake()
      } catch (error) {
        console.error(`What was handed over could not go on: ${(error as Error).message}`)
      }
    }, beat)
    this.timer.unref()
  }

  /** One step of each kind. @returns whether anything is still to be done */
  goOn(): boolean {
    let waiting = false
    for (const kind of kinds) {
      const row = this.sql.next.get(kind)
      if (!row) continue
      waiting = true
      this.step(row)
    }
    return waiting
  }

  private step(row: Row): void {
    const now = this.now()
    const trouble = this.troubleOf(row.kind)
    const set = (state: Job["state"], reason: string | null, done: number, tries: number, due: number) =>
      this.sql.set.run(state, reason, done, tries, due, state === "done" ? now : null, row.id)
    if (trouble !== null) {
      const words = troubleWords[trouble]
      if (row.kind === "print") return void set("waiting", words, row.steps, row.tries, 0)
      if (now < row.due) return
      const tries = row.tries + 1
      const wait = Math.min(again.longest, again.first * 2 ** (tries - 1))
      return void set("waiting", `${words}; tried ${tries} ${tries === 1 ? "time" : "times"}`, 0, tries, now + wait)
    }
    if (now < row.due) return
    const done = row.steps + 1
    const all = stepsOf(JSON.parse(row.head) as JobHead)
    set(done >= all ? "done" : "going", null, done, row.kind === "send" ? row.tries + 1 : row.tries, 0)
  }
}
