import { memo } from "react"
import { Text, View } from "react-native"
import {
  cellAt,
  documentAttrs,
  edgeOf,
  gridOf,
  groundOf,
  lettersOf,
  looksOfTables,
  p,
  table,
  tableLooks,
  type StyleSheet,
  type TableFormat,
} from "@biblon/core/document"
import { setTable } from "@biblon/core/editing"
import { useDesk, useSession } from "../../../context"
import { trying } from "../../../trying"
import { Press } from "../../../../ui/bar"

const [rows, columns] = [4, 3]
const box = { width: 84, height: 54, row: 13.5, column: 28 }

/** A small table in a look, drawn from what the look says. */
const Drawing = memo(function Drawing({ format, styles }: { format: TableFormat; styles: StyleSheet }) {
  const own = table(
    Array.from({ length: rows }, () => Array.from({ length: columns }, () => [p()])),
    { ...format, headRows: Math.min(1, format.headRows) },
  )
  const grid = gridOf(own)
  const cells = Array.from({ length: rows * columns }, (_, i) => cellAt(grid, Math.floor(i / columns), i % columns))
  return (
    <svg viewBox={`-1 -1 ${box.width + 2} ${box.height + 2}`} className="block w-full" aria-hidden="true">
      <rect width={box.width} height={box.height} fill="#fff" />
      {cells.map((cell) => {
        if (!cell) return null
        const [x, y] = [cell.column * box.column, cell.row * box.row]
        const letters = lettersOf(styles, own, cell)
        const ground = groundOf(styles, own, cell)
        const line = (side: "top" | "bottom" | "left" | "right") => {
          const { border } = edgeOf(styles, own, cell, side)
          if (!border) return null
          const ends = {
            top: [x, y, x + box.column, y],
            bottom: [x, y + box.row, x + box.column, y + box.row],
            left: [x, y, x, y + box.row],
            right: [x + box.column, y, x + box.column, y + box.row],
          }[side] as [number, number, number, number]
          return (
            <line
              key={side}
              x1={ends[0]}
              y1={ends[1]}
              x2={ends[2]}
              y2={ends[3]}
              stroke={border.colour}
              strokeWidth={Math.max(0.6, border.width)}
              strokeDasharray={{ dotted: "1 2", dashed: "3 2" }[border.pattern as string]}
            />
          )
        }
        return (
          <g key={`${cell.row} ${cell.column}`}>
            {ground ? <rect x={x} y={y} width={box.column} height={box.row} fill={ground} /> : null}
            <rect
              x={x + 5}
              y={y + 5}
              width={cell.column === 0 ? 16 : 12}
              height={letters?.bold ? 3.4 : 2}
              fill={letters?.colour ?? "#5e564b"}
            />
            {(["top", "bottom", "left", "right"] as const).map(line)}
          </g>
        )
      })}
    </svg>
  )
})

/** Looks of our own, drawn with what the table has switched on, in the colours of the document. */
export function Looks({ format }: { format: TableFormat }) {
  const session = useSession()
  const styles = useDesk(({ editor }) => (editor ? documentAttrs(editor.doc).styles : null))
  if (!styles) return null
  return (
    <View role="group" aria-label="Look of the table" className="flex-row flex-wrap gap-2">
      {tableLooks.map((look) => {
        const on = format.look === look
        return (
          <Press
            key={look}
            type="button"
            aria-pressed={on}
            className={`w-[31%] rounded-button border bg-raised p-1.5 text-center ${on ? "border-murex bg-murex-soft" : "border-line hover:border-murex"}`}
            {...trying(session, setTable({ look }, `Table look ${looksOfTables[look].name}`))}
          >
            <Drawing format={{ ...format, look }} styles={styles} />
            <Text className={`text-[13px] ${on ? "font-ui-bold text-murex" : "font-ui text-ink"}`}>
              {looksOfTables[look].name}
            </Text>
          </Press>
        )
      })}
    </View>
  )
}
