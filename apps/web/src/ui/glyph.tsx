/** Drawings of the interface and their colours. */
import { DotsThree, Minus, Plus, X, type Icon } from "./icons"

export const ink = "rgb(var(--ink))"
export const inkSoft = "rgb(var(--ink-soft))"
export const murex = "rgb(var(--murex))"

/** Drawings of mere strokes have no second tone. */
const strokes = new Set<Icon>([DotsThree, Minus, Plus, X])

export function Glyph({
  icon: Drawing,
  size = 22,
  colour = ink,
}: {
  icon: Icon | undefined
  size?: number
  colour?: string
}) {
  if (!Drawing) return null
  return (
    <Drawing
      size={size}
      color={colour}
      weight={strokes.has(Drawing) ? "regular" : "duotone"}
      duotoneColor={colour}
      duotoneOpacity={0.18}
    />
  )
}
