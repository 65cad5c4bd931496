/** One open document on the server: the authority that puts everybody's changes in order. */
import type { Node } from "prosemirror-model"
import { readStep } from "@biblon/core/document"
import { checkDocument } from "@biblon/core/document/reading"
import type { FromApp, FromServer } from "@biblon/wire"
import type { DocumentStore } from "../store/documents"

export interface Member {
  send(message: FromServer): void
}

export class Room {
  readonly members = new Set<Member>()
  /** Read when the first change comes: who only reads need not wait for it. */
  private doc: Node | null = null

  private constructor(
    readonly id: string,
    private readonly store: DocumentStore,
    private current: number,
    private readonly clock: () => number,
  ) {}

  /** @returns undefined if there is no such document */
  static open(id: string, store: DocumentStore, clock: () => number = Date.now): Room | undefined {
    const entry = store.entry(id)
    return entry && new Room(id, store, entry.version, clock)
  }

  get version(): number {
    return this.current
  }

  /** Sends a newcomer what it lacks since the version it has, then says that it may send. */
  join(member: Member, since: number, name: string | null): void {
    if (since > this.current) {
      member.send({ type: "refused", reason: "This copy of the document is newer than the one kept here. What was typed is still kept on this device." })
      return
    }
    this.members.add(member)
    const missed = this.store.steps(this.id, since, this.current)
    if (missed.length > 0)
      member.send({ type: "steps", version: since, steps: missed.map((s) => s.step), clients: missed.map((s) => s.client), saved: this.store.entry(this.id)?.changed ?? this.clock() })
    member.send({ type: "ready", version: this.current, name })
  }

  leave(member: Member): void {
    this.members.delete(member)
  }

  /** Applies, checks, saves and only then confirms. */
  receive(member: Member, message: FromApp): void {
    if (message.version !== this.current) {
      member.send({ type: "behind", version: this.current })
      return
    }
    let doc: Node
    try {
      doc = this.doc ??= this.read()
      for (const json of message.steps) {
        const result = readStep(json).apply(doc)
        if (!result.doc) throw new Error(result.failed ?? "the change does not fit")
        doc = result.doc
      }
      checkDocument(doc)
    } catch (error) {
      member.send({ type: "refused", reason: `A change does not fit this document: ${error instanceof Error ? error.message : String(error)}` })
      return
    }
    const saved = this.clock()
    const version = this.current
    this.store.commit(this.id, version, message.steps.map((step) => ({ step, client: message.client })), doc, saved)
    this.doc = doc
    this.current += message.steps.length
    this.tell({ type: "steps", version, steps: message.steps, clients: message.steps.map(() => message.client), saved })
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

/** The open documents; each is opened when its first member comes and let go when the last one leaves. */
export class Rooms {
  private readonly open = new Map<string, Room>()

  constructor(private readonly store: DocumentStore) {}

  enter(id: string): Room | undefined {
    let room = this.open.get(id)
    if (!room) {
      room = Room.open(id, this.store)
      if (room) this.open.set(id, room)
    }
    return room
  }

  leave(room: Room, member: Member): void {
    room.leave(member)
    if (room.members.size === 0) this.open.delete(room.id)
  }

  tell(id: string, message: FromServer): void {
    this.open.get(id)?.tell(message)
  }
}
