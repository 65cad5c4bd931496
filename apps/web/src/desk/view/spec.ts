/** What is laid out for the room that there is. */
import type { LayoutSpec } from "@biblon/core/layout"
import type { ViewMode } from "./fitting"

/** Space beside the text in flow view, and the widest line that reads well, in CSS pixels. */
const flowMargin = 22
const flowWidest = 760

/** @param width of the room, and `scale`, in CSS pixels; the name is what the document is called */
export function specFor(
  { mode, scale, name }: { mode: ViewMode; scale: number; name: string | null },
  width: number,
): LayoutSpec {
  if (mode !== "flow") return { mode: "sheets", name: name ?? "" }
  const points = Math.floor(Math.min(width, flowWidest) / scale)
  return { mode: "flow", width: points, margin: flowMargin / scale, name: name ?? "" }
}
