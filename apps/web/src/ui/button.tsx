/** Buttons: with a sign, with words. */
import type { ReactNode } from "react"
import type { Extent } from "@biblon/core/editing"
import { Press } from "./bar"
import { Glyph, ink, murex } from "./glyph"
import type { Icon } from "./icons"

/** A button that shows an icon only; its name is for screen readers and the tooltip. */
export function IconButton(props: {
  name: string
  icon: Icon | undefined
  hint?: string | null
  extent?: Extent | undefined
  disabled?: boolean
  onPress: () => void
  className?: string
  children?: ReactNode
}) {
  const { name, icon, hint, extent, disabled, onPress, className = "h-11 w-11 rounded-button", children } = props
  const on = extent === "on"
  return (
    <Press
      aria-label={name}
      aria-pressed={extent === undefined ? undefined : extent === "mixed" ? "mixed" : on}
      title={hint ? `${name} (${hint})` : name}
      disabled={disabled}
      onClick={onPress}
      className={`relative flex shrink-0 items-center justify-center ${on ? "bg-murex-soft" : "enabled:hover:bg-murex-soft/50"} disabled:opacity-40 ${className}`}
    >
      <Glyph icon={icon} colour={on ? murex : ink} />
      {children}
      {extent === "mixed" ? <span className="absolute bottom-1.5 h-0.5 w-4 rounded-full bg-murex" /> : null}
    </Press>
  )
}

/** A button with words, as wide as its place and never narrower than they are; `submit` sends the form that it is in. */
export function WordButton({
  label,
  onPress,
  disabled,
  primary,
  submit,
  narrow,
}: {
  label: string
  onPress?: () => void
  disabled?: boolean
  primary?: boolean
  submit?: boolean
  /** As wide as its words. */
  narrow?: boolean
}) {
  return (
    <Press
      type={submit ? "submit" : "button"}
      disabled={disabled}
      onClick={onPress}
      className={`flex h-11 min-w-min max-w-full items-center justify-center rounded-button px-3 text-[14px] disabled:opacity-40 wide:h-9 ${narrow ? "shrink-0" : "flex-1"} ${primary ? "bg-murex font-ui-bold text-on-murex" : "border border-line bg-raised font-ui text-ink enabled:hover:bg-murex-soft/50"}`}
    >
      <span className="truncate">{label}</span>
    </Press>
  )
}

/** Something to do, as words without a frame; what is done first stands out in colour, or `filled`. */
export function Act({
  label,
  onPress,
  primary,
  filled,
}: {
  label: string
  onPress: () => void
  primary?: boolean
  filled?: boolean
}) {
  return (
    <Press
      onClick={onPress}
      className={`flex h-11 shrink-0 items-center rounded-button px-3 text-[14px] wide:h-9 ${filled ? "bg-murex font-ui-bold text-on-murex" : `hover:bg-murex-soft/50 ${primary ? "font-ui-bold text-murex" : "font-ui text-ink"}`}`}
    >
      {label}
    </Press>
  )
}

/** How words look that are pressed and do more than `Act` can: are tried, or ask for a file. */
export const wordLook =
  "flex h-11 shrink-0 items-center rounded-button px-3 font-ui-bold text-[14px] text-murex hover:bg-murex-soft/50 wide:h-9"

/** Something that is on or off, as wide as its words. */
export function Chip({ label, on, onPress }: { label: string; on: boolean; onPress: () => void }) {
  return (
    <Press
      aria-pressed={on}
      onClick={onPress}
      className={`flex h-11 shrink-0 items-center rounded-button border px-3 text-[13px] wide:h-8 ${on ? "border-murex bg-murex-soft font-ui-bold text-murex" : "border-line bg-raised font-ui text-ink"}`}
    >
      {label}
    </Press>
  )
}
