import { Text, View } from "react-native"
import {
  dateFormats,
  documentAttrs,
  enclosureFormat,
  enclosureOf,
  formatDate,
  formulaOf,
  leavesOf,
  nodeAt,
  referenceOf,
  type FieldAttrs,
  type Properties,
  type ReferencePart,
} from "@biblon/core/document"
import { changeField, changeProperties, fieldAt, fieldToText, isOfSheet, removeBreak } from "@biblon/core/editing"
import { Choice } from "../../ui/choice"
import { useTyped } from "../../ui/typed"
import { useDesk, useSession } from "../context"
import type { Pressed } from "../store"
import { trying } from "../trying"
import { Act } from "../../ui/button"
import { CitationOptions } from "../trays/place/sources/CitationOptions"
import { CommentCard } from "./CommentCard"
import { RemarkCard } from "./RemarkCard"
import { WordCard } from "./WordCard"
import { FloatingCard } from "./FloatingCard"
import { Press } from "../../ui/bar"
import { TextField } from "../../ui/field"

const width = 300

const sheetKinds = [
  ["page", "Number of the sheet"],
  ["pages", "How many sheets there are"],
  ["sectionPages", "How many in this section"],
  ["heading", "Heading on the sheet"],
] as const

const propertyNames: Readonly<Record<keyof Properties, string>> = {
  title: "Title",
  subtitle: "Subtitle",
  author: "Author",
  organisation: "Organisation",
  date: "Date",
}

/** A property of the document, to be written wherever it is shown. */
export function PropertyEntry({ property }: { property: keyof Properties }) {
  const session = useSession()
  const value = useDesk(({ editor }) => (editor ? documentAttrs(editor.doc).properties[property] : ""))
  const typed = useTyped(value, (text) => void session.run(changeProperties({ [property]: text.trim() })))
  return <TextField label={propertyNames[property]} {...typed} />
}

const parts: readonly (readonly [ReferencePart, string])[] = [
  ["number", "Its number"],
  ["words", "Its words"],
  ["sheet", "Its sheet"],
]

/** An enclosed file: had back, and called otherwise. */
function EnclosureOptions({ pos, format }: { pos: number; format: string }) {
  const session = useSession()
  const own = enclosureOf(format)
  const typed = useTyped(own?.name ?? "", (name) => {
    if (own && name.trim()) session.run(changeField(pos, { format: enclosureFormat({ ...own, name }) }))
  })
  if (!own) return null
  return (
    <>
      <TextField label="Called" {...typed} />
      <View className="flex-row">
        <Act primary label="Save the file" onPress={() => void session.enclosing.save(own)} />
      </View>
    </>
  )
}

