/** What both sides go by, apart from the schemas, so that the page need not load these. */
import type { StepBatch } from "./index"

export type { FromApp, FromServer, StepBatch } from "./index"

/** The largest message in bytes that the server takes. */
export const largestMessage = 12_000_000
/** Characters of changes after which the app ends a message. */
export const usualMessage = 500_000

/** What tells two histories of one document apart: when and by whom the change that led to a version was saved. */
export function stampOf({ saved, client }: Pick<StepBatch, "saved" | "client">): string {
  return `${saved}.${client}`
}
