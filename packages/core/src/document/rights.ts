/** What somebody may do with a document. The server asks here, and nowhere else, before it takes a change. */
import type { Step } from "prosemirror-transform"

/** May read, may comment, may edit. */
export type Right = "read" | "comment" | "edit"

/** Whether a change may be made with a right. Comments are no part of documents yet, so that whoever may comment changes nothing. */
export function mayApply(_step: Step, right: Right): boolean {
  return right === "edit"
}
