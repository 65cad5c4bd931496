import { useState } from "react"
import { Text, View } from "react-native"
import { type Border, type CellFormat } from "@biblon/core/document"
import { cellsHere, defaultBorder, linesHere, setCells, setLines, type LinesOf } from "@biblon/core/editing"
import { Choice, Segment, Segments } from "../../../../ui/choice"
import { useDesk, useSession } from "../../../context"
import { ThicknessField } from "../../ThicknessField"
import { patterns } from "../BorderEditor"
import { ColourField, Colours, tints } from "../Colours"

const heights: readonly (readonly [CellFormat["vertical"], string])[] = [
  ["top", "Above"],
  ["middle", "Middle"],
  ["bottom", "Below"],
]
const readings: readonly (readonly [CellFormat["reading"], string])[] = [
  ["across", "Lies"],
  ["up", "Rises"],
  ["down", "Falls"],
]
const which: readonly (readonly [LinesOf, string])[] = [
  ["all", "All"],
  ["round", "Round them"],
  ["between", "Between them"],
  ["top", "Above"],
  ["bottom", "Below"],
  ["left", "Left"],
  ["right", "Right"],
]

/** One of a few ways, of which the one that all selected cells share is shown. */
function Ways<T extends string>({
  label,
  options,
  now,
  onPick,
}: {
  label: string
  options: readonly (readonly [T, string])[]
  now: T | undefined
  onPick: (value: T) => void
}) {
  return (
    <Segments label={label}>
      {options.map(([value, words], i) => (
        <Segment key={value} first={i === 0} label={words} on={now === value} onPress={() => onPick(value)} />
      ))}
    </Segments>
  )
}

/** How the selected cells look: ground, lines, where their text stands. */
export function Cells() {
  const session = useSession()
  const [of, setOf] = useState<LinesOf>("all")
  const { shading, vertical, reading, line } = useDesk(({ editor }) => {
    const here = editor && cellsHere(editor)
    return {
      shading: here?.shading,
      vertical: here?.vertical,
      reading: here?.reading,
      line: editor ? JSON.stringify(linesHere(editor, of)) : undefined,
    }
  })
  const border = line === undefined ? undefined : (JSON.parse(line) as Border | null)
  const change = (by: Partial<Border>) => void session.run(setLines(of, { ...(border ?? defaultBorder), ...by }))
  return (
    <>
      <Text className="font-ui text-[13px] leading-5 text-ink-soft">
        For the cell with the caret, or those selected.
      </Text>
      <Ways
        label="Where the text of the cells stands"
        options={heights}
        now={vertical}
        onPick={(value) => session.run(setCells({ vertical: value }, "Height of the text"))}
      />
      <Ways
        label="Whether their lines lie, rise or fall"
        options={readings}
        now={reading}
        onPick={(value) => session.run(setCells({ reading: value }, "Lines turned"))}
      />
      <Colours
        label="Ground of the cells"
        value={shading}
        palette={tints}
        none="No ground"
        set={(colour) => setCells({ shading: colour }, "Ground of the cells")}
      />
      <View className="flex-row gap-2">
        <Choice label="Lines" value={of} options={which} onChange={setOf} />
        <Choice
          label="Line"
          value={border === undefined ? undefined : (border?.pattern ?? "none")}
          options={patterns}
          onChange={(pattern) => (pattern === "none" ? session.run(setLines(of, null)) : change({ pattern }))}
        />
      </View>
      {border ? (
        <>
          <View className="flex-row">
            <ThicknessField
              label="Thickness of the lines"
              value={border.width}
              onChange={(width) => change({ width })}
            />
          </View>
          <ColourField
            label="Colour of the lines"
            value={border.colour}
            onChange={(colour) => change({ colour: colour ?? border.colour })}
          />
        </>
      ) : null}
    </>
  )
}
