import { useState } from "react"
import { Text, View } from "react-native"
import {
  edgeAt,
  edgeStory,
  limits,
  numberForms,
  sectionsOf,
  type EdgeName,
  type FieldKind,
} from "@biblon/core/document"
import {
  divideEdges,
  insertFieldOf,
  numberPatterns,
  numberPlace,
  placeNumbers,
  writeNumbers,
  type NumberPlace,
} from "@biblon/core/editing"
import { WordButton } from "../../../ui/button"
import { Choice, Fold, SectionTitle, Switch } from "../../../ui/choice"
import { LengthField, NumberField } from "../../../ui/field"
import { useDesk } from "../../context"
import { SheetDrawing } from "./SheetDrawing"
import { useSetup } from "./useSetup"

const formNames: Readonly<Record<(typeof numberForms)[number], string>> = {
  decimal: "1, 2, 3",
  lowerRoman: "i, ii, iii",
  upperRoman: "I, II, III",
  lowerLetter: "a, b, c",
  upperLetter: "A, B, C",
}

const shown = (pattern: string) => pattern.replace("%1", "2").replace("%2", "9")

const fields: readonly (readonly [FieldKind, string, string])[] = [
  ["page", "", "Number"],
  ["pages", "", "Of how many"],
  ["sectionPages", "", "In this section"],
  ["heading", "1", "Heading here"],
  ["title", "", "Title"],
  ["author", "", "Author"],
  ["date", "long", "Date"],
  ["name", "", "Document’s name"],
  ["heading", "1 last", "Last heading here"],
  ["property", "organisation", "Organisation"],
]

function Numbers() {
  const { session, setup, change } = useSetup()
  const found = useDesk((s) => (s.editor ? numberPlace(s.editor) : null))
  const [pattern, setPattern] = useState<string>(numberPatterns[0])
  if (!setup) return null
  const at: NumberPlace | null = found && { edge: found.edge, part: found.part }
  const written = found?.pattern ?? pattern
  const put = (next: NumberPlace | null) => session.run(placeNumbers(next, written))
  const { form, start } = setup.numbering
  return (
    <>
      <SectionTitle>Number of the sheet: tap where it goes</SectionTitle>
      <SheetDrawing setup={setup} number={{ place: at, onPlace: (next) => void put(next) }} />
      <View className="flex-row gap-2">
        <WordButton label="Outer edges" onPress={() => void put({ edge: at?.edge ?? "foot", part: "outer" })} />
        <WordButton label="No numbers" disabled={!at} onPress={() => void put(null)} />
      </View>
      <View className="flex-row gap-2">
        <Choice
          label="Written as"
          value={written}
          options={numberPatterns.map((own) => [own as string, shown(own)] as const)}
          onChange={(next) => {
            setPattern(next)
            session.run(writeNumbers(next))
          }}
        />
        <Choice
          label="Figures"
          value={form}
          options={numberForms.map((own) => [own, formNames[own]] as const)}
          onChange={(next) =>
            change((own) => ({ ...own, numbering: { ...own.numbering, form: next } }), "Figures of the numbers")
          }
        />
      </View>
      <Switch
        label="Count anew here"
        on={start !== null}
        onChange={(on) =>
          change((own) => ({ ...own, numbering: { ...own.numbering, start: on ? 1 : null } }), "Numbers begin")
        }
      />
      {start !== null ? (
        <NumberField
          label="First number"
          value={start}
          min={limits.sheetNumber[0]}
          max={limits.sheetNumber[1]}
          step={(value, direction) => value + direction}
          onChange={(next) =>
            change((own) => ({ ...own, numbering: { ...own.numbering, start: Math.round(next) } }), "Numbers begin")
          }
        />
      ) : null}
    </>
  )
}

export function EdgesPage() {
  const { session, setup, section, change } = useSetup()
  const { edge, follows } = useDesk(({ editor }) => {
    const sections = editor ? sectionsOf(editor.doc) : []
    return {
      edge: editor ? (edgeAt(editor.doc, editor.selection.head)?.edge ?? null) : null,
      // Heads and feet that come from a section before this one.
      follows: (["head", "foot"] as const)
        .filter((own) => !sections[section]?.setup[own].all && edgeStory(sections, section, own, "all") !== null)
        .join(),
    }
  })
  if (!setup) return null
  const distance = (own: EdgeName, label: string) => (
    <LengthField
      label={label}
      value={setup[own].distance}
      min={0}
      max={setup.height / 2}
      onChange={(value) => change((now) => ({ ...now, [own]: { ...now[own], distance: value } }), label)}
    />
  )
  return (
    <View className="gap-2 pt-4">
      <View className="flex-row gap-2">
        <WordButton
          label="Write the head"
          primary={edge === null}
          onPress={() => void session.going.toEdge("head", false)}
        />
        <WordButton label="Write the foot" onPress={() => void session.going.toEdge("foot", false)} />
      </View>
      {follows !== "" ? (
        <View className="flex-row gap-2">
          {(follows.split(",") as EdgeName[]).map((own) => (
            <WordButton
              key={own}
              label={`A ${own} of this section's own`}
              onPress={() => void session.going.toEdge(own, true)}
            />
          ))}
        </View>
      ) : null}
      {edge !== null ? (
        <>
          <SectionTitle>Put in, where the caret is</SectionTitle>
          <View className="flex-row flex-wrap gap-2">
            {fields.map(([kind, format, name]) => (
              <View key={name} className="min-w-[46%] flex-1 flex-row">
                <WordButton
                  label={name}
                  onPress={() => {
                    session.run(insertFieldOf(kind, format))
                    session.focus()
                  }}
                />
              </View>
            ))}
          </View>
          <Text className="mt-1 font-ui text-[13px] leading-5 text-ink-soft">
            A tab leads to the middle, another to the right.
          </Text>
        </>
      ) : null}
      <Numbers />
      <SectionTitle>Differ</SectionTitle>
      <Switch
        label="A first sheet of its own"
        on={setup.firstOwn}
        onChange={(on) => void session.run(divideEdges("firstOwn", on))}
      />
      <Switch
        label="Left and right differ"
        on={setup.leftRight}
        onChange={(on) => void session.run(divideEdges("leftRight", on))}
      />
      <Fold title="Distance from the edge">
        <View className="flex-row gap-2">
          {distance("head", "Head")}
          {distance("foot", "Foot")}
        </View>
      </Fold>
    </View>
  )
}
