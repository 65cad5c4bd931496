import { useState } from "react"
import { View } from "react-native"
import { type LineSpacing } from "@biblon/core/document"
import { Choice, Segment, Segments } from "../../../ui/choice"
import { NumberField } from "../../../ui/field"
import { readLength } from "../../../ui/units"
import { useSession } from "../../context"
import { useShaping } from "./Scope"
import { useParagraph } from "./paragraphFields"

const multiples = [1, 1.15, 1.5, 2]
const rules = [
  ["multiple", "Times"],
  ["exact", "Exactly"],
  ["atLeast", "At least"],
] as const

/** The same height of line by another rule. */
function byRule(rule: LineSpacing["rule"], now: LineSpacing | undefined): LineSpacing {
  if (rule === "multiple") return { rule, value: now?.rule === "multiple" ? now.value : 1.25 }
  return { rule, value: now && now.rule !== "multiple" ? now.value : 16 }
}

export function Spacing() {
  const session = useSession()
  const spacing = useParagraph("lineSpacing")
  const [other, setOther] = useState(false)
  const multiple = spacing?.rule === "multiple" ? spacing.value : undefined
  const unusual = spacing !== undefined && (multiple === undefined || !multiples.includes(multiple))
  const { paragraph, stepParagraph } = useShaping()
  const set = (lineSpacing: LineSpacing) => session.run(paragraph({ lineSpacing }))
  const stepped = ({ rule, value }: LineSpacing, direction: -1 | 1): LineSpacing => ({
    rule,
    value: Math.round((value + direction * (rule === "multiple" ? 0.05 : 1)) * 100) / 100,
  })
  return (
    <>
      <Segments label="Line spacing">
        {multiples.map((value, i) => (
          <Segment
            key={value}
            first={i === 0}
            label={String(value)}
            on={value === multiple}
            onPress={() => set({ rule: "multiple", value })}
          />
        ))}
        <Segment
          label={unusual ? (multiple !== undefined ? String(multiple) : `${spacing.value} pt`) : "other"}
          on={other || unusual}
          onPress={() => setOther(!other)}
        />
      </Segments>
      {other ? (
        <View className="mt-2 flex-row items-end gap-2">
          <Choice
            label="Measured"
            value={spacing?.rule}
            options={rules}
            onChange={(rule) => set(byRule(rule, spacing))}
          />
          <NumberField
            label="Line spacing"
            value={spacing?.value}
            min={spacing?.rule === "multiple" ? 0.5 : 1}
            max={spacing?.rule === "multiple" ? 10 : 1000}
            step={(value) => value}
            {...(spacing?.rule === "multiple" ? {} : { read: (text: string) => readLength(text, "pt") })}
            onStep={(direction) =>
              session.run(
                stepParagraph(({ lineSpacing }) => ({ lineSpacing: stepped(lineSpacing, direction) }), "Line spacing"),
              )
            }
            onChange={(value) => set({ ...(spacing ?? { rule: "multiple" }), value } as LineSpacing)}
          />
        </View>
      ) : null}
    </>
  )
}
