import { Text, View } from "react-native"
import { cellName, documentAttrs, formulaFormat, formulaValue, tableAt, type Formula } from "@biblon/core/document"
import { formulaHere, setFormula } from "@biblon/core/editing"
import { Choice } from "../../../../ui/choice"
import { useTyped } from "../../../../ui/typed"
import { useDesk, useSession } from "../../../context"
import { Press } from "../../../../ui/bar"
import { TextField } from "../../../../ui/field"

const forms: readonly (readonly [string, string])[] = [
  ["", "As it is"],
  ["0", "1"],
  ["1", "1.0"],
  ["2", "1.00"],
  ["3", "1.000"],
  ["%", "Percent"],
]
const ready = [
  ["sum(column)", "Sum of the column"],
  ["sum(row)", "Sum of the row"],
  ["average(column)", "Average of the column"],
  ["count(column)", "How many numbers"],
] as const

const decimalsOf = (form: string): Formula["decimals"] => (form === "" ? null : form === "%" ? "percent" : Number(form))

/** What the cell with the caret computes. */
export function FormulaField() {
  const session = useSession()
  const { expression, form, name, value } = useDesk(({ editor }) => {
    const place = editor && tableAt(editor.selection.$head)
    const here = editor && formulaHere(editor)
    if (!place) return { expression: "", form: "", name: "", value: "" }
    const { language } = documentAttrs(editor.doc).styles.defaults.letters
    const format = here ? formulaFormat(here) : ""
    return {
      expression: here?.expression ?? "",
      form: here?.decimals === "percent" ? "%" : String(here?.decimals ?? ""),
      name: cellName(place.cell),
      value: here ? formulaValue(place.table, place.cell, format, language) : "",
    }
  })
  const put = (own: string, decimals = decimalsOf(form)) => void session.run(setFormula({ expression: own, decimals }))
  const typed = useTyped(expression, put)
  return (
    <>
      <TextField
        label={`In ${name}`}
        {...typed}
        named="Formula of the cell"
        placeholder="sum(column), B2 * 1.2, max(B2:B9)"
        autoCapitalize="off"
        autoComplete="off"
        spellCheck={false}
      />
      {expression ? (
        <View className="flex-row items-end gap-2">
          <Choice
            label="Written"
            value={form}
            options={forms}
            onChange={(next) => session.run(setFormula({ expression, decimals: decimalsOf(next) }))}
          />
          <Text className="flex-1 pb-2 text-right font-ui-bold text-[15px] text-ink">{value}</Text>
        </View>
      ) : null}
      <View className="flex-row flex-wrap gap-2">
        {ready.map(([own, label]) => (
          <Press
            key={own}
            onClick={() => {
              put(own)
              session.focus()
            }}
            className="flex min-w-0 flex-col h-11 min-w-[46%] flex-1 justify-center rounded-button border border-line bg-raised px-3 hover:bg-murex-soft/50 wide:h-9"
          >
            <Text numberOfLines={1} className="font-ui text-[14px] text-ink">
              {label}
            </Text>
          </Press>
        ))}
      </View>
      <Text className="font-ui text-[13px] leading-5 text-ink-soft">
        Cells are called by column and row: B2 is the second in the second row. Values are always up to date.
      </Text>
    </>
  )
}
