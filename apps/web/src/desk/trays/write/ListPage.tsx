import { Text, View } from "react-native"
import { documentAttrs, listNamed, readyLists, type ListDefinition, type ListLevel } from "@biblon/core/document"
import { continueList, labelValue, listValue, numberValue, restartList, toggleList } from "@biblon/core/editing"
import { faceOf } from "@biblon/core/layout/catalogue"
import { ToolButton } from "../../../commands/ToolButton"
import { WordButton } from "../../../ui/button"
import { Fold, SectionTitle, Segments } from "../../../ui/choice"
import { NumberField } from "../../../ui/field"
import { useDesk, useSession } from "../../context"
import { trying } from "../../trying"
import { LevelEditor } from "./LevelEditor"
import { Press } from "../../../ui/bar"

const sampleFaces = `${faceOf("Literata", false, false)}, NotoSansSymbols2-regular, NotoSansMath-regular, NotoSans-regular`

/** What stands before the items of the first levels. */
function sampleOf(definition: ListDefinition): string[] {
  return definition.levels
    .slice(0, 3)
    .map((level, depth) =>
      level.kind === "check"
        ? depth === 1
          ? "☑"
          : "☐"
        : level.kind === "mark"
          ? level.format
          : firstNumber(definition, depth),
    )
}

const firsts: Record<ListLevel["numbering"], string> = {
  decimal: "1",
  zero: "01",
  lowerLetter: "a",
  upperLetter: "A",
  lowerRoman: "i",
  upperRoman: "I",
}

function firstNumber({ levels }: ListDefinition, depth: number): string {
  return (levels[depth]?.format ?? "").replace(
    /%([1-9])/g,
    (_, digit: string) => firsts[levels[Number(digit) - 1]?.numbering ?? "decimal"],
  )
}

const shown = [
  "marks",
  "squares",
  "pointers",
  "dashes",
  "numbers",
  "brackets",
  "enclosed",
  "letters",
  "points",
  "smallRomans",
  "capitals",
  "romans",
  "clauses",
  "tasks",
]

function Definition({ id, definition, on }: { id: string; definition: ListDefinition; on: boolean }) {
  const session = useSession()
  return (
    <Press
      aria-label={definition.name}
      aria-pressed={on}
      title={definition.name}
      {...trying(session, toggleList(id))}
      className={`flex h-11 items-center gap-4 rounded-button border px-3 text-[15px] ${on ? "border-murex bg-murex-soft text-murex" : "border-line bg-raised text-ink hover:bg-murex-soft/50"}`}
      style={{ fontFamily: sampleFaces }}
    >
      {sampleOf(definition).map((sample, depth) => (
        <span key={depth}>{sample}</span>
      ))}
    </Press>
  )
}

export function ListPage() {
  const session = useSession()
  const { place, label, number, own, definition } = useDesk(({ editor }) => {
    const place = editor ? listValue(editor) : null
    const styles = editor ? documentAttrs(editor.doc).styles : null
    return {
      place,
      label: editor ? labelValue(editor) : null,
      number: editor && place ? (numberValue(editor) ?? undefined) : undefined,
      own: styles?.lists ?? null,
      definition: place && styles ? listNamed(styles, place.definition) : null,
    }
  })
  const level = place ? definition?.levels[place.level] : undefined
  const all = [
    ...shown.flatMap((id) => (readyLists[id] ? [[id, readyLists[id]] as const] : [])),
    ...Object.entries(own ?? {}),
  ]
  return (
    <View>
      <SectionTitle>{place ? `List${label ? `: ${label}` : ""}` : "Make a list"}</SectionTitle>
      <div role="group" aria-label="Lists" className="grid grid-cols-2 gap-2">
        {all.map(([id, entry]) => (
          <Definition key={id} id={id} definition={entry} on={place?.definition === id} />
        ))}
      </div>
      <View className="mt-3">
        <Segments label="Level">
          {["level-up", "level-deeper", "tick", "leave-list"].map((id, i) => (
            <ToolButton key={id} id={id} className={`h-11 flex-1 wide:h-9 ${i === 0 ? "" : "border-l border-line"}`} />
          ))}
        </Segments>
      </View>
      {place && level?.kind === "number" ? (
        <>
          <SectionTitle>Numbers</SectionTitle>
          <View className="flex-row gap-2">
            <WordButton label="Start anew" onPress={() => session.run(restartList(level.start))} />
            <WordButton label="Go on" onPress={() => session.run(continueList)} />
          </View>
          <View className="mt-2 flex-row items-end gap-2">
            <View className="flex-1 gap-1">
              <Text className="font-ui text-[13px] text-ink-soft">This item is number</Text>
              <NumberField
                label="Number of this item"
                value={number}
                min={0}
                max={100000}
                step={(n, d) => n + d}
                onChange={(n) => session.run(restartList(Math.round(n)))}
              />
            </View>
          </View>
        </>
      ) : null}
      {place && level ? (
        <Fold title={`Level ${place.level + 1} of this list`}>
          <LevelEditor level={level} depth={place.level} />
        </Fold>
      ) : (
        <Press
          onClick={() => session.opening.tray("structure", "outline")}
          className="flex min-w-0 flex-col shrink-0 mt-3 min-h-[44px] justify-center"
        >
          <Text className="font-ui text-[13px] leading-5 text-ink-soft">
            “1. ”, “- ” or “[] ” at the start of a paragraph make a list while you type. Headings get their numbers in
            Structure.
          </Text>
        </Press>
      )}
    </View>
  )
}
