/** One of several, on or off, open or folded. */
import { useState, type ReactNode } from "react"
import { Text, View } from "react-native"
import { Tabs } from "@base-ui/react/tabs"
import { Press } from "./bar"
import { keep, readKept } from "../kept"
import { Glyph, inkSoft } from "./glyph"
import { CaretDown, CaretUp } from "./icons"

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
    <Press
      aria-pressed={on}
      onClick={onPress}
      className={`flex h-11 min-w-0 flex-1 items-center justify-center px-0 text-center text-[14px] leading-tight wide:h-9 ${first ? "" : "border-l border-line"} ${on ? "bg-murex-soft font-ui-bold text-murex" : "font-ui text-ink hover:bg-murex-soft/50"}`}
    >
      {label}
    </Press>
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
    <Press
      role="switch"
      aria-checked={mixed ? "mixed" : on}
      onClick={() => onChange(!on)}
      className="flex min-h-[44px] w-full items-center justify-between gap-3 px-0 text-left wide:min-h-[34px]"
    >
      <span className="flex-1 font-ui text-[14px] text-ink">{label}</span>
      <span
        className={`flex h-6 w-10 flex-col rounded-full border p-[2px] ${on ? "items-end border-murex bg-murex" : "items-start border-line bg-raised"}`}
      >
        <span className={`h-[18px] w-[18px] rounded-full ${on ? "bg-raised" : "bg-ink-soft"}`} />
      </span>
    </Press>
  )
}

/** One of several in a list that opens: the platform's own, which phones show best. */
export function Choice<T extends string>({
  label,
  quiet,
  value,
  none = "Several",
  options,
  onChange,
}: {
  label: string
  /** The label is for screen readers only. */
  quiet?: boolean
  value: T | undefined
  /** What stands there while nothing is chosen. */
  none?: string
  options: readonly (readonly [value: T, name: string])[]
  onChange: (value: T) => void
}) {
  return (
    <label className="flex min-w-0 flex-1 flex-col gap-1 font-ui text-[13px] text-ink-soft">
      {quiet ? null : label}
      <select
        aria-label={label}
        value={value ?? ""}
        onChange={(event) => onChange(event.target.value as T)}
        className="h-11 min-w-0 rounded-button border border-line bg-raised px-2 font-ui text-[15px] text-ink wide:h-9"
      >
        {value === undefined ? <option value="">{none}</option> : null}
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
    <Tabs.Root
      value={page}
      onValueChange={(next: T) => onChoose(next)}
      className="sticky top-0 z-10 border-b border-line bg-surface pt-3"
    >
      <Tabs.List aria-label={label} className="flex gap-1">
        {pages.map(([key, name]) => (
          <Tabs.Tab
            key={key}
            value={key}
            className={`h-11 min-w-0 flex-auto cursor-pointer truncate border-b-2 px-1 text-[14px] wide:h-9 ${key === page ? "border-murex font-ui-bold text-murex" : "border-transparent font-ui text-ink-soft hover:border-line"}`}
          >
            {name}
          </Tabs.Tab>
        ))}
      </Tabs.List>
    </Tabs.Root>
  )
}

/** More of a page, folded away until it is asked for. */
export function Fold({ title, unfolded, children }: { title: string; unfolded?: boolean; children: ReactNode }) {
  const [open, setOpen] = useState(unfolded === true || readKept(`fold-${title}`) === true)
  const turn = () => {
    keep(`fold-${title}`, !open)
    setOpen(!open)
  }
  return (
    <View className="mt-3 border-t border-line">
      <Press
        aria-expanded={open}
        onClick={turn}
        className="flex h-11 w-full items-center justify-between px-0 text-left font-ui text-[14px] text-ink wide:h-9"
      >
        {title}
        <Glyph icon={open ? CaretUp : CaretDown} size={16} colour={inkSoft} />
      </Press>
      {open ? <View className="gap-3 pb-2">{children}</View> : null}
    </View>
  )
}
