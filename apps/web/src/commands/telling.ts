/** Tools that answer in words. */
import { markPlace, selectedText } from "@biblon/core/editing"
import type { DeskSession } from "../desk/session"

/** Marks the selection as a place, under its own words. */
export function markSelection(session: DeskSession): void {
  const { now } = session
  const words = now ? selectedText(now).trim().slice(0, 60) : ""
  const text = words || (now?.selection.$from.parent.textContent.trim().slice(0, 60) ?? "")
  if (!session.run(markPlace(text.split("\n")[0] ?? "")))
    session.store.setState({ trouble: "There is a place of that name already, or no text to mark." })
}
