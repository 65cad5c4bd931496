/** One property of letters or paragraphs, of whatever kind, changed where it stands: for styles and the trail. */
import { Text, View } from "react-native"
import {
  limits,
  readyLists,
  type Borders,
  type DropCap,
  type LineSpacing,
  type ListPlace,
  type TabStop,
} from "@biblon/core/document"
import { families } from "@biblon/core/layout/catalogue"
import { Choice, Switch } from "../../ui/choice"
import { LengthField, NumberField } from "../../ui/field"
import { readLength } from "../../ui/units"
import { useDesk } from "../context"
import { languageOptions } from "../languages"
import { BorderEditor } from "./write/BorderEditor"
import { ColourField } from "./write/Colours"
import { DropCapEditor } from "./write/DropCapEditor"
import { TabStops } from "./write/TabStops"
import { choices, colours, faces, lengths, nameOf, type PropertyOf } from "./propertyWords"

interface Props {
  subject: PropertyOf
  value: unknown
  onChange: (value: unknown) => void
}

const ranges: Readonly<Record<string, readonly [number, number]>> = {
  size: limits.size,
  raise: limits.raise,
  spacing: limits.letterSpacing,
  orphans: limits.keptLines,
  widows: limits.keptLines,
}
const whole = new Set(["orphans", "widows", "size"])

/** What the document has of its own, beside what ships; divided by line feeds, so that it is compared by what it says. */
function useOwn(of: "fonts" | "lists"): string[] {
  const names = useDesk(({ editor }) =>
    editor
      ? Object.entries((editor.doc.attrs.styles as Record<string, Record<string, { name?: string }>>)[of] ?? {})
          .map(([key, { name }]) => `${key}\t${name ?? key}`)
          .join("\n")
      : "",
  )
  return names.split("\n").filter(Boolean)
}

function Face({ subject, value, onChange }: Props) {
  const own = useOwn("fonts").map((line) => line.split("\t")[0] as string)
  const names = [...new Set([...own, ...families.map(({ name }) => name), value as string])]
  return (
    <Choice
      label={nameOf(subject)}
      value={value as string}
      options={names.map((name) => [name, name] as const)}
      onChange={onChange}
    />
  )
}

function InList({ subject, value, onChange }: Props) {
  const place = value as ListPlace | null
  const own = useOwn("lists").map((line) => line.split("\t") as [string, string])
  const lists = [...Object.entries(readyLists).map(([key, { name }]) => [key, name] as const), ...own]
  return (
    <View className="flex-row items-end gap-2">
      <Choice
        label={nameOf(subject)}
        value={place?.definition ?? "none"}
        options={[["none", "None"], ...lists]}
        onChange={(definition) =>
          onChange(definition === "none" ? null : { definition, run: "", level: place?.level ?? 0 })
        }
      />
      {place ? (
        <NumberField
          label="Level of the list"
          value={place.level + 1}
          min={1}
          max={9}
          step={(n, d) => n + d}
          onChange={(level) => onChange({ ...place, level: Math.round(level) - 1 })}
        />
      ) : null}
    </View>
  )
}

function Spacing({ subject, value, onChange }: Props) {
  const spacing = value as LineSpacing
  const times = spacing.rule === "multiple"
  const [least, most] = limits.lines[spacing.rule]
  const label = nameOf(subject)
  return (
    <View className="flex-row items-end gap-2">
      <Choice
        label={label}
        value={spacing.rule}
        options={[
          ["multiple", "Times"],
          ["exact", "Exactly"],
          ["atLeast", "At least"],
        ]}
        onChange={(rule) => onChange({ rule, value: rule === "multiple" ? 1.25 : 16 })}
      />
      <NumberField
        label={`${label}: how much`}
        value={spacing.value}
        min={least}
        max={most}
        step={(n, d) => Math.round((n + d * (times ? 0.05 : 1)) * 100) / 100}
        {...(times ? {} : { read: (text: string) => readLength(text, "pt") })}
        onChange={(next) => onChange({ ...spacing, value: next })}
      />
    </View>
  )
}

/** The control for a property, as its value asks for it. */
export function PropertyField(props: Props) {
  const { subject, value, onChange } = props
  const { property } = subject
  const label = nameOf(subject)
  const options = choices[property]
  if (options) return <Choice label={label} value={value as string} options={options} onChange={onChange} />
  if (faces.has(property)) return <Face {...props} />
  if (property === "language")
    return (
      <Choice label={label} value={value as string} options={languageOptions(value as string)} onChange={onChange} />
    )
  if (typeof value === "boolean") return <Switch label={label} on={value} onChange={onChange} />
  if (lengths.has(property))
    return (
      <LengthField
        label={label}
        value={value as number}
        min={property.startsWith("space") ? 0 : -1000}
        max={1000}
        inPoints={property.startsWith("space")}
        onChange={onChange}
      />
    )
  if (colours.has(property))
    return (
      <ColourField
        label={label}
        value={value as string | null}
        {...(property === "colour" ? {} : { none: "None" })}
        onChange={onChange}
      />
    )
  if (property === "lineSpacing") return <Spacing {...props} />
  if (property === "list") return <InList {...props} />
  if (property === "dropCap") return <DropCapEditor cap={value as DropCap | null} onChange={onChange} />
  return (
    <View className="gap-1">
      <Text className="font-ui text-[13px] text-ink-soft">{label}</Text>
      {property === "borders" ? (
        <BorderEditor all={[value as Borders]} onChange={(change) => onChange(change(value as Borders))} />
      ) : null}
      {property === "tabs" ? (
        <TabStops all={[value as TabStop[]]} edge={null} onChange={(change) => onChange(change(value as TabStop[]))} />
      ) : null}
      {typeof value === "number" ? (
        <NumberField
          label={label}
          value={value}
          min={ranges[property]?.[0] ?? -400}
          max={ranges[property]?.[1] ?? 400}
          step={(n, d) => n + d * (whole.has(property) ? 1 : 0.5)}
          read={(text) => readLength(text, "pt")}
          onChange={onChange}
        />
      ) : null}
    </View>
  )
}
