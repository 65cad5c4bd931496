/** What is laid out for the room that there is. */
import type { LayoutSpec } from "@biblon/core/layout"
import { fitted, type ViewMode } from "./fitting"
import type { KeptView } from "./kept"

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

/** What is laid out before the page says what room there is: for all of the window. */
export function specAhead({ mode, fit, scale }: KeptView): LayoutSpec {
  const room = { width: innerWidth, height: innerHeight }
  // How large sheets are is not known yet, and only the flow of text asks how large it is shown.
  const own = fit === null ? scale : fitted({ mode: "flow", fit, room, sheet: room }).scale
  return specFor({ mode, scale: own, name: null }, innerWidth)
}
