import { useState } from "react"
import { Text, View } from "react-native"
import {
  bodyStyle,
  documentAttrs,
  entryOf,
  letterProperties,
  limits,
  styleLook,
  type ParagraphFormat,
  type Style,
  type StyleSheet,
} from "@biblon/core/document"
import { changeStyle, changeStyleFormat, deleteStyle } from "@biblon/core/editing"
import { IconButton, WordButton } from "../../../ui/button"
import { Choice, Fold, SectionTitle } from "../../../ui/choice"
import { useTyped } from "../../../ui/typed"
import { CaretLeft, X } from "../../../ui/icons"
import { useDesk, useSession } from "../../context"
import { PropertyField } from "../PropertyField"
import { nameOf, type PropertyOf } from "../propertyWords"
import { Press } from "../../../ui/bar"
import { TextField } from "../../../ui/field"

const paragraphProperties = (sheet: StyleSheet) => Object.keys(sheet.defaults.paragraph) as (keyof ParagraphFormat)[]

/** What most come for. */
const usual = new Set<string>([
  "family",
  "size",
  "colour",
  "bold",
  "italic",
  "align",
  "lineSpacing",
  "spaceBefore",
  "spaceAfter",
  "indentFirst",
])

/** All that a style says, and what it could say besides. */
function Properties({ id, style, sheet }: { id: string; style: Style; sheet: StyleSheet }) {
  const session = useSession()
  const [wanted, setWanted] = useState("")
  const resolved = style.kind
    ? { letters: { ...sheet.defaults.letters, ...style.letters }, paragraph: sheet.defaults.paragraph }
    : styleLook(sheet, id)
  const subjects: PropertyOf[] = [
    ...letterProperties.map((property) => ({ of: "letters" as const, property })),
    ...(style.kind ? [] : paragraphProperties(sheet).map((property) => ({ of: "paragraph" as const, property }))),
  ]
  const says = (subject: PropertyOf) => (style[subject.of] as Record<string, unknown>)[subject.property] !== undefined
  const value = (subject: PropertyOf) => (resolved[subject.of] as unknown as Record<string, unknown>)[subject.property]
  const set = (subject: PropertyOf, next: unknown) =>
    session.run(changeStyleFormat(id, { [subject.of]: { [subject.property]: next } }))
  const besides = subjects.filter(
    (subject) => !says(subject) && nameOf(subject).toLowerCase().includes(wanted.trim().toLowerCase()),
  )
  const row = (subject: PropertyOf, own: boolean) => (
    <View key={`${subject.of} ${subject.property}`} className="flex-row items-end gap-2">
      <View className="flex-1">
        <PropertyField subject={subject} value={value(subject)} onChange={(next) => set(subject, next)} />
      </View>
      {own ? (
        <IconButton
          name={`${nameOf(subject)}: as the parent has it`}
          icon={X}
          onPress={() => set(subject, undefined)}
          className="h-11 w-9 rounded-button wide:h-9"
        />
      ) : null}
    </View>
  )
  return (
    <>
      <SectionTitle>What this style says</SectionTitle>
      <View className="gap-3">
        {subjects.filter(says).map((subject) => row(subject, true))}
        {subjects.some(says) ? null : (
          <Text className="font-ui text-[14px] text-ink-soft">Nothing of its own: it looks like its parent.</Text>
        )}
      </View>
      <SectionTitle>What it could say besides</SectionTitle>
      <TextField
        quiet
        label="Find a property"
        placeholder="Find a property"
        value={wanted}
        onChange={(event) => setWanted(event.target.value)}
        data-keeps-keys
        className="mb-2"
      />
      <View className="gap-3">
        {besides
          .filter((subject) => wanted.trim() !== "" || usual.has(subject.property))
          .map((subject) => row(subject, false))}
        {besides.length === 0 ? (
          <Text className="font-ui text-[14px] text-ink-soft">No property of that name.</Text>
        ) : null}
      </View>
      {wanted.trim() === "" ? (
        <Fold title="All other properties">
          {besides.filter((subject) => !usual.has(subject.property)).map((subject) => row(subject, false))}
        </Fold>
      ) : null}
    </>
  )
}

function StyleName({ id, name }: { id: string; name: string }) {
  const session = useSession()
  const typed = useTyped(name, (text) => {
    if (text.trim().length > limits.name)
      session.store.setState({
        trouble: `A name of a style has up to ${limits.name} characters. The old one was kept.`,
      })
    else if (!session.run(changeStyle(id, { name: text })))
      session.store.setState({
        trouble:
          text.trim() === ""
            ? "A style has a name. The old one was kept."
            : `There is a style “${text.trim()}” already. The old name was kept.`,
      })
  })
  return <TextField quiet label="Name of the style" {...typed} className="flex-1" inputClass="font-ui-bold" />
}

export function StyleEditor({ id, onDone }: { id: string; onDone: () => void }) {
  const session = useSession()
  const sheet = useDesk(({ editor }) => (editor ? documentAttrs(editor.doc).styles : null))
  const style = sheet ? entryOf(sheet.styles, id) : undefined
  if (!sheet || !style) return null
  const others = Object.entries(sheet.styles).filter(([key, other]) => key !== id && other.kind === style.kind)
  return (
    <View>
      <View className="mt-2 flex-row items-center gap-1">
        <IconButton name="Back to the styles" icon={CaretLeft} onPress={onDone} className="h-11 w-9 rounded-button" />
        <StyleName id={id} name={style.name} />
      </View>
      <View className="mt-3 flex-row gap-2">
        <Choice
          label="Starts from"
          value={style.parent ?? ""}
          options={[
            ...(id === bodyStyle || style.kind ? [["", "Nothing"] as const] : []),
            ...others.map(([key, other]) => [key, other.name] as const),
          ]}
          onChange={(parent) => {
            if (!session.run(changeStyle(id, { parent: parent === "" ? null : parent })))
              session.store.setState({
                trouble: "That style starts from this one. Choose another, so that they do not go round in a circle.",
              })
          }}
        />
        {style.kind ? null : (
          <Choice
            label="Followed by"
            value={style.next ?? ""}
            options={[["", "The same"], ...others.map(([key, other]) => [key, other.name] as const)]}
            onChange={(next) => session.run(changeStyle(id, { next: next === "" ? null : next }))}
          />
        )}
      </View>
      {style.kind ? null : (
        <View className="mt-3 flex-row gap-2">
          <Choice
            label="Level in the outline"
            value={style.outline === null ? "" : String(style.outline)}
            options={[
              ["", "None: text"],
              ...Array.from({ length: 9 }, (_, i) => [String(i + 1), `Heading of level ${i + 1}`] as const),
            ]}
            onChange={(level) => session.run(changeStyle(id, { outline: level === "" ? null : Number(level) }))}
          />
        </View>
      )}
      <Properties id={id} style={style} sheet={sheet} />
      {id === bodyStyle ? null : (
        <View className="mt-4 flex-row">
          <WordButton
            label={`Remove the style ${style.name}`}
            onPress={() => {
              onDone()
              session.run(deleteStyle(id))
            }}
          />
        </View>
      )}
      <Press onClick={onDone} className="flex min-w-0 flex-col shrink-0 mt-2 h-11 justify-center">
        <Text className="font-ui-bold text-[14px] text-murex">Done</Text>
      </Press>
    </View>
  )
}
