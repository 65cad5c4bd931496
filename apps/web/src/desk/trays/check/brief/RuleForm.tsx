/** The parts of a rule, to be changed. */
import { View } from "react-native"
import { changeBrief, type BriefRule } from "@biblon/core/brief"
import type { Brief } from "@biblon/core/document"
import { Choice, Switch } from "../../../../ui/choice"
import { LengthField, NumberField, TextField } from "../../../../ui/field"
import { useTyped } from "../../../../ui/typed"
import { useSession } from "../../../context"
import { partsOf, valueAt, withValue, type RulePart } from "./rules"

function Words({
  part,
  value,
  onChange,
}: {
  part: RulePart & { kind: "text" }
  value: string
  onChange: (value: string) => void
}) {
  const typed = useTyped(value, (text) => {
    if (text.trim() !== "") onChange(text.trim())
  })
  return <TextField label={part.label} maxLength={part.most} {...typed} />
}

function PartField({ part, value, onChange }: { part: RulePart; value: unknown; onChange: (value: unknown) => void }) {
  const { label } = part
  switch (part.kind) {
    case "length":
      return (
        <LengthField
          label={label}
          value={value as number}
          min={part.least ?? 0}
          max={part.most}
          {...(part.points ? { inPoints: true } : {})}
          onChange={onChange}
        />
      )
    case "number": {
      const [min, max] = part.range
      const next = (now: number, direction: -1 | 1) => now + direction * part.step
      return (
        <View className="gap-1">
          <span className="font-ui text-[13px] text-ink-soft">{label}</span>
          <NumberField label={label} value={value as number} min={min} max={max} step={next} onChange={onChange} />
        </View>
      )
    }
    case "choice":
      return (
        <Choice
          label={label}
          value={String(value)}
          options={part.options.map(([key, name]) => [String(key), name] as const)}
          onChange={(key) => onChange(part.options.find(([own]) => String(own) === key)?.[0])}
        />
      )
    case "text":
      return <Words part={part} value={value as string} onChange={onChange} />
    case "switch":
      return <Switch label={label} on={value === true} onChange={onChange} />
  }
}

export function RuleForm<R extends BriefRule>({ rule, asked }: { rule: R; asked: NonNullable<Brief[R]> }) {
  const session = useSession()
  return (
    <View className="gap-2 pb-2">
      {partsOf(rule, asked).map((part) => (
        <PartField
          key={part.label}
          part={part}
          value={valueAt(asked, part.path)}
          onChange={(value) => session.run(changeBrief({ [rule]: withValue(asked, part.path, value) }))}
        />
      ))}
    </View>
  )
}
