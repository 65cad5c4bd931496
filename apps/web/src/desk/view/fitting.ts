/** How sheets fit the window. */
import { sideGap } from "./stack"

export type ViewMode = "flow" | "sheets" | "reading"

/** CSS pixels for a point at 100 %. */
export const fullSize = 96 / 72
/** Bounds of the scale: CSS pixels for a point. */
export const scales = { least: 0.4, most: 6 }

/** A sheet's width, a whole sheet, or two side by side. */
export type Fit = "width" | "sheet" | "pair"

interface Size {
  width: number
  height: number
}

/** From this width on, in pixels, there is room beside the sheets. */
const narrowBelow = 600
/** Space beside the sheets, between them, and above and below a whole one, in pixels. */
const beside = 64
const between = 20
const around = { reading: 16, sheets: 44 }

/** The scale, and the number of sheets in a row, at which they fit. `sheet` is in points, `room` in pixels. */
export function fitted({ mode, fit, room, sheet }: { mode: ViewMode; fit: Fit | null; room: Size; sheet: Size }): {
  scale: number
  columns: number
} {
  const narrow = room.width < narrowBelow
  if (mode === "flow") return { scale: narrow ? 1.5 : 1.6, columns: 1 }
  const clamp = (scale: number, most = scales.most) => Math.min(most, Math.max(scales.least, scale))
  const wide = room.width - (narrow ? 2 * sideGap : beside)
  const whole = (room.height - around[mode]) / sheet.height
  if (mode === "reading") {
    const columns = room.width > room.height ? 2 : 1
    return { scale: Math.min(whole, (wide - between * (columns - 1)) / (sheet.width * columns)), columns }
  }
  if (fit === "pair") return { scale: clamp(Math.min(whole * 1.6, (wide - between) / (2 * sheet.width))), columns: 2 }
  if (fit === "sheet") return { scale: clamp(Math.min(whole, wide / sheet.width)), columns: 1 }
  return { scale: clamp(wide / sheet.width, fullSize * 1.25), columns: 1 }
}