function FieldOptions({ pos, kind, format }: FieldAttrs & { pos: number }) {
  const session = useSession()
  const language = useDesk((s) => (s.editor ? documentAttrs(s.editor.doc).styles.defaults.letters.language : "en-GB"))
  const change = (next: Partial<FieldAttrs>) => void session.run(changeField(pos, next))
  if (kind === "date")
    return (
      <Choice
        label="Written as"
        value={format}
        options={Object.keys(dateFormats).map((own) => [own, formatDate(new Date(), own, language)] as const)}
        onChange={(next) => change({ format: next })}
      />
    )
  if (kind === "title" || kind === "author") return <PropertyEntry property={kind} />
  if (kind === "property" && Object.hasOwn(propertyNames, format))
    return <PropertyEntry property={format as keyof Properties} />
  if (kind === "formula")
    return (
      <Text className="font-ui text-[14px] text-ink">{`Computes ${formulaOf(format).expression}. The Table page of the Write tray changes it.`}</Text>
    )
  if (kind === "caption")
    return (
      <Text className="font-ui text-[14px] text-ink">{`Counts each ${format.toLowerCase()} in the order of the text.`}</Text>
    )
  if (kind === "reference") {
    const { part, place } = referenceOf(format)
    return (
      <Choice label="Shows" value={part} options={parts} onChange={(next) => change({ format: `${next} ${place}` })} />
    )
  }
  if (kind === "citation") return <CitationOptions pos={pos} format={format} />
  if (kind === "enclosure") return <EnclosureOptions pos={pos} format={format} />
  if (kind === "enclosures")
    return (
      <Choice
        label="Shows"
        value={format}
        options={[
          ["names", "Their names"],
          ["", "How many there are"],
        ]}
        onChange={(next) => change({ format: next })}
      />
    )
  if (!isOfSheet(kind))
    return <Text className="font-ui text-[14px] text-ink">What the document is called on the shelf.</Text>
  const level = String(Number.parseInt(format) || 1)
  const last = format.endsWith("last")
  return (
    <>
      <Choice
        label="Shows"
        value={kind}
        options={sheetKinds}
        onChange={(next) => change({ kind: next, format: next === "heading" ? "1" : "" })}
      />
      {kind === "heading" ? (
        <View className="flex-row gap-2">
          <Choice
            label="Level"
            value={level}
            options={[1, 2, 3, 4, 5, 6].map((n) => [String(n), String(n)] as const)}
            onChange={(next) => change({ format: last ? `${next} last` : next })}
          />
          <Choice
            label="Which one"
            value={last ? "last" : "first"}
            options={[
              ["first", "The first there"],
              ["last", "The last there"],
            ]}
            onChange={(next) => change({ format: next === "last" ? `${level} last` : level })}
          />
        </View>
      ) : null}
    </>
  )
}

function FieldCard({ pos, box }: Pressed) {
  const session = useSession()
  const field = useDesk(({ editor }) => {
    const found = editor && fieldAt(editor, pos)
    return found?.pos === pos ? found : null
  })
  if (!field) return null
  return (
    <FloatingCard label="Field" by={box} width={width}>
      <View className="gap-2 px-3 pt-2.5">
        <FieldOptions {...field} />
      </View>
      <View className="flex-row p-1">
        <Act
          label="Make it text"
          onPress={() => {
            session.run(fieldToText(pos, session.pressing.words()))
            session.pressing.end()
          }}
        />
        <Act
          label="Take away"
          onPress={() => {
            session.run(changeField(pos, null))
            session.pressing.end()
          }}
        />
      </View>
    </FloatingCard>
  )
}

function BreakCard({ pos, words, box }: Pressed) {
  const session = useSession()
  const section = useDesk(({ editor }) => editor !== null && nodeAt(editor.doc, pos)?.type.name === "sectionBreak")
  const column = words === "New column"
  return (
    <FloatingCard label={words} by={box} width={width}>
      <Text className="px-3 pt-2.5 font-ui text-[14px] leading-5 text-ink">
        {section
          ? "A section begins here, with its own paper, columns, head and foot. Taken away, its text goes on as that of the section before."
          : column
            ? "What follows begins at the top of a column."
            : "What follows begins on a new sheet."}
      </Text>
      <View className="flex-row gap-1 p-1">
        <Press
          className="h-11 flex-1 rounded-button border-0 bg-transparent px-3 text-left font-ui-bold text-[14px] text-murex hover:bg-murex-soft/50 wide:h-9"
          {...trying(session, removeBreak(pos), () => session.pressing.end())}
        >
          Take away
        </Press>
        {section ? (
          <Act
            label="Its setup"
            onPress={() => {
              if (session.now) session.going.toLeaf(leavesOf(session.now.doc).at(pos + 2))
              session.opening.tray("sheet", "columns")
            }}
          />
        ) : null}
      </View>
    </FloatingCard>
  )
}

/** Tells of what was pressed in the text, and lets it be changed. */
export function PressedCard() {
  const pressed = useDesk((s) => s.pressed)
  if (!pressed) return null
  if (pressed.kind === "word") return <WordCard {...pressed} />
  if (pressed.kind === "remark") return <RemarkCard {...pressed} />
  if (pressed.kind === "comment") return <CommentCard {...pressed} />
  return pressed.kind === "field" ? <FieldCard {...pressed} /> : <BreakCard {...pressed} />
}
