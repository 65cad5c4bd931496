/** What lies on the device: changes that are not confirmed, what was set aside, and files that the server lacks. */
import type { FileKind } from "@biblon/core/document"

export interface PendingRecord<Step = unknown> {
  /** The session's name among those who change the document; the server writes it beside each step. */
  client: string
  document: string
  /** The version that the steps follow on, and what tells its history from others. */
  version: number
  stamp: string
  /** In JSON: written as text, read as objects, as older programs kept them too. */
  steps: Step[]
  /** Milliseconds since 1970. */
  kept: number
  /** Counts what one session has kept, so that the newer of two is known. */
  turn: number
}

/** A record without its steps, each of which lies by itself: what is new is written, and not with each key all that waits. */
export interface PendingHead extends Omit<PendingRecord, "steps"> {
  /** Where older programs kept them. */
  steps?: unknown[]
}

export type AsideCause =
  /** The server does not take it. */
  | "refused"
  /** It was made on another history of the document. */
  | "unfit"
  /** The document is gone. */
  | "gone"
  | "tooLarge"

export interface Aside {
  id: string
  document: string
  cause: AsideCause
  reason: string
  /** Its words, to be read. */
  text: string
  /** A slice as JSON; null where there is no text in it. */
  slice: unknown
  /** Milliseconds since 1970. */
  kept: number
}

export interface KeptFile {
  /** Its SHA-256, under which documents know it. */
  asset: string
  file: Blob
  /** What it is in documents; a picture where it is not said. */
  kind?: FileKind
  /** Milliseconds since 1970. */
  kept: number
}
