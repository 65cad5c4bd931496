/**
 * One open document on the server: the authority that puts everybody's changes in order. Changes that were made on an
 * older version are brought up to date here, as the page does it with its own (document/rebasing.ts), so that nobody who
 * types has to wait for those who type faster.
 */
import type { Node } from "prosemirror-model"
import type { Step } from "prosemirror-transform"
import { applySteps, broughtUpToDate, mayApply, stepAsKept, type Applied, type Right } from "@biblon/core/document"
import { checkDocument } from "@biblon/core/document/reading"
import type { FromApp, FromServer, StepBatch } from "@biblon/wire"
import type { DocumentStore } from "../store/documents"
import type { Writing } from "../store/writing"

export interface Member {
  /** Who it is, as long as the connection lasts. */
  readonly person: string
  readonly right: Right
  send(message: FromServer): void
}

/** Changes of one message in the document's order, and the document that they were made on. */
interface Batch {
  version: number
  client: string
  steps: readonly Step[]
  before: Node
}

/** Messages to look back on: who is further behind is sent what it lacks and sends again. */
const remembered = 400
/** After so many steps a document is written down whole. */
const stepsPerSnapshot = 300
/** A newcomer gets what it lacks in messages of about so many characters. */
const longestMessage = 1_000_000

export class Room {
  readonly members = new Set<Member>()
  /** The document with all that was taken in, on its way to the disk or there. Read when the first change comes: who only reads need not wait for it. */
  private doc: Node | null = null
  /** The version that `doc` has. */
  private ahead: number
  private recent: Batch[] = []
  private lastSaved = 0
  /** The last version that was written down whole, once that is known. */
  private whole: number | null = null

  private constructor(
    readonly id: string,
    private readonly store: DocumentStore,
    private readonly writing: Writing,
    /** The version that is in the database. */
    private current: number,
    private readonly clock: () => number,
  ) {
    this.ahead = current
  }

  /** @returns undefined if there is no such document */
  static open(id: string, store: DocumentStore, writing: Writing, clock: () => number = Date.now): Room | undefined {
    const entry = store.entry(id)
    return entry && new Room(id, store, writing, entry.version, clock)
  }

  get version(): number {
    return this.current
  }

  /**
   * Sends a newcomer what it lacks since the version it has, then says that it may send.
   * @param stamp what its copy says of that version: see DocumentStore.stamp; null where it does not say
   * @returns whether it was let in
   */
  join(member: Member, since: number, stamp: string | null, name: string | null): boolean {
    if (since > this.current || (stamp !== null && stamp !== this.store.stamp(this.id, since))) {
      member.send({
        type: "unfit",
        reason: "The server holds another history of this document: it was put back to an earlier state.",
      })
      return false
    }
    this.members.add(member)
    let version = since
    for (const batches of this.store.batches(this.id, since, this.current, longestMessage)) {
      member.send({ type: "steps", version, batches })
      version += batches.reduce((sum, { steps }) => sum + steps.length, 0)
    }
    member.send({ type: "ready", version: this.current, name })
    return true
  }

  leave(member: Member): void {
    this.members.delete(member)
  }

  /** Applies, checks, saves and only then confirms. What fits of a message is taken; from the first change that does not, it is refused. */
  receive(member: Member, { version, steps, client }: FromApp): void {
    if (!this.members.has(member)) return
    const late = this.since(version, client)
    if (!late) return member.send({ type: "behind", version: this.current })
    let refusal: string | null = null
    let doc: Node
    try {
      doc = this.doc ??= this.read()
    } catch (error) {
      console.error(error)
      return member.send({ type: "postponed", reason: "the server cannot read its copy of the document" })
    }
    try {
      const fitting = this.fitting(late[0]?.before ?? doc, steps, member.right)
      refusal = fitting.refusal
      const own = broughtUpToDate(
        fitting,
        late.map((batch) => batch.steps),
      )
      if (own.length > 0) this.take(member, client, own, refusal)
      // Others have deleted all that these changes were about.
      else if (fitting.own.length > 0) member.send({ type: "behind", version: this.current })
    } catch (error) {
      refusal = messageOf(error)
    }
    if (refusal !== null && !this.refusing.has(member))
      member.send({ type: "refused", reason: `A change does not fit this document: ${refusal}` })
  }

  /** Members to whom a refusal is told once what came before it is saved. */
  private readonly refusing = new Map<Member, string>()

