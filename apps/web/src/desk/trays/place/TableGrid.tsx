import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react"
import { Text, View } from "react-native"
import { insertTable, tableFromText } from "@biblon/core/editing"
import { WordButton } from "../../../ui/button"
import { Fold, SectionTitle } from "../../../ui/choice"
import { NumberField } from "../../../ui/field"
import { useDesk, useSession } from "../../context"

const most = { rows: 8, columns: 8 }
const begin = { rows: 3, columns: 3 }

/** Rows and columns are swept: from the corner to where the finger or the pointer is. */
function Sweep() {
  const session = useSession()
  const [size, setSize] = useState<{ rows: number; columns: number } | null>(null)
  const field = useRef<HTMLDivElement>(null)
  const pressed = useRef(false)
  const shown = size ?? begin
  const at = (event: PointerEvent) => {
    const box = field.current?.getBoundingClientRect()
    if (!box) return begin
    const part = (from: number, length: number, count: number) =>
      Math.max(1, Math.min(count, Math.ceil((from / length) * count)))
    return {
      columns: part(event.clientX - box.left, box.width, most.columns),
      rows: part(event.clientY - box.top, box.height, most.rows),
    }
  }
  const put = ({ rows, columns }: typeof begin) => {
    setSize(null)
    session.run(insertTable(rows, columns))
    session.focus()
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowRight: [0, 1], ArrowLeft: [0, -1], ArrowDown: [1, 0], ArrowUp: [-1, 0] }[event.key]
    if (by) {
      event.preventDefault()
      setSize({
        rows: Math.max(1, Math.min(most.rows, shown.rows + (by[0] ?? 0))),
        columns: Math.max(1, Math.min(most.columns, shown.columns + (by[1] ?? 0))),
      })
    } else if (event.key === "Enter" || event.key === " ") {
      event.preventDefault()
      put(shown)
    } else if (event.key === "Escape") setSize(null)
  }
  return (
    <View className="gap-1.5">
      <div
        ref={field}
        role="button"
        tabIndex={0}
        aria-label={`Table of ${shown.rows} rows and ${shown.columns} columns`}
        aria-description="Arrow keys change the size, Enter puts the table in"
        className="grid cursor-crosshair touch-none gap-[3px] rounded-button border border-line bg-raised p-2"
        style={{ gridTemplateColumns: `repeat(${most.columns}, 1fr)` }}
        onPointerDown={(event) => {
          event.preventDefault()
          event.currentTarget.setPointerCapture(event.pointerId)
          pressed.current = true
          setSize(at(event))
        }}
        onPointerMove={(event) => (pressed.current || event.pointerType === "mouse") && setSize(at(event))}
        onPointerUp={(event) => {
          if (pressed.current) put(at(event))
          pressed.current = false
        }}
        onPointerCancel={() => {
          pressed.current = false
          setSize(null)
        }}
        onPointerLeave={() => !pressed.current && setSize(null)}
        onKeyDown={onKeyDown}
      >
        {Array.from({ length: most.rows * most.columns }, (_, i) => {
          const [row, column] = [Math.floor(i / most.columns), i % most.columns]
          const on = row < shown.rows && column < shown.columns
          return (
            <span
              key={i}
              className={`h-[18px] rounded-[3px] wide:h-4 ${on ? (size ? "bg-murex" : "bg-murex-soft") : "bg-desk"}`}
            />
          )
        })}
      </div>
      <Text aria-live="polite" className="text-center font-ui text-[14px] text-ink">
        {size ? `${shown.rows} × ${shown.columns}` : "Sweep over as many rows and columns as you need"}
      </Text>
    </View>
  )
}

function ByNumbers() {
  const session = useSession()
  const [size, setSize] = useState({ rows: 10, columns: 4 })
  const step = (value: number, direction: -1 | 1) => value + direction
  return (
    <Fold title="By numbers, or of text">
      <View className="flex-row gap-2">
        {(["rows", "columns"] as const).map((what) => (
          <View key={what} className="flex-1 gap-1">
            <Text className="font-ui text-[13px] text-ink-soft">{what === "rows" ? "Rows" : "Columns"}</Text>
            <View className="flex-row">
              <NumberField
                label={what === "rows" ? "Rows of the table" : "Columns of the table"}
                value={size[what]}
                min={1}
                max={what === "rows" ? 500 : 63}
                step={step}
                onChange={(next) => setSize((now) => ({ ...now, [what]: Math.round(next) }))}
              />
            </View>
          </View>
        ))}
      </View>
      <View className="flex-row">
        <WordButton
          label="Put the table in"
          onPress={() => {
            session.run(insertTable(size.rows, size.columns))
            session.focus()
          }}
        />
      </View>
      <FromText />
    </Fold>
  )
}

/** Lines of the selected text as rows. */
function FromText() {
  const session = useSession()
  const applies = useDesk(({ editor }) => editor !== null && !editor.selection.empty && tableFromText()(editor))
  return (
    <>
      <Text className="font-ui text-[13px] leading-5 text-ink-soft">
        {applies ? "Divide the selected lines at:" : "Select lines of text, and a table can be made of them."}
      </Text>
      <View className="flex-row gap-2">
        {(["tabs", "commas", "semicolons", "paragraphs"] as const).map((divider) => (
          <WordButton
            key={divider}
            label={{ tabs: "Tabs", commas: "Commas", semicolons: "; signs", paragraphs: "Lines" }[divider]}
            disabled={!applies}
            onPress={() => {
              session.run(tableFromText(divider))
              session.focus()
            }}
          />
        ))}
      </View>
    </>
  )
}

export function TableGrid() {
  return (
    <>
      <SectionTitle>Table</SectionTitle>
      <Sweep />
      <ByNumbers />
    </>
  )
}
