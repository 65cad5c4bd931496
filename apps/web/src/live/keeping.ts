/** Opens a document, tries again until it is here, keeps what is written, and sets aside what cannot become a part of it. */
import { document } from "@biblon/core/document"
import { editHistory, lostBetween } from "@biblon/core/editing"
import type { EditorState, Transaction } from "prosemirror-state"
import { api, NotThere } from "../api"
import { sendKept } from "./files"
import { asideOf, asidesIn, asidesOf, joinedAside, keepAside } from "./aside"
import { Connection, type Saving } from "./connection"
import { openDocument, type OpenedDocument } from "./opening"
import { dropRecord } from "./pending"
import type { Aside } from "./records"

/** Milliseconds before the first and between the last attempts to reach the server. */
const firstWait = 500
const longestWait = 4000

export type Phase = { kind: "opening" } | { kind: "waiting"; message: string } | { kind: "missing" } | { kind: "open" }

/** What people see of all this. */
export interface Kept {
  phase: Phase
  name: string | null
  trouble: string | null
  aside: readonly Aside[]
}

export interface KeepingTarget {
  editor(): EditorState | null
  /** The content, before it is a document. @param early whether it is the one that was asked for before the program was here */
  content(content: string, early: boolean): void
  opened(opened: OpenedDocument): void
  receive(tr: Transaction): void
  show(change: Partial<Kept>): void
  /** Whether all is saved has changed. */
  saving(saving: Saving): void
  shown(): Kept
}

export class Keeping {
  private connection: Connection | null = null
  private closed = false
  private endSession: () => void = () => {}

  constructor(
    private readonly id: string,
    private readonly target: KeepingTarget,
  ) {}

  async open(): Promise<void> {
    const { target } = this
    const ended = new Promise<void>((resolve) => (this.endSession = resolve))
    for (let wait = firstWait; ; wait = Math.min(longestWait, wait * 1.5)) {
      try {
        const opened = await openDocument(this.id, [editHistory()], ended, ({ content, early }) =>
          target.content(content, early),
        )
        if (this.closed) return
        target.opened(opened)
        target.show({ phase: { kind: "open" }, aside: asidesIn(target.shown().aside, opened.aside) })
        void asidesOf(this.id).then((kept) => target.show({ aside: asidesIn(kept, target.shown().aside) }))
        this.connection = this.connect(opened)
        // What was written here lies in IndexedDB under the name that this tab has taken over.
        this.connection.changed()
        void sendKept()
        return
      } catch (error) {
        if (this.closed) return
        if (error instanceof NotThere)
          return target.show({ phase: { kind: "missing" }, aside: await asidesOf(this.id) })
        if (!target.editor())
          target.show({
            phase: { kind: "waiting", message: "The server cannot be reached. Biblon tries again by itself." },
          })
        await new Promise((resolve) => setTimeout(resolve, wait))
      }
    }
  }

  private connect({ client, stamp }: OpenedDocument): Connection {
    const { target } = this
    return new Connection({
      id: this.id,
      client,
      stamp,
      state: () => target.editor() as EditorState,
      receive: (tr) => target.receive(tr),
      onSaving: (saving) => target.saving(saving),
      onName: (name) => target.show({ name }),
      onAside: (aside) => void this.setAside(aside),
      onUnfit: (reason) => void this.reopen(reason, client),
    })
  }

  /** To be called after a change that was made here. */
  changed(): void {
    this.connection?.changed()
  }

  /** The copy that is here is none of the server's history: it is fetched anew, and what only this one had is set aside. */
  private async reopen(reason: string, client: string): Promise<void> {
    const before = this.target.editor()?.doc ?? document([])
    // The name is held until then, so that no other tab takes up what is being set aside.
    const endBefore = this.endSession
    this.connection = null
    await this.open()
    const after = this.target.shown().phase.kind === "open" ? this.target.editor() : null
    const lost = after && lostBetween(before, after.doc)
    if (lost && lost.size > 0) await this.setAside(asideOf(this.id, "unfit", reason, lost))
    await dropRecord(client).catch(() => undefined)
    endBefore()
  }

  private async setAside(aside: Aside): Promise<void> {
    const { aside: before } = this.target.shown()
    const joined = joinedAside(before.at(-1), aside)
    this.target.show({ aside: joined ? [...before.slice(0, -1), joined] : [...before, aside] })
    if (!(await keepAside(joined ?? aside)))
      this.target.show({
        trouble:
          "This device does not keep what was set aside: do not close the page before you have put it in again or copied it.",
      })
  }

  async rename(name: string | null): Promise<void> {
    const { name: before } = this.target.shown()
    this.target.show({ name })
    try {
      await api.rename(this.id, name)
    } catch (error) {
      this.target.show({ name: before, trouble: `The name could not be changed: ${(error as Error).message}` })
    }
  }

  close(): void {
    this.closed = true
    this.connection?.close()
    this.endSession()
  }
}
