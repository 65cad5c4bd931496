import { Text, View } from "react-native"
import { edgeWidth, equal, leastRoom, limits, type PageSetup } from "@biblon/core/document"
import { columnsIn } from "@biblon/core/layout"
import { joinSections, startSection } from "@biblon/core/editing"
import { WordButton } from "../../../ui/button"
import { Choice, Fold, SectionTitle, Segment, Segments, Switch } from "../../../ui/choice"
import { LengthField, NumberField } from "../../../ui/field"
import { SheetDrawing } from "./SheetDrawing"
import { useSetup } from "./useSetup"

const beginnings: readonly (readonly [PageSetup["begins"], string])[] = [
  ["sheet", "On a new sheet"],
  ["continuous", "Same sheet"],
  ["odd", "Next odd sheet"],
  ["even", "Next even sheet"],
]

/** What a column gets of the width, as parts of it. */
const unlike: readonly (readonly [string, readonly [number, number] | null])[] = [
  ["Alike", null],
  ["Narrow left", [1, 2]],
  ["Narrow right", [2, 1]],
]

/** Columns that are not alike: two of our proportions, or widths of one's own. */
function Widths() {
  const { setup, change } = useSetup()
  if (!setup) return null
  const { columns } = setup
  const all = columnsIn(edgeWidth(setup), columns)
  const put = (shares: readonly number[] | null) =>
    change((own) => ({ ...own, columns: { ...own.columns, shares: shares && [...shares] } }), "Widths of the columns")
  /** One column at a width; the others share the rest as they did. */
  const widen = (i: number, width: number) => {
    const sum = all.reduce((total, own) => total + own.width, 0)
    const rest = sum - (all[i]?.width ?? 0)
    const scale = (sum - width) / rest
    put(all.map((own, n) => Math.round(((n === i ? width : own.width * scale) / sum) * all.length * 1000) / 1000))
  }
  return (
    <>
      {columns.count === 2 ? (
        <Segments label="How columns share the width">
          {unlike.map(([name, shares], i) => (
            <Segment
              key={name}
              first={i === 0}
              label={name}
              on={equal(columns.shares, shares)}
              onPress={() => put(shares)}
            />
          ))}
        </Segments>
      ) : null}
      <Fold title="Widths">
        <View className="flex-row flex-wrap gap-2">
          {all.map(({ width }, i) => (
            <View key={i} className="min-w-[46%] flex-1 flex-row">
              <LengthField
                label={`Column ${i + 1}`}
                value={Math.round(width * 100) / 100}
                min={leastRoom}
                max={edgeWidth(setup)}
                onChange={(next) => widen(i, next)}
              />
            </View>
          ))}
        </View>
      </Fold>
    </>
  )
}

export function ColumnsPage() {
  const { session, setup, section, sections, change } = useSetup()
  if (!setup) return null
  const { count, gap, line } = setup.columns
  const columns = (next: Partial<PageSetup["columns"]>) =>
    change((own) => ({ ...own, columns: { ...own.columns, ...next } }), "Columns")
  return (
    <View className="gap-3 pt-4">
      <SheetDrawing setup={setup} />
      <Segments label="Columns">
        {[1, 2, 3].map((n) => (
          <Segment
            key={n}
            first={n === 1}
            label={["One column", "Two", "Three"][n - 1] as string}
            on={count === n}
            onPress={() => columns({ count: n })}
          />
        ))}
      </Segments>
      <View className="flex-row items-end gap-2">
        <NumberField
          label="How many columns"
          value={count}
          min={limits.columns[0]}
          max={limits.columns[1]}
          step={(value, direction) => value + direction}
          onChange={(next) => columns({ count: Math.round(next) })}
        />
        <LengthField
          label="Between"
          value={gap}
          min={0}
          max={setup.width}
          onChange={(next) => columns({ gap: next })}
        />
      </View>
      {count > 1 ? <Widths /> : null}
      <Switch label="A line between them" on={line} onChange={(on) => columns({ line: on })} />
      <SectionTitle>{sections > 1 ? `Section ${section + 1} of ${sections}` : "Sections"}</SectionTitle>
      {section > 0 ? (
        <>
          <Choice
            label="This section begins"
            value={setup.begins}
            options={beginnings}
            onChange={(begins) => change((own) => ({ ...own, begins }), "Beginning of the section")}
          />
          <WordButton label="Join it to the one before" onPress={() => void session.run(joinSections)} />
          <Text className="font-ui text-[13px] leading-5 text-ink-soft">
            Its text then stands on the sheets of the section before it, with that one’s paper, columns, head and foot.
          </Text>
        </>
      ) : null}
      <Text className="font-ui text-[13px] leading-5 text-ink-soft">A new section from the caret on:</Text>
      <View className="flex-row flex-wrap gap-2">
        {beginnings.map(([begins, name]) => (
          <View key={begins} className="min-w-[46%] flex-1 flex-row">
            <WordButton
              label={name}
              onPress={() => {
                if (!session.run(startSection(begins, (own) => own)))
                  session.store.setState({
                    trouble:
                      "A section begins in the text itself, behind its first paragraph: put the caret there first.",
                  })
                session.focus()
              }}
            />
          </View>
        ))}
      </View>
    </View>
  )
}
