/** The small parts that all screens are made of. */
import { useState, type ReactNode } from "react"
import { Pressable, Text, View } from "react-native"
import type { Extent } from "@biblon/core/editing"
import { keep, readKept } from "../kept"
import { useNumberEntry } from "./numberEntry"
import { CaretDown, CaretUp, Minus, Plus, X, type Icon } from "./icons"
import { inUnit, readLength, stepLength, units, useUnit } from "./units"

const ink = "rgb(var(--ink))"
export const inkSoft = "rgb(var(--ink-soft))"
export const murex = "rgb(var(--murex))"

/** Drawings of mere strokes have no second tone. */
const strokes = new Set<Icon>([Minus, Plus, X])

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
    <View
      role="group"
      aria-label={label}
      className="flex-row overflow-hidden rounded-button border border-line bg-raised"
    >
      {children}
    </View>
  )
}

export function Segment({
  label,
  on,
  onPress,
  first,
}: {
  label: string
  on: boolean
  onPress: () => void
  first?: boolean
}) {
  return (
    <Pressable
      accessibilityRole="button"
      aria-pressed={on}
      onPress={onPress}
      className={`h-11 flex-1 items-center justify-center wide:h-9 ${first ? "" : "border-l border-line"} ${on ? "bg-murex-soft" : "hover:bg-murex-soft/50"}`}
    >
      <Text className={`text-center text-[14px] ${on ? "font-ui-bold text-murex" : "font-ui text-ink"}`}>{label}</Text>
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

interface NumberProps {
  label: string
  value: number | undefined
  min: number
  max: number
  step: (value: number, direction: -1 | 1) => number
  onChange: (value: number) => void
  /** How what is typed is understood, if not as a mere number. */
  read?: (text: string) => number | null
  /** Steps what the selection has, each part from its own value. */
  onStep?: (direction: -1 | 1) => void
}

/** A number with one step less and more, and room to type. An empty value means that the selection is mixed. */
export function NumberField(props: NumberProps) {
  const { label, value, min, max, step, onChange, read, onStep } = props
  const entry = useNumberEntry(value, min, max, onChange, read)
  const by = (direction: -1 | 1) => () => {
    if (onStep) return onStep(direction)
    const next = step(value ?? min, direction)
    if (next >= min - 1e-6 && next <= max + 1e-6) onChange(next)
  }
  const button = "h-11 w-11 wide:h-9 wide:w-9"
  return (
    <View
      role="group"
      aria-label={label}
      className="h-11 flex-1 flex-row items-center overflow-hidden rounded-button border border-line bg-raised wide:h-9"
    >
      <IconButton name={`${label}: less`} icon={Minus} onPress={by(-1)} className={button} />
      <input
        aria-label={label}
        placeholder="several"
        inputMode="decimal"
        className="min-w-0 flex-1 bg-transparent text-center font-ui text-[15px] text-ink"
        {...entry}
      />
      <IconButton name={`${label}: more`} icon={Plus} onPress={by(1)} className={button} />
    </View>
  )
}

/** A length in points, shown and typed in the person's unit, or in points where the trade counts in them; another unit may be typed behind a number. */
export function LengthField({
  label,
  value,
  min,
  max,
  onChange,
  onStep,
  inPoints,
}: {
  label: string
  value: number | undefined
  min: number
  max: number
  onChange: (points: number) => void
  onStep?: (next: (points: number) => number) => void
  inPoints?: boolean
}) {
  const own = useUnit((s) => s.unit)
  const unit = inPoints ? "pt" : own
  const points = (shown: number) => shown * units[unit]
  return (
    <View className="flex-1 gap-1">
      <Text className="font-ui text-[13px] text-ink-soft">{`${label} (${unit})`}</Text>
      <NumberField
        label={label}
        value={value === undefined ? undefined : inUnit(value, unit)}
        min={min / units[unit]}
        max={max / units[unit]}
        step={(shown, direction) => stepLength(points(shown), direction, unit) / units[unit]}
        read={(text) => {
          const read = readLength(text, unit)
          return read === null ? null : read / units[unit]
        }}
        onChange={(shown) => onChange(Math.round(points(shown) * 1000) / 1000)}
        {...(onStep
          ? {
              onStep: (direction: -1 | 1) =>
                onStep((now) =>
                  Math.min(max, Math.max(min, Math.round(stepLength(now, direction, unit) * 1000) / 1000)),
                ),
            }
          : {})}
      />
    </View>
  )
}

/** A switch with its words. */
export function Switch({
  label,
  on,
  mixed,
  onChange,
}: {
  label: string
  on: boolean
  mixed?: boolean
  onChange: (on: boolean) => void
}) {
  return (
    <Pressable
      accessibilityRole="switch"
      aria-checked={mixed ? "mixed" : on}
      onPress={() => onChange(!on)}
      className="min-h-[44px] flex-row items-center justify-between gap-3 wide:min-h-[34px]"
    >
      <Text className="flex-1 font-ui text-[14px] text-ink">{label}</Text>
      <View
        className={`h-6 w-10 rounded-full border p-[2px] ${on ? "items-end border-murex bg-murex" : "items-start border-line bg-raised"}`}
      >
        <View className={`h-[18px] w-[18px] rounded-full ${on ? "bg-raised" : "bg-ink-soft"}`} />
      </View>
    </Pressable>
  )
}

/** One of several in a list that opens. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string
  value: T | undefined
  options: readonly (readonly [value: T, name: string])[]
  onChange: (value: T) => void
}) {
  return (
    <label className="flex min-w-0 flex-1 flex-col gap-1 font-ui text-[13px] text-ink-soft">
      {label}
      <select
        aria-label={label}
        value={value ?? ""}
        onChange={(event) => onChange(event.target.value as T)}
        className="h-11 min-w-0 rounded-button border border-line bg-raised px-2 font-ui text-[15px] text-ink wide:h-9"
      >
        {value === undefined ? <option value="">Several</option> : null}
        {options.map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </label>
  )
}

/** Pages of a tray, of which one is shown. */
export function PageTabs<T extends string>({
  label,
  pages,
  page,
  onChoose,
}: {
  label: string
  pages: readonly (readonly [T, string])[]
  page: T
  onChoose: (page: T) => void
}) {
  return (
    <View
      role="tablist"
      aria-label={label}
      className="sticky top-0 z-10 flex-row gap-1 border-b border-line bg-surface pt-3"
    >
      {pages.map(([key, name]) => (
        <Pressable
          key={key}
          role="tab"
          aria-selected={key === page}
          onPress={() => onChoose(key)}
          className={`h-11 flex-auto items-center justify-center border-b-2 px-1 wide:h-9 ${key === page ? "border-murex" : "border-transparent hover:border-line"}`}
        >
          <Text
            numberOfLines={1}
            className={`text-[14px] ${key === page ? "font-ui-bold text-murex" : "font-ui text-ink-soft"}`}
          >
            {name}
          </Text>
        </Pressable>
      ))}
    </View>
  )
}

/** More of a page, folded away until it is asked for. */
export function Fold({ title, children }: { title: string; children: ReactNode }) {
  const [open, setOpen] = useState(readKept(`fold-${title}`) === true)
  const turn = () => {
    keep(`fold-${title}`, !open)
    setOpen(!open)
  }
  return (
    <View className="mt-3 border-t border-line">
      <Pressable
        accessibilityRole="button"
        aria-expanded={open}
        onPress={turn}
        className="h-11 flex-row items-center justify-between wide:h-9"
      >
        <Text className="font-ui text-[14px] text-ink">{title}</Text>
        <Glyph icon={open ? CaretUp : CaretDown} size={16} colour={inkSoft} />
      </Pressable>
      {open ? <View className="gap-3 pb-2">{children}</View> : null}
    </View>
  )
}

/** A button with words, as wide as its place. */
export function WordButton({
  label,
  onPress,
  disabled,
  primary,
}: {
  label: string
  onPress: () => void
  disabled?: boolean
  primary?: boolean
}) {
  return (
    <Pressable
      accessibilityRole="button"
      disabled={disabled}
      onPress={onPress}
      className={`h-11 flex-1 items-center justify-center rounded-button px-3 wide:h-9 ${primary ? "bg-murex" : "border border-line bg-raised hover:bg-murex-soft/50"} ${disabled ? "opacity-40" : ""}`}
    >
      <Text numberOfLines={1} className={`text-[14px] ${primary ? "font-ui-bold text-on-murex" : "font-ui text-ink"}`}>
        {label}
      </Text>
    </Pressable>
  )
}
