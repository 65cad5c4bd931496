import { Text, View } from "react-native"
import { limits, type ParagraphFormat } from "@biblon/core/document"
import { formatOfStyle, paragraphValue } from "@biblon/core/editing"
import { Switch } from "../../../ui/choice"
import { LengthField, NumberField } from "../../../ui/field"
import { useDesk, useSession } from "../../context"
import { useShaping } from "./Scope"

/** What all that is shaped has of a property; undefined where it differs. */
export function useParagraph<K extends keyof ParagraphFormat>(property: K): ParagraphFormat[K] | undefined {
  const { chosen } = useShaping()
  return useDesk(({ editor }) =>
    !editor
      ? undefined
      : chosen === null
        ? paragraphValue(editor, property)
        : formatOfStyle(editor, chosen).paragraph[property],
  )
}

type LengthProperty = "spaceBefore" | "spaceAfter" | "indentLeft" | "indentRight" | "indentFirst"

/** A length of what is chosen to be shaped. */
export function Length({
  label,
  property,
  min = 0,
  max = 400,
}: {
  label: string
  property: LengthProperty
  min?: number
  max?: number
}) {
  const session = useSession()
  const { paragraph, stepParagraph } = useShaping()
  const value = useParagraph(property)
  return (
    <LengthField
      label={label}
      value={value}
      min={min}
      max={max}
      // Space between paragraphs is counted in points whatever the ruler shows.
      inPoints={property.startsWith("space")}
      onChange={(points) => session.run(paragraph({ [property]: points }))}
      onStep={(next) => session.run(stepParagraph((now) => ({ [property]: next(now[property]) }), label))}
    />
  )
}

export function Flag({
  label,
  property,
}: {
  label: string
  property: "keepNext" | "keepTogether" | "breakBefore" | "hyphenate" | "spaceAlike"
}) {
  const session = useSession()
  const { paragraph } = useShaping()
  const value = useParagraph(property)
  return (
    <Switch
      label={label}
      on={value === true}
      mixed={value === undefined}
      onChange={(on) => session.run(paragraph({ [property]: on }))}
    />
  )
}

export function Lines({ label, property }: { label: string; property: "orphans" | "widows" }) {
  const session = useSession()
  const { paragraph, stepParagraph } = useShaping()
  const value = useParagraph(property)
  const [least, most] = limits.keptLines
  return (
    <View className="flex-1 gap-1">
      <Text className="font-ui text-[13px] text-ink-soft">{label}</Text>
      <NumberField
        label={label}
        value={value}
        min={least}
        max={most}
        step={(n, d) => n + d}
        onChange={(n) => session.run(paragraph({ [property]: Math.round(n) }))}
        onStep={(d) => session.run(stepParagraph((now) => ({ [property]: now[property] + d }), label))}
      />
    </View>
  )
}
