import { deleteSelection, pasteText, selectedText } from "@biblon/core/editing"
import type { DeskSession } from "../session"

/** Copy, cut and paste as plain text. */
export function attachClipboard(field: HTMLElement, session: DeskSession): void {
  const copy = (event: ClipboardEvent): boolean => {
    const editor = session.now
    event.preventDefault()
    if (!editor || editor.selection.empty) return false
    event.clipboardData?.setData("text/plain", selectedText(editor))
    return true
  }
  field.addEventListener("copy", copy)
  field.addEventListener("cut", (event) => {
    if (copy(event)) session.run(deleteSelection)
  })
  field.addEventListener("paste", (event) => {
    event.preventDefault()
    session.run(pasteText(event.clipboardData?.getData("text/plain") ?? ""))
  })
}
