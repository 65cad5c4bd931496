/** The small parts that all screens are made of. */
import type { ReactNode } from "react"
import { Pressable, Text, View } from "react-native"
import type { Extent } from "@biblon/core/editing"
import { useNumberEntry } from "./numberEntry"
import { Minus, Plus, X, type Icon } from "./icons"

export const ink = "rgb(var(--ink))"
export const inkSoft = "rgb(var(--ink-soft))"
export const murex = "rgb(var(--murex))"

/** Drawings of mere strokes have no second tone. */
const strokes = new Set<Icon>([Minus, Plus, X])

export function Glyph({ icon: Drawing, size = 22, colour = ink }: { icon: Icon | undefined; size?: number; colour?: string }) {
  if (!Drawing) return null
  return <Drawing size={size} color={colour} weight={strokes.has(Drawing) ? "regular" : "duotone"} duotoneColor={colour} duotoneOpacity={0.18} />
}

/** A button that shows an icon only; its name is for screen readers and the tooltip. */
export function IconButton(props: { name: string; icon: Icon | undefined; hint?: string | null; extent?: Extent | undefined; disabled?: boolean; onPress: () => void; className?: string; children?: ReactNode }) {
  const { name, icon, hint, extent, disabled, onPress, className = "h-11 w-11 rounded-button", children } = props
  const on = extent === "on"
  return (
    <Pressable
      accessibilityRole="button"
      aria-label={name}
      aria-pressed={extent === undefined ? undefined : extent === "mixed" ? "mixed" : on}
      {...{ title: hint ? `${name} (${hint})` : name }}
      disabled={disabled}
      onPress={onPress}
      className={`items-center justify-center ${on ? "bg-murex-soft" : "hover:bg-murex-soft/50"} ${disabled ? "opacity-40" : ""} ${className}`}
    >
      <Glyph icon={icon} colour={on ? murex : ink} />
      {children}
      {extent === "mixed" ? <View className="absolute bottom-1.5 h-0.5 w-4 rounded-full bg-murex" /> : null}
    </Pressable>
  )
}

/** A row of choices in one frame, of which one may be on. */
export function Segments({ label, children }: { label: string; children: ReactNode }) {
  return (
    <View role="group" aria-label={label} className="flex-row overflow-hidden rounded-button border border-line bg-raised">
      {children}
    </View>
  )
}

export function Segment({ label, on, onPress, first }: { label: string; on: boolean; onPress: () => void; first?: boolean }) {
  return (
    <Pressable
      accessibilityRole="button"
      aria-pressed={on}
      onPress={onPress}
      className={`h-11 flex-1 items-center justify-center wide:h-9 ${first ? "" : "border-l border-line"} ${on ? "bg-murex-soft" : "hover:bg-murex-soft/50"}`}
    >
      <Text className={`text-[14px] ${on ? "font-ui-bold text-murex" : "font-ui text-ink"}`}>{label}</Text>
    </Pressable>
  )
}

export function SectionTitle({ children, aside }: { children: string; aside?: ReactNode }) {
  return (
    <View className="mb-2 mt-5 flex-row items-center justify-between">
      <Text role="heading" aria-level={2} className="font-ui text-[13px] text-ink-soft">
        {children}
      </Text>
      {aside}
    </View>
  )
}

/** A number with one step less and more, and room to type. An empty value means that the selection is mixed. */
export function NumberField(props: { label: string; value: number | undefined; min: number; max: number; step: (value: number, direction: -1 | 1) => number; onChange: (value: number) => void; wide?: boolean }) {
  const { label, value, min, max, step, onChange } = props
  const entry = useNumberEntry(value, min, max, onChange)
  const by = (direction: -1 | 1) => () => {
    const next = step(value ?? min, direction)
    if (next >= min && next <= max) onChange(next)
  }
  const button = "h-11 w-11 wide:h-9 wide:w-9"
  return (
    <View role="group" aria-label={label} className="flex-1 flex-row items-center rounded-button border border-line bg-raised">
      <IconButton name={`${label}: less`} icon={Minus} onPress={by(-1)} className={button} />
      <input
        aria-label={label}
        inputMode="decimal"
        className="min-w-0 flex-1 bg-transparent text-center font-ui text-[15px] text-ink"
        {...entry}
      />
      <IconButton name={`${label}: more`} icon={Plus} onPress={by(1)} className={button} />
    </View>
  )
}
