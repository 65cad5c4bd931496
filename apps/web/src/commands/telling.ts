/** Tools that answer in words. */
import { leavesOf } from "@biblon/core/document"
import { markPlace, selectedText } from "@biblon/core/editing"
import { wordsIn } from "@biblon/core/checking"
import type { DeskSession } from "../desk/session"

/** Marks the selection as a place, under its own words. */
export function markSelection(session: DeskSession): void {
  const { now } = session
  const words = now ? selectedText(now).trim().slice(0, 60) : ""
  const text = words || (now?.selection.$from.parent.textContent.trim().slice(0, 60) ?? "")
  if (!session.run(markPlace(text.split("\n")[0] ?? "")))
    session.store.setState({ trouble: "There is a place of that name already, or no text to mark." })
}

/** Says how long the text is, or what is selected of it. */
export function tellCount({ now, store }: DeskSession): void {
  if (!now) return
  const { doc, selection } = now
  const { nodes, count } = leavesOf(doc)
  const selected = selection.empty ? "" : `; selected: ${wordsIn(doc, selection.from, selection.to)}`
  store.setState({
    trouble: `Words: ${wordsIn(doc)}${selected}. Characters: ${nodes.reduce((sum, leaf) => sum + leaf.textContent.length, 0)}. Paragraphs: ${count}.`,
  })
}
