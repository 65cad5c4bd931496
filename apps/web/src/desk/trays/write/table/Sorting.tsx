import { useState } from "react"
import { Text, View } from "react-native"
import { cellAt, gridOf, tableFormat } from "@biblon/core/document"
import { selectedRect, sortedRows, sortRows, type SortKey } from "@biblon/core/editing"
import { WordButton } from "../../../../ui/button"
import { Choice, Segment, Segments } from "../../../../ui/choice"
import { useDesk, useSession } from "../../../context"

/** Sorts rows by what one column says, and where that is alike by another. */
export function Sorting() {
  const session = useSession()
  const [first, setFirst] = useState<number | null>(null)
  const [direction, setDirection] = useState<1 | -1>(1)
  const [second, setSecond] = useState("none")
  const { names, here, count } = useDesk(({ editor }) => {
    const rect = editor && selectedRect(editor)
    if (!rect) return { names: "", here: 0, count: 0 }
    const grid = gridOf(rect.table)
    const head = tableFormat(rect.table).headRows > 0
    const all = Array.from({ length: grid.columns }, (_, column) => {
      const words = head ? (cellAt(grid, 0, column)?.node.textContent.trim() ?? "") : ""
      return (words || `Column ${column + 1}`).slice(0, 30).replaceAll("\n", " ")
    })
    const rows = sortedRows(editor)
    return { names: all.join("\n"), here: rect.left, count: rows ? rows.to - rows.from : 0 }
  })
  const columns = names.split("\n").map((name, i) => [String(i), name] as const)
  const by = Math.min(first ?? here, columns.length - 1)
  const keys: SortKey[] = [
    { column: by, direction },
    ...(second === "none" || Number(second) >= columns.length
      ? []
      : [{ column: Number(second), direction: 1 as const }]),
  ]
  return (
    <>
      <View className="flex-row gap-2">
        <Choice label="By" value={String(by)} options={columns} onChange={(next) => setFirst(Number(next))} />
        <Choice label="Then by" value={second} options={[["none", "Nothing"], ...columns]} onChange={setSecond} />
      </View>
      <Segments label="Which way">
        <Segment first label="First to last" on={direction === 1} onPress={() => setDirection(1)} />
        <Segment label="Last to first" on={direction === -1} onPress={() => setDirection(-1)} />
      </Segments>
      <View className="flex-row">
        <WordButton
          primary
          disabled={count === 0}
          label={count > 0 ? `Sort ${count} rows` : "Sort"}
          onPress={() => {
            session.run(sortRows(keys))
            session.focus()
          }}
        />
      </View>
      <Text className="font-ui text-[13px] leading-5 text-ink-soft">
        {count > 0
          ? "Numbers and dates are known as such. Head and total row stay where they are."
          : "Rows can be sorted where no cell reaches over several of them."}
      </Text>
    </>
  )
}
