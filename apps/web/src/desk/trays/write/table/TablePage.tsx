import { Text, View } from "react-native"
import { limits, type TableFormat } from "@biblon/core/document"
import {
  evenColumns,
  rowHeightHere,
  selectedRect,
  setColumns,
  setRowHeight,
  setTable,
  tableHere,
} from "@biblon/core/editing"
import { WordButton } from "../../../../ui/button"
import { Fold, SectionTitle, Segment, Segments, Switch } from "../../../../ui/choice"
import { LengthField, NumberField } from "../../../../ui/field"
import { useDesk, useSession } from "../../../context"
import { ReaderWords } from "../../ReaderWords"
import { Tools } from "../../Tools"
import { Cells } from "./Cells"
import { FormulaField } from "./FormulaField"
import { Looks } from "./Looks"
import { Sorting } from "./Sorting"

function Sizes() {
  const session = useSession()
  const { column, wide, height } = useDesk(({ editor, view }) => {
    const rect = editor && selectedRect(editor)
    const widths = view.table ? session.tabling.widths() : []
    return {
      column: rect?.left ?? 0,
      wide: rect && rect.right - rect.left === 1 ? widths[rect.left] : undefined,
      height: editor ? rowHeightHere(editor) : undefined,
    }
  })
  const widths = () => session.tabling.widths()
  return (
    <>
      <View className="flex-row gap-2">
        <LengthField
          label="Width of the column"
          value={wide === undefined ? undefined : Math.round(wide * 100) / 100}
          min={limits.table.column[0]}
          max={2000}
          onChange={(width) => {
            const rect = session.now && selectedRect(session.now)
            if (rect)
              session.run(
                setColumns(
                  rect.pos,
                  widths().map((own, i) => (i >= rect.left && i < rect.right ? width : own)),
                ),
              )
          }}
        />
        <LengthField
          label="Row at least"
          value={height}
          min={0}
          max={limits.table.height[1]}
          onChange={(next) => session.run(setRowHeight(next))}
        />
      </View>
      <View className="flex-row flex-wrap gap-2" key={column}>
        <WordButton narrow label="Even out" onPress={() => session.run(evenColumns(widths()))} />
        <WordButton narrow label="Fit to the text" onPress={() => void session.tabling.fitToText()} />
        <WordButton
          narrow
          label="Whole width"
          onPress={() => session.run(setTable({ columns: null }, "Whole width"))}
        />
      </View>
    </>
  )
}

const places: readonly (readonly [TableFormat["align"], string])[] = [
  ["left", "Left"],
  ["center", "Middle"],
  ["right", "Right"],
]

function Whole({ format }: { format: TableFormat }) {
  const session = useSession()
  const set = (change: Partial<TableFormat>) => void session.run(setTable(change))
  const { padding } = format
  return (
    <Fold title="Where it stands, over sheets, for readers">
      <Segments label="Where the table stands">
        {places.map(([align, label], i) => (
          <Segment
            key={align}
            first={i === 0}
            label={label}
            on={format.align === align}
            onPress={() => set({ align })}
          />
        ))}
      </Segments>
      <View className="flex-row gap-2">
        <LengthField
          label="In from there"
          value={format.indent}
          min={0}
          max={1000}
          onChange={(indent) => set({ indent })}
        />
      </View>
      <View className="flex-row gap-2">
        <LengthField
          label="Beside the text"
          inPoints
          value={padding.across}
          min={0}
          max={limits.table.padding[1]}
          onChange={(across) => set({ padding: { ...padding, across } })}
        />
        <LengthField
          label="Above and below"
          inPoints
          value={padding.down}
          min={0}
          max={limits.table.padding[1]}
          onChange={(down) => set({ padding: { ...padding, down } })}
        />
      </View>
      <Switch
        label="A row may be divided between two sheets"
        on={format.divides}
        onChange={(divides) => set({ divides })}
      />
      <ReaderWords
        label="What the table tells, for who cannot see it"
        value={format.alt}
        onChange={(alt) => void session.run(setTable({ alt }, "Words for the table"))}
      />
    </Fold>
  )
}

/** What can be done with the table at the caret. */
export function TablePage() {
  const session = useSession()
  const format = useDesk(({ editor }) => (editor ? tableHere(editor) : null))
  if (!format) return null
  const set = (change: Partial<TableFormat>) => void session.run(setTable(change))
  return (
    <View>
      <SectionTitle>Rows and columns</SectionTitle>
      <Tools
        columns
        tools={[
          ["row-above", "Row above"],
          ["row-below", "Row below"],
          ["column-before", "Column before"],
          ["column-behind", "Column after"],
          ["rows-away", "Row away"],
          ["columns-away", "Column away"],
          ["join-cells", "Join cells"],
          ["divide-cell", "Divide cell"],
        ]}
      />
      <SectionTitle>Look</SectionTitle>
      <Looks format={format} />
      <View className="mt-2">
        <View className="flex-row items-center gap-3">
          <Text className="flex-1 font-ui text-[14px] text-ink">Head rows, again on each sheet</Text>
          <View className="w-36 flex-row">
            <NumberField
              label="Head rows"
              value={format.headRows}
              min={limits.table.headRows[0]}
              max={limits.table.headRows[1]}
              step={(value, direction) => value + direction}
              onChange={(headRows) => set({ headRows: Math.round(headRows) })}
            />
          </View>
        </View>
        <Switch label="Total row" on={format.totalRow} onChange={(totalRow) => set({ totalRow })} />
        <Switch label="Bands" on={format.bands} onChange={(bands) => set({ bands })} />
        <Switch label="First column" on={format.firstColumn} onChange={(firstColumn) => set({ firstColumn })} />
        <Switch label="Last column" on={format.lastColumn} onChange={(lastColumn) => set({ lastColumn })} />
      </View>
      <SectionTitle>Sizes</SectionTitle>
      <View className="gap-2">
        <Sizes />
      </View>
      <Fold title="Sort">
        <Sorting />
      </Fold>
      <Fold title="Formula">
        <FormulaField />
      </Fold>
      <Fold title="Ground, lines and place of the text">
        <Cells />
      </Fold>
      <Whole format={format} />
      <Fold title="Select, make text, take away">
        <Tools
          columns
          tools={[
            ["select-cell", "This cell"],
            ["select-row", "This row"],
            ["select-column", "This column"],
            ["select-table", "The table"],
            ["text-from-table", "Make it text"],
            ["table-away", "Table away"],
          ]}
        />
      </Fold>
    </View>
  )
}
