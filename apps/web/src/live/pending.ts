/**
 * Changes that the server has not confirmed, kept in IndexedDB. Each open tab keeps one record under the
 * name of its session; a record whose tab is gone is taken up by the next tab that opens the document.
 * What IndexedDB has not taken yet lies in the local storage as well, which is written in the same task.
 */
import type { PendingHead, PendingRecord } from "./records"
import { dropWritten, inCommon, isHead, readWritten, Written, writtenOf } from "./written"

/** What was kept in the same task: the steps that what is written lacks, or all of them. */
interface Mirror extends PendingRecord {
  /** So many steps are the first ones of what was written with one of these turns. */
  after: number
  bases: number[]
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
      if (isMirror(value)) found.push(value)
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

const isMirror = (value: unknown): value is Mirror =>
  isHead(value) && value.steps !== undefined && "bases" in value && Array.isArray(value.bases)

/** The newer of what both storages have of a session. */
function joined(record: PendingRecord | null, mirror: Mirror | undefined): PendingRecord | null {
  if (!mirror || (record && record.turn >= mirror.turn)) return record
  if (mirror.after === 0) return mirror
  return record && mirror.bases.includes(record.turn)
    ? { ...mirror, steps: [...record.steps.slice(0, mirror.after), ...mirror.steps] }
    : record
}

/** The sessions that have left something of a document on this device, the oldest first. */
export async function sessionsOf(document: string): Promise<string[]> {
  const heads = await writtenOf(document).catch(() => [])
  const all: PendingHead[] = [...heads, ...readMirrors().filter((own) => own.document === document)]
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
  const found = joined(
    await readWritten(client),
    readMirrors().find((own) => own.client === client),
  )
  return found && found.steps.length > 0 ? { ...found, steps: found.steps.map(stepOf) } : null
}

export async function dropRecord(client: string): Promise<void> {
  dropMirror(client)
  await dropWritten(client)
}

/** Keeps the newest record of a session; while one is being written, those that come are joined into the last. */
export class PendingKeeper {
  private next: PendingRecord<string> | null = null
  private writing = false
  private turn = 0
  private readonly written = new Written()
  private mirrored = false

  /** @param onKept hears whether what is unconfirmed is kept on this device */
  constructor(private readonly onKept: (kept: boolean) => void) {}

  keep(record: Omit<PendingRecord<string>, "turn" | "kept">): void {
    const nothingWaits = this.next === null && !this.writing && (this.written.record?.steps.length ?? 0) === 0
    if (record.steps.length === 0 && nothingWaits) return
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
    // Should the page be gone in a moment, one of these will be found.
    const { record: there, next } = this.written
    const bases = there && next ? [there, next] : there ? [there] : []
    const shared = bases.map(({ version, steps }) => (version === record.version ? inCommon(steps, record.steps) : 0))
    const after = shared.length > 0 ? Math.min(...shared) : 0
    const steps = record.steps.slice(after)
    // A paste of a book is not written twice with each key that follows it.
    if (steps.reduce((sum, step) => sum + step.length, 0) > most) return
    try {
      const head = JSON.stringify({
        ...record,
        steps: [],
        after,
        bases: bases.map(({ turn }) => turn),
      } satisfies Mirror)
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
      while (this.next) {
        const record: PendingRecord<string> = this.next
        await this.written.put(record)
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
