import { Pressable, Text, View } from "react-native"
import {
  documentAttrs,
  limits,
  listNamed,
  readyLists,
  type ListDefinition,
  type ListLevel,
} from "@biblon/core/document"
import {
  continueList,
  defineLevel,
  labelValue,
  listValue,
  numberValue,
  restartList,
  toggleList,
} from "@biblon/core/editing"
import { faceOf } from "@biblon/core/layout/catalogue"
import { ToolButton } from "../../../commands/ToolButton"
import { Choice, Fold, LengthField, NumberField, SectionTitle, Segments, Switch, WordButton } from "../../../ui/pieces"
import { useTyped } from "../../../ui/typed"
import { useDesk, useSession } from "../../context"
import { trying } from "../../trying"

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
    <button
      type="button"
      aria-label={definition.name}
      aria-pressed={on}
      title={definition.name}
      {...trying(session, toggleList(id))}
      className={`flex h-11 cursor-pointer items-center gap-4 rounded-button border px-3 text-[15px] ${on ? "border-murex bg-murex-soft text-murex" : "border-line bg-raised text-ink hover:bg-murex-soft/50"}`}
      style={{ fontFamily: sampleFaces }}
    >
      {sampleOf(definition).map((sample, depth) => (
        <span key={depth}>{sample}</span>
      ))}
    </button>
  )
}

const kinds = [
  ["mark", "Mark"],
  ["number", "Number"],
  ["check", "Box to tick"],
] as const
const numberings = [
  ["decimal", "1, 2, 3"],
  ["zero", "01, 02, 03"],
  ["lowerLetter", "a, b, c"],
  ["upperLetter", "A, B, C"],
  ["lowerRoman", "i, ii, iii"],
  ["upperRoman", "I, II, III"],
] as const
const aligns = [
  ["left", "Left"],
  ["center", "Centre"],
  ["right", "Right"],
] as const
const follows = [
  ["tab", "At the indent"],
  ["space", "A space"],
  ["none", "Nothing"],
] as const

/** One level of the list with the caret. */
function LevelEditor({ level, depth }: { level: ListLevel; depth: number }) {
  const session = useSession()
  const change = (by: Partial<ListLevel>) => session.run(defineLevel(depth, by))
  const pattern = useTyped(level.format, (format) => {
    if (format.length > limits.mark)
      session.store.setState({
        trouble: `What stands before an item has up to ${limits.mark} characters. The old pattern was kept.`,
      })
    else change({ format })
  })
  return (
    <View className="gap-3">
      <View className="flex-row gap-2">
        <Choice
          label="Kind"
          value={level.kind}
          options={kinds}
          onChange={(kind) =>
            change({ kind, format: kind === "mark" ? "•" : kind === "number" ? `%${depth + 1}.` : "" })
          }
        />
        {level.kind === "number" ? (
          <Choice
            label="Numbers"
            value={level.numbering}
            options={numberings}
            onChange={(numbering) => change({ numbering })}
          />
        ) : null}
      </View>
      {level.kind === "check" ? null : (
        <label className="flex flex-col gap-1 font-ui text-[13px] text-ink-soft">
          {level.kind === "mark" ? "Mark" : "Pattern: %1 to %9 stand for the numbers of those levels"}
          <input
            aria-label="Pattern of the level"
            {...pattern}
            className="h-11 rounded-button border border-line bg-raised px-2 font-ui text-[15px] text-ink wide:h-9"
          />
        </label>
      )}
      <View className="flex-row gap-2">
        <LengthField label="Text at" value={level.indent} min={0} max={600} onChange={(indent) => change({ indent })} />
        <LengthField
          label="Mark before it"
          value={level.hanging}
          min={0}
          max={400}
          onChange={(hanging) => change({ hanging })}
        />
      </View>
      <View className="flex-row gap-2">
        <Choice label="Mark stands" value={level.align} options={aligns} onChange={(align) => change({ align })} />
        <Choice
          label="Between mark and text"
          value={level.follow}
          options={follows}
          onChange={(follow) => change({ follow })}
        />
      </View>
      {level.kind === "number" ? (
        <>
          <View className="flex-row items-end gap-2">
            <View className="flex-1 gap-1">
              <Text className="font-ui text-[13px] text-ink-soft">Begins with</Text>
              <NumberField
                label="First number of the level"
                value={level.start}
                min={0}
                max={100000}
                step={(n, d) => n + d}
                onChange={(start) => change({ start: Math.round(start) })}
              />
            </View>
            <Choice
              label="Starts anew"
              value={level.restart === null ? "never" : String(level.restart)}
              options={[
                ["0", "below any level"],
                ...Array.from({ length: depth }, (_, i) => [String(i + 1), `below level ${i + 1}`] as const),
                ["never", "never"],
              ]}
              onChange={(value) => change({ restart: value === "never" ? null : Number(value) })}
            />
          </View>
          <Switch label="Other levels in it as 1, 2, 3" on={level.legal} onChange={(legal) => change({ legal })} />
        </>
      ) : null}
      <Switch
        label="Bold mark"
        on={level.letters.bold === true}
        onChange={(bold) => change({ letters: { ...level.letters, bold } })}
      />
    </View>
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
        <Pressable
          accessibilityRole="button"
          onPress={() => session.openTray("structure", "outline")}
          className="mt-3 min-h-[44px] justify-center"
        >
          <Text className="font-ui text-[13px] leading-5 text-ink-soft">
            “1. ”, “- ” or “[] ” at the start of a paragraph make a list while you type. Headings get their numbers in
            Structure.
          </Text>
        </Pressable>
      )}
    </View>
  )
}
