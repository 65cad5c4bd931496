/**
 * Changes that the server has not confirmed, kept in IndexedDB. Each open tab keeps one record under the
 * name of its session; a record whose tab is gone is taken up by the next tab that opens the document.
 * What IndexedDB has not taken yet lies in the local storage as well, which is written in the same task.
 */
import { device } from "./device"
import type { PendingRecord } from "./records"

/** What was kept in the same task: the steps that the record of `turn` in IndexedDB lacks, or all of them. */
interface Mirror extends PendingRecord {
  /** So many steps are those of the record with this turn. */
  after: number
  base: number
}

const mirrorName = (client: string) => `biblon-pending-${client}`
/** Characters of steps that are mirrored with each change; longer ones when the page goes. */
const shortMirror = 40_000
/** Milliseconds between attempts to write where it failed. */
const pause = 3000

function readMirrors(): Mirror[] {
  const found: Mirror[] = []
  try {
    for (let i = 0; i < localStorage.length; i++) {
      const name = localStorage.key(i) ?? ""
      if (!name.startsWith(mirrorName(""))) continue
      const value: unknown = JSON.parse(localStorage.getItem(name) ?? "null")
      if (isRecord(value)) found.push(value as Mirror)
    }
  } catch {
    // A storage that is denied holds nothing.
  }
  return found
}

function dropMirror(client: string): void {
  try {
    localStorage.removeItem(mirrorName(client))
  } catch {
    // There is none then.
  }
}

function isRecord(value: unknown): value is PendingRecord {
  const record = value as Partial<PendingRecord> | null
  return (
    typeof record === "object" &&
    record !== null &&
    typeof record.client === "string" &&
    typeof record.document === "string" &&
    Number.isInteger(record.version) &&
    Array.isArray(record.steps)
  )
}

/** The newer of what both storages have of a session. */
function joined(record: PendingRecord | undefined, mirror: Mirror | undefined): PendingRecord | null {
  if (!mirror || (record && record.turn >= mirror.turn)) return record ?? null
  if (mirror.after === 0) return mirror
  return record?.turn === mirror.base
    ? { ...mirror, steps: [...record.steps.slice(0, mirror.after), ...mirror.steps] }
    : (record ?? null)
}

/** The sessions that have left something of a document on this device, the oldest first. */
export async function sessionsOf(document: string): Promise<string[]> {
  const records = await (await device()).getAllFromIndex("pending", "document", document).catch(() => [])
  const all: PendingRecord[] = [...records, ...readMirrors().filter((own) => own.document === document)]
  return [...new Set(all.sort((a, b) => a.kept - b.kept).map(({ client }) => client))]
}

/** A step as it is read: null for text that is none, which no document takes. */
function stepOf(kept: unknown): unknown {
  if (typeof kept !== "string") return kept
  try {
    return JSON.parse(kept)
  } catch {
    return null
  }
}

/** What a session has left; null for nothing. */
export async function recordOf(client: string): Promise<PendingRecord | null> {
  const record = await (await device()).get("pending", client)
  const found = joined(
    isRecord(record) ? record : undefined,
    readMirrors().find((own) => own.client === client),
  )
  return found && found.steps.length > 0 ? { ...found, steps: found.steps.map(stepOf) } : null
}

export async function dropRecord(client: string): Promise<void> {
  dropMirror(client)
  await (await device()).delete("pending", client)
}

/** Keeps the newest record of a session; while one is being written, those that come are joined into the last. */
export class PendingKeeper {
  private next: PendingRecord<string> | null = null
  private writing = false
  private turn = 0
  /** What IndexedDB has. */
  private written: PendingRecord<string> | null = null
  private mirrored = false

  /** @param onKept hears whether what is unconfirmed is kept on this device */
  constructor(private readonly onKept: (kept: boolean) => void) {}

  keep(record: Omit<PendingRecord<string>, "turn" | "kept">): void {
    if (record.steps.length === 0 && this.next === null && !this.writing && (this.written?.steps.length ?? 0) === 0)
      return
    this.next = { ...record, turn: ++this.turn, kept: Date.now() }
    this.mirror(shortMirror)
    if (!this.writing) void this.write()
  }

  /** For the moment in which the page goes: what IndexedDB lacks, in the storage that is written at once. */
  flush(): void {
    this.mirror(Infinity)
  }

  private mirror(most: number): void {
    const record = this.next
    if (!record) return
    const { written } = this
    const count = written?.steps.length ?? 0
    const goesOn =
      written !== null &&
      count > 0 &&
      written.version === record.version &&
      written.steps[0] === record.steps[0] &&
      written.steps[count - 1] === record.steps[count - 1]
    const after = goesOn ? count : 0
    const steps = record.steps.slice(after)
    // A paste of a book is not written twice with each key that follows it.
    if (steps.reduce((sum, step) => sum + step.length, 0) > most) return
    try {
      const head = JSON.stringify({ ...record, steps: [], after, base: written?.turn ?? 0 } satisfies Mirror)
      const text = head.replace('"steps":[]', () => `"steps":[${steps.join(",")}]`)
      localStorage.setItem(mirrorName(record.client), text)
      this.mirrored = true
    } catch {
      // Full or denied: IndexedDB has it in a moment, or says that it has not.
    }
  }

  private async write(): Promise<void> {
    this.writing = true
    try {
      const db = await device()
      while (this.next) {
        const record: PendingRecord<string> = this.next
        const start = performance.now()
        const put = record.steps.length > 0 ? db.put("pending", record) : db.delete("pending", record.client)
        const took = performance.now() - start
        await put
        // A record of megabytes takes the page each time that it is handed over: not more than a tenth of the time.
        if (took > 4) await new Promise((resolve) => setTimeout(resolve, took * 10))
        this.written = record
        if (this.next === record) {
          this.next = null
          if (this.mirrored) dropMirror(record.client)
          this.mirrored = false
        }
      }
      this.onKept(true)
    } catch {
      this.onKept(false)
      setTimeout(() => void this.write(), pause)
      return
    }
    this.writing = false
  }
}
