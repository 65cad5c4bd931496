/** How a window is divided among bars, bench and sheets, in CSS pixels. */
import { wideFrom } from "./wide"

/** Under this height bench and tray stand at the side of a narrow screen too. */
const lowBelow = 480

export type FrameKind = "wide" | "phone" | "low"

export function frameOf(width: number, height: number): FrameKind {
  if (width >= wideFrom) return "wide"
  // A phone held sideways has no height to give away.
  return width > height && height < lowBelow ? "low" : "phone"
}

const topBar = 56
const bench = { side: 84, bottom: 68 }
const ruler = 27
const footLine = 32

/** Where the sheets lie as long as no tray is open; the tests compare it with where they do. */
export function roomOfSheets(
  width: number,
  height: number,
  withRuler: boolean,
): { left: string; top: string; right: string; bottom: string } {
  const kind = frameOf(width, height)
  const top = topBar + (kind === "wide" && withRuler ? ruler : 0)
  const bottom = kind === "wide" ? footLine : kind === "phone" ? bench.bottom : 0
  return { left: `${kind === "phone" ? 0 : bench.side}px`, top: `${top}px`, right: "0", bottom: `${bottom}px` }
}
