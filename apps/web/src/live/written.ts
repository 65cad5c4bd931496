/**
 * What IndexedDB has of changes that are not confirmed: one record for each session, and beside it each of its
 * steps by itself, so that what is new is written, and not with each key all that waits.
 */
import { device } from "./device"
import type { PendingHead, PendingRecord } from "./records"

export function isHead(value: unknown): value is PendingHead {
  const head = value as Partial<PendingHead> | null
  return (
    typeof head === "object" &&
    head !== null &&
    typeof head.client === "string" &&
    typeof head.document === "string" &&
    Number.isInteger(head.version) &&
    (head.steps === undefined || Array.isArray(head.steps))
  )
}

const numbered = (client: string, from: number, to = Infinity) =>
  IDBKeyRange.bound([client, from], [client, to], false, true)
const allOf = (client: string) => numbered(client, -Infinity)

/** The records of a document, without their steps. */
export async function writtenOf(document: string): Promise<PendingHead[]> {
  return (await device()).getAllFromIndex("pending", "document", document)
}

/** What there is of a session. */
export async function readWritten(client: string): Promise<PendingRecord | null> {
  const reading = (await device()).transaction(["pending", "steps"])
  const [head, steps] = await Promise.all([
    reading.objectStore("pending").get(client),
    reading.objectStore("steps").getAll(allOf(client)),
  ])
  return isHead(head) ? { ...head, steps: head.steps ?? steps } : null
}

/** What changes in one piece, or not at all. */
interface Change {
  client: string
  /** Null where no record is left. */
  head: PendingHead | null
  gone: readonly IDBKeyRange[]
  added: readonly string[]
  /** The number of the first that is added. */
  from: number
}

async function change({ client, head, gone, added, from }: Change): Promise<void> {
  const writing = (await device()).transaction(["pending", "steps"], "readwrite")
  const heads = writing.objectStore("pending")
  const steps = writing.objectStore("steps")
  await Promise.all([
    head ? heads.put(head) : heads.delete(client),
    ...gone.map((range) => steps.delete(range)),
    ...added.map((step, k) => steps.put(step, [client, from + k])),
    writing.done,
  ])
}

export async function dropWritten(client: string): Promise<void> {
  await change({ client, head: null, gone: [allOf(client)], added: [], from: 0 })
}

/** How many of the steps that were there, from one of them on, are the first of those that are now. */
export function inCommon(before: readonly string[], now: readonly string[], skipped = 0): number {
  let count = 0
  while (count < now.length && before[skipped + count] === now[count]) count++
  return count
}

/** Writes the records of one session, one after the other. */
export class Written {
  /** What is there; null while that is not known. */
  record: PendingRecord<string> | null = null
  /** What is being written. */
  next: PendingRecord<string> | null = null
  /** The number of the first step that is there. */
  private first = 0

  async put(record: PendingRecord<string>): Promise<void> {
    const { record: before, first } = this
    const { steps, ...head } = record
    const { client } = head
    this.next = record
    const there = before?.steps ?? []
    const found = steps.length > 0 ? there.indexOf(steps[0] as string) : -1
    const skipped = found < 0 ? there.length : found
    const count = inCommon(there, steps, skipped)
    const from = first + skipped
    const gone: IDBKeyRange[] = []
    // Somebody else may have written under this name, before it was taken over.
    if (!before) gone.push(allOf(client))
    else {
      if (skipped > 0) gone.push(numbered(client, first, from))
      if (skipped + count < there.length) gone.push(numbered(client, from + count))
    }
    try {
      const added = steps.slice(count)
      await change({ client, head: steps.length > 0 ? head : null, gone, added, from: from + count })
      this.record = record
      this.first = from
    } catch (error) {
      // The storage may have been emptied.
      this.record = null
      throw error
    } finally {
      this.next = null
    }
  }
}