  /** What was taken in after a version; null if that is not known any more, or holds changes of the same client, which it has to learn of first. */
  private since(version: number, client: string): Batch[] | null {
    if (version > this.ahead) return null
    const at = this.recent.findIndex((batch) => batch.version >= version)
    const late = at < 0 ? [] : this.recent.slice(at)
    if (version < this.ahead && late[0]?.version !== version) return null
    return late.some((batch) => batch.client === client) ? null : late
  }

  /** The changes of a message up to the first that does not fit; none where the sender may not make one of them. */
  private fitting(doc: Node, steps: FromApp["steps"], right: Right): Applied {
    const all = applySteps(doc, steps)
    if (!all.own.every(({ step }) => mayApply(step, right)))
      return { own: [], doc, refusal: `who may ${right} it does not change it` }
    try {
      checkDocument(all.doc)
      return all
    } catch (error) {
      // Seldom: the longest beginning that passes.
      const after = (count: number) => all.own[count]?.origin.docs[count] ?? all.doc
      let refusal = messageOf(error)
      let fits = 0
      for (; fits < all.own.length; fits++) {
        try {
          checkDocument(after(fits + 1))
        } catch (first) {
          refusal = messageOf(first)
          break
        }
      }
      return { own: all.own.slice(0, fits), doc: after(fits), refusal }
    }
  }

  private take(member: Member, client: string, own: Applied["own"], refusal: string | null): void {
    const before = this.doc as Node
    let doc = before
    const kept: Record<string, unknown>[] = []
    for (const { step } of own) {
      const result = step.apply(doc)
      if (!result.doc) throw new Error(result.failed ?? "it does not apply")
      kept.push(stepAsKept(step, doc))
      doc = result.doc
    }
    checkDocument(doc)
    const version = this.ahead
    const saved = (this.lastSaved = Math.max(this.clock(), this.lastSaved + 1))
    this.recent.push({ version, client, steps: own.map(({ step }) => step), before })
    if (this.recent.length > remembered) this.recent.splice(0, remembered / 4)
    this.doc = doc
    this.ahead += own.length
    if (refusal !== null) this.refusing.set(member, refusal)
    const batch: StepBatch = { client, person: member.person, steps: kept, saved }
    this.writing.add({
      write: () => this.store.commit(this.id, version, batch, doc),
      done: () => {
        this.current = version + kept.length
        this.keepWhole(false)
        this.tell({ type: "steps", version, batches: [batch] })
        const late = this.refusing.get(member)
        if (late === undefined) return
        this.refusing.delete(member)
        if (this.members.has(member))
          member.send({ type: "refused", reason: `A change does not fit this document: ${late}` })
      },
      failed: (error) => this.goBack(member, error),
    })
  }

  /** What was taken in could not be saved: the document is that of the database again, and its people send once more. */
  private goBack(member: Member, error: unknown): void {
    this.doc = null
    this.recent = []
    this.refusing.delete(member)
    this.ahead = this.current = this.store.entry(this.id)?.version ?? this.current
    if (!isStorageError(error)) console.error(error)
    if (this.members.has(member)) member.send({ type: "postponed", reason: storageReason(error) })
  }

  /** Writes the document down whole when that is due; where it fails, opening takes a little longer. */
  private keepWhole(leaving: boolean): void {
    if (!this.doc || this.current !== this.ahead || !this.store.open) return
    this.whole ??= this.store.lastWhole(this.id)
    if (this.current - this.whole < (leaving ? 1 : stepsPerSnapshot)) return
    this.whole = this.current
    this.store
      .keepWhole(this.id, this.current, this.doc)
      .catch((error: unknown) => console.error(`Document ${this.id} was not written down whole: ${messageOf(error)}`))
  }

  /** Nobody is here any more, and all is on the disk. */
  close(): void {
    this.keepWhole(true)
  }

  private read(): Node {
    const doc = this.store.at(this.id, this.current)
    if (!doc) throw new Error("it is no longer kept here")
    return doc
  }

  tell(message: FromServer): void {
    for (const member of this.members) member.send(message)
  }
}

const messageOf = (error: unknown) => (error instanceof Error ? error.message : String(error))

/** Whether the database could not write, for no fault of what was to be written. */
export function isStorageError(error: unknown): boolean {
  return (
    error instanceof Error &&
    error.name === "SqliteError" &&
    /^SQLITE_(FULL|IOERR|BUSY|LOCKED|READONLY|CANTOPEN|NOMEM|PROTOCOL)/.test(
      (error as Error & { code?: string }).code ?? "",
    )
  )
}

export function storageReason(error: unknown): string {
  const code = (error as { code?: string }).code ?? ""
  return code.startsWith("SQLITE_FULL")
    ? "the server's disk is full"
    : "the server cannot write to its disk at the moment"
}
