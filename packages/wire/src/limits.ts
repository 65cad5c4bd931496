/** What both sides go by, apart from the schemas, so that the page need not load these. */

/** The largest message in bytes that the server takes. */
export const largestMessage = 12_000_000
/** Characters of changes after which the app ends a message. */
export const usualMessage = 500_000

/** What tells two histories of one document apart: when and by whom the change that led to a version was saved. */
export function stampOf({ saved, client }: { saved: number; client: string }): string {
  return `${saved}.${client}`
}
