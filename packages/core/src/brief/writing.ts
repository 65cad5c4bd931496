import type { Brief } from "../document"

/** Says in a file that it holds a brief, and of which form. */
export const fileMark = "biblonBrief"

/** A brief as a file, to be handed on. */
export function writeBrief(brief: Brief): string {
  return `${JSON.stringify({ [fileMark]: 1, ...brief }, null, 2)}\n`
}
