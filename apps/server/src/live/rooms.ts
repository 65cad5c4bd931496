import type { FromServer } from "@biblon/wire"
import type { DocumentStore } from "../store/documents"
import type { Writing } from "../store/writing"
import { Room, type Member } from "./room"

/** The open documents; each is opened when its first member comes and let go when the last one leaves. */
export class Rooms {
  private readonly open = new Map<string, Room>()

  constructor(
    private readonly store: DocumentStore,
    private readonly writing: Writing,
  ) {}

  /** @returns undefined if there is no such document, or the member was not let in: it has been told why */
  enter(id: string, member: Member, since: number, stamp: string | null): Room | undefined {
    const entry = this.store.entry(id)
    const room = this.open.get(id) ?? Room.open(id, this.store, this.writing)
    if (!entry || !room) {
      member.send({ type: "unfit", reason: "This document is not on the server any more." })
      return undefined
    }
    if (!room.join(member, since, stamp, entry.name)) return undefined
    this.open.set(id, room)
    return room
  }

  leave(room: Room, member: Member): void {
    room.leave(member)
    // What is on its way to the disk is the room's until it is there.
    if (room.members.size === 0 && this.open.get(room.id) === room)
      this.writing.whenDone(
        () => room.members.size === 0 && this.open.get(room.id) === room && this.open.delete(room.id) && room.close(),
      )
  }

  /** Whether somebody has a document open. */
  isOpen(id: string): boolean {
    return this.open.has(id)
  }

  tell(id: string, message: FromServer): void {
    this.open.get(id)?.tell(message)
  }
}
