/** Drawings of the interface and their colours. */
import type { Icon } from "./icons"

export const ink = "rgb(var(--ink))"
export const inkSoft = "rgb(var(--ink-soft))"
export const murex = "rgb(var(--murex))"

export function Glyph({ icon, size = 22, colour = ink }: { icon: Icon | undefined; size?: number; colour?: string }) {
  if (!icon) return null
  const [lines, tone] = icon
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 256 256"
      fill={colour}
      aria-hidden
      style={{ display: "block", flexShrink: 0 }}
    >
      {tone === undefined ? null : <path d={tone} opacity={0.18} />}
      <path d={lines} />
    </svg>
  )
}
