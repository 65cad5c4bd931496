import { useState } from "react"
import { Pressable, Text, View } from "react-native"
import { bodyStyle, documentAttrs, letterProperties, styleLook, type ParagraphFormat, type Style, type StyleSheet } from "@biblon/core/document"
import { changeStyle, changeStyleFormat, deleteStyle } from "@biblon/core/editing"
import { Choice, Fold, IconButton, SectionTitle, WordButton } from "../../../ui/pieces"
import { CaretLeft, X } from "../../../ui/icons"
import { useDesk, useSession } from "../../context"
import { PropertyField } from "../PropertyField"
import { nameOf, type PropertyOf } from "../propertyWords"

const paragraphProperties = (sheet: StyleSheet) => Object.keys(sheet.defaults.paragraph) as (keyof ParagraphFormat)[]

/** All that a style says, and what it could say besides. */
function Properties({ id, style, sheet }: { id: string; style: Style; sheet: StyleSheet }) {
  const session = useSession()
  const resolved = style.kind ? { letters: { ...sheet.defaults.letters, ...style.letters }, paragraph: sheet.defaults.paragraph } : styleLook(sheet, id)
  const subjects: PropertyOf[] = [
    ...letterProperties.map((property) => ({ of: "letters" as const, property })),
    ...(style.kind ? [] : paragraphProperties(sheet).map((property) => ({ of: "paragraph" as const, property }))),
  ]
  const says = (subject: PropertyOf) => (style[subject.of] as Record<string, unknown>)[subject.property] !== undefined
  const value = (subject: PropertyOf) => (resolved[subject.of] as unknown as Record<string, unknown>)[subject.property]
  const set = (subject: PropertyOf, next: unknown) => session.run(changeStyleFormat(id, { [subject.of]: { [subject.property]: next } }))
  const row = (subject: PropertyOf, own: boolean) => (
    <View key={`${subject.of} ${subject.property}`} className="flex-row items-end gap-2">
      <View className="flex-1">
        <PropertyField subject={subject} value={value(subject)} onChange={(next) => set(subject, next)} />
      </View>
      {own ? <IconButton name={`${nameOf(subject)}: as the parent has it`} icon={X} onPress={() => set(subject, undefined)} className="h-11 w-9 rounded-button wide:h-9" /> : null}
    </View>
  )
  return (
    <>
      <SectionTitle>What this style says</SectionTitle>
      <View className="gap-3">
        {subjects.filter(says).map((subject) => row(subject, true))}
        {subjects.some(says) ? null : <Text className="font-ui text-[14px] text-ink-soft">Nothing of its own: it looks like its parent.</Text>}
      </View>
      <Fold title="What it could say besides">{subjects.filter((subject) => !says(subject)).map((subject) => row(subject, false))}</Fold>
    </>
  )
}

export function StyleEditor({ id, onDone }: { id: string; onDone: () => void }) {
  const session = useSession()
  const sheet = useDesk(({ editor }) => (editor ? documentAttrs(editor.doc).styles : null))
  const [name, setName] = useState<string | null>(null)
  const style = sheet?.styles[id]
  if (!sheet || !style) return null
  const others = Object.entries(sheet.styles).filter(([key, other]) => key !== id && other.kind === style.kind)
  const rename = () => {
    if (name !== null && name.trim() !== style.name) session.run(changeStyle(id, { name: name.trim() }))
    setName(null)
  }
  return (
    <View>
      <View className="mt-2 flex-row items-center gap-1">
        <IconButton name="Back to the styles" icon={CaretLeft} onPress={onDone} className="h-11 w-9 rounded-button" />
        <input aria-label="Name of the style" value={name ?? style.name} maxLength={80} onChange={(event) => setName(event.target.value)} onBlur={rename} className="h-11 min-w-0 flex-1 rounded-button border border-line bg-raised px-2 font-ui-bold text-[16px] text-ink" />
      </View>
      <View className="mt-3 flex-row gap-2">
        <Choice
          label="Starts from"
          value={style.parent ?? ""}
          options={[...(id === bodyStyle || style.kind ? [["", "Nothing"] as const] : []), ...others.map(([key, other]) => [key, other.name] as const)]}
          onChange={(parent) => {
            if (!session.run(changeStyle(id, { parent: parent === "" ? null : parent }))) session.store.setState({ trouble: "That style starts from this one. Choose another, so that they do not go round in a circle." })
          }}
        />
        {style.kind ? null : <Choice label="Followed by" value={style.next ?? ""} options={[["", "The same"], ...others.map(([key, other]) => [key, other.name] as const)]} onChange={(next) => session.run(changeStyle(id, { next: next === "" ? null : next }))} />}
      </View>
      {style.kind ? null : (
        <View className="mt-3 flex-row gap-2">
          <Choice
            label="Level in the outline"
            value={style.outline === null ? "" : String(style.outline)}
            options={[["", "None: text"], ...Array.from({ length: 9 }, (_, i) => [String(i + 1), `Heading of level ${i + 1}`] as const)]}
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
      <Pressable accessibilityRole="button" onPress={onDone} className="mt-2 h-11 justify-center">
        <Text className="font-ui-bold text-[14px] text-murex">Done</Text>
      </Pressable>
    </View>
  )
}
