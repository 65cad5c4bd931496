/** One property of letters or paragraphs, of whatever kind, changed where it stands: for styles and the trail. */
import { Text, View } from "react-native"
import { readyLists, type LineSpacing, type ListPlace } from "@biblon/core/document"
import { defaultBorder } from "@biblon/core/editing"
import { families } from "@biblon/core/layout/catalogue"
import { Choice, LengthField, NumberField, Switch } from "../../ui/pieces"
import { useUnit } from "../../ui/units"
import { languageOptions } from "../languages"
import { choices, colours, faces, lengths, nameOf, valueWords, type PropertyOf } from "./propertyWords"

/** The control for a property, as its value asks for it. */
export function PropertyField({ subject, value, onChange }: { subject: PropertyOf; value: unknown; onChange: (value: unknown) => void }) {
  const unit = useUnit((s) => s.unit)
  const { property } = subject
  const label = nameOf(subject)
  const options = choices[property]
  if (options) return <Choice label={label} value={value as string} options={options} onChange={onChange} />
  if (faces.has(property)) {
    const names = families.map(({ name }) => name)
    return <Choice label={label} value={value as string} options={[...new Set([...names, value as string])].map((name) => [name, name] as const)} onChange={onChange} />
  }
  if (property === "language") return <Choice label={label} value={value as string} options={languageOptions(value as string)} onChange={onChange} />
  if (typeof value === "boolean") return <Switch label={label} on={value} onChange={onChange} />
  if (lengths.has(property)) return <LengthField label={label} value={value as number} min={property.startsWith("space") ? 0 : -1000} max={1000} onChange={onChange} />
  if (colours.has(property))
    return (
      <View className="gap-1">
        {property === "colour" ? null : <Switch label={label} on={value !== null} onChange={(on) => onChange(on ? "#f4e3b5" : null)} />}
        {value === null ? null : (
          <label className="flex items-center gap-2 font-ui text-[14px] text-ink">
            <input type="color" aria-label={label} key={value as string} defaultValue={value as string} onBlur={(event) => event.target.value !== value && onChange(event.target.value)} className="h-9 w-14 cursor-pointer rounded-button border border-line bg-raised" />
            {property === "colour" ? label : (value as string)}
          </label>
        )}
      </View>
    )
  if (property === "lineSpacing") {
    const spacing = value as LineSpacing
    return (
      <View className="flex-row items-end gap-2">
        <Choice label={label} value={spacing.rule} options={[["multiple", "Times"], ["exact", "Exactly"], ["atLeast", "At least"]]} onChange={(rule) => onChange({ rule, value: rule === "multiple" ? 1.25 : 16 })} />
        <NumberField label={`${label}: how much`} value={spacing.value} min={0.5} max={1000} step={(n, d) => Math.round((n + d * (spacing.rule === "multiple" ? 0.05 : 1)) * 100) / 100} onChange={(next) => onChange({ ...spacing, value: next })} />
      </View>
    )
  }
  if (property === "dropCap") return <Switch label={label} on={value !== null} onChange={(on) => onChange(on ? { lines: 3, distance: 6, family: null } : null)} />
  if (property === "borders") {
    const pattern = Object.keys(value as object).length > 0
    return <Switch label={`${label} all round`} on={pattern} onChange={(on) => onChange(on ? { top: defaultBorder, right: defaultBorder, bottom: defaultBorder, left: defaultBorder } : {})} />
  }
  if (property === "list") {
    const place = value as ListPlace | null
    const lists = Object.entries(readyLists).map(([key, { name }]) => [key, name] as const)
    return (
      <View className="flex-row items-end gap-2">
        <Choice label={label} value={place?.definition ?? "none"} options={[["none", "None"], ...lists]} onChange={(definition) => onChange(definition === "none" ? null : { definition, run: "", level: place?.level ?? 0 })} />
        {place ? <NumberField label="Level of the list" value={place.level + 1} min={1} max={9} step={(n, d) => n + d} onChange={(level) => onChange({ ...place, level: Math.round(level) - 1 })} /> : null}
      </View>
    )
  }
  if (typeof value === "number")
    return (
      <View className="gap-1">
        <Text className="font-ui text-[13px] text-ink-soft">{label}</Text>
        <NumberField label={label} value={value} min={property === "size" ? 1 : -400} max={400} step={(n, d) => n + d * (property === "orphans" || property === "widows" || property === "size" ? 1 : 0.5)} onChange={onChange} />
      </View>
    )
  // Tab stops are set on the ruler.
  return (
    <Text className="font-ui text-[14px] text-ink">
      {label}: {valueWords(subject, value, unit)}
    </Text>
  )
}
