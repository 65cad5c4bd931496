import { useState } from "react"
import { Text, View } from "react-native"
import {
  directSpans,
  documentAttrs,
  paragraphAttrs,
  trailOf,
  type DirectSpan,
  type LetterFormat,
  type TrailEntry,
  type TrailSaying,
} from "@biblon/core/document"
import {
  changeStyleFormat,
  propertyNames,
  removeFormat,
  removeFormatHere,
  removeLetters,
  setLetters,
  setParagraphs,
  trailMarks,
  type Command,
} from "@biblon/core/editing"
import { PencilSimpleLine, X } from "../../ui/icons"
import { IconButton } from "../../ui/button"
import { SectionTitle } from "../../ui/choice"
import { useUnit } from "../../ui/units"
import { useDesk, useSession } from "../context"
import { PropertyField } from "./PropertyField"
import { nameOf, valueWords, type PropertyOf } from "./propertyWords"
import { Press } from "../../ui/bar"

function sourceWords({ source }: TrailSaying): string {
  switch (source.kind) {
    case "default":
      return "Every text of this document"
    case "style":
      return `Style ${source.name}`
    case "letterStyle":
      return `Style of letters ${source.name}`
    case "list":
      return `List ${source.name}, level ${source.level + 1}`
    case "link":
      return "Being a link"
    case "direct":
      return "Set by hand here"
  }
}

/** Takes what was set by hand off the letters that are selected, or off the stretch at the caret that has it; or off the paragraph. */
function removeDirect(subject: TrailEntry): Command {
  return (state, dispatch) => {
    const { $from, from, to, empty } = state.selection
    if (subject.of === "paragraph") return removeFormatHere(subject.property)(state, dispatch)
    const at = $from.parentOffset
    const span = directSpans($from.parent).find(
      (own) => own.property === subject.property && own.from <= at && own.to >= at,
    )
    const [a, b] = !empty ? [from, to] : span ? [$from.start() + span.from, $from.start() + span.to] : [from, to]
    return removeLetters(subject.property, a, b)(state, dispatch)
  }
}

/** What one source says of a property; the last of them wins. */
function Saying({ entry, saying, wins }: { entry: TrailEntry; saying: TrailSaying; wins: boolean }) {
  const session = useSession()
  const unit = useUnit((s) => s.unit)
  const [editing, setEditing] = useState(false)
  const subject: PropertyOf = entry
  const { source, value } = saying
  const words = valueWords(subject, value, unit)
  const change = (next: unknown) => {
    if (source.kind === "direct")
      session.run(
        entry.of === "letters" ? setLetters(entry.property, next as never) : setParagraphs({ [entry.property]: next }),
      )
    else if (source.kind === "style" || source.kind === "letterStyle")
      session.run(changeStyleFormat(source.key, { [entry.of]: { [entry.property]: next } }))
  }
  const remove = () => {
    if (source.kind === "direct") session.run(removeDirect(entry))
    else change(undefined)
  }
  const own = source.kind === "direct" || source.kind === "style" || source.kind === "letterStyle"
  return (
    <View className={`border-l-2 pl-2 ${wins ? "border-murex" : "border-line"}`}>
      <View className="min-h-[36px] flex-row items-center gap-1">
        <View className="flex-1">
          <Text className={`font-ui text-[13px] ${wins ? "text-ink" : "text-ink-soft line-through"}`}>{words}</Text>
          {source.kind === "style" || source.kind === "letterStyle" ? (
            <Press role="link" onClick={() => session.opening.tray("structure", `styles/${source.key}`)}>
              <Text className="font-ui text-[12px] text-ink-soft underline">{`${sourceWords(saying)}${wins ? "" : ", overruled"}`}</Text>
            </Press>
          ) : (
            <Text className="font-ui text-[12px] text-ink-soft">{`${sourceWords(saying)}${wins ? "" : ", overruled"}`}</Text>
          )}
        </View>
        {own ? (
          <IconButton
            name={`Change ${nameOf(subject).toLowerCase()} in: ${sourceWords(saying)}`}
            icon={PencilSimpleLine}
            onPress={() => setEditing(!editing)}
            className="h-9 w-9 rounded-button"
          />
        ) : null}
        {own ? (
          <IconButton
            name={`Remove ${nameOf(subject).toLowerCase()} from: ${sourceWords(saying)}`}
            icon={X}
            onPress={remove}
            className="h-9 w-9 rounded-button"
          />
        ) : null}
        {source.kind === "default" ? (
          <Press
            onClick={() => session.opening.tray("document")}
            className="flex min-w-0 flex-col shrink-0 h-9 justify-center px-1"
          >
            <Text className="font-ui text-[12px] text-murex">Document</Text>
          </Press>
        ) : null}
      </View>
      {editing ? (
        <View className="pb-2">
          <PropertyField subject={subject} value={value} onChange={change} />
        </View>
      ) : null}
    </View>
  )
}

function Entry({ entry }: { entry: TrailEntry }) {
  return (
    <View role="group" aria-label={nameOf(entry)} className="gap-1 border-b border-line py-2">
      <Text className="font-ui-bold text-[14px] text-ink">{nameOf(entry)}</Text>
      {entry.sayings.map((saying, i) => (
        <Saying key={i} entry={entry} saying={saying} wins={i === entry.sayings.length - 1} />
      ))}
    </View>
  )
}

/** A piece of direct formatting along the paragraph: where it begins and ends, even with nothing left in it. */
function Span({ span, text, start }: { span: DirectSpan; text: string; start: number }) {
  const session = useSession()
  const unit = useUnit((s) => s.unit)
  const name = propertyNames[span.property]
  const value =
    span.property === "letterStyle"
      ? String(span.value)
      : valueWords({ of: "letters", property: span.property as keyof LetterFormat }, span.value, unit)
  const inside = text.slice(span.from, span.to)
  const shown =
    span.from === span.to
      ? "nothing: waits for what is typed"
      : span.empty
        ? `only ${inside.length === 1 ? "a blank" : `${inside.length} blanks`}`
        : `“${inside.length > 32 ? `${inside.slice(0, 18)}…${inside.slice(-10)}` : inside}”`
  return (
    <View className="min-h-[44px] flex-row items-center border-b border-line">
      <Press
        aria-label={`Select ${name.toLowerCase()} ${value}, ${shown}`}
        onClick={() => session.going.toRange(start + span.from, start + span.to)}
        className="flex min-w-0 flex-col flex-1 py-1 hover:bg-murex-soft/50"
      >
        <Text className="font-ui text-[13px] text-ink">{`${name}: ${value}`}</Text>
        <Text numberOfLines={1} className={`font-ui text-[12px] ${span.empty ? "text-ochre" : "text-ink-soft"}`}>
          {`${span.from === span.to ? "on" : `${span.from + 1} to ${span.to}, on`} ${shown}`}
        </Text>
      </Press>
      <IconButton
        name={`Remove ${name.toLowerCase()} from ${shown}`}
        icon={X}
        onPress={() => session.run(removeLetters(span.property, start + span.from, start + span.to))}
        className="h-11 w-9 rounded-button wide:h-9"
      />
    </View>
  )
}

/** Where each piece lies along the text, as bars. */
function Bars({ spans, length }: { spans: readonly DirectSpan[]; length: number }) {
  if (length === 0 || spans.length === 0) return null
  return (
    <svg
      aria-hidden
      viewBox={`0 0 100 ${spans.length * 4 + 3}`}
      preserveAspectRatio="none"
      className="mb-1 block w-full"
      style={{ height: spans.length * 5 + 4 }}
    >
      <rect x="0" y="0" width="100" height="1.5" fill="rgb(var(--line))" />
      {spans.map((span, i) => (
        <rect
          key={i}
          x={(span.from / length) * 100}
          y={3 + i * 4}
          width={Math.max(0.8, ((span.to - span.from) / length) * 100)}
          height="2.4"
          fill={span.empty ? "rgb(var(--ochre))" : "rgb(var(--murex))"}
        />
      ))}
    </svg>
  )
}

export function TrailTray() {
  const session = useSession()
  const [all, setAll] = useState(false)
  const editor = useDesk((s) => s.editor)
  if (!editor) return null
  const { styles } = documentAttrs(editor.doc)
  const { $from } = editor.selection
  const paragraph = $from.parent
  const text = paragraph.textBetween(0, paragraph.content.size, undefined, "\ufffc")
  const trail = trailOf(styles, paragraph, trailMarks(editor))
  const said = trail.filter(({ sayings }) => sayings.length > 1)
  const spans = directSpans(paragraph)
  const direct = Object.keys(paragraphAttrs(paragraph).format ?? {})
  return (
    <View>
      <Text className="mt-2 font-ui text-[13px] leading-5 text-ink-soft">{`What gives ${editor.selection.empty ? "the text at the caret" : "the selected text"} its look, from the weakest to the strongest. The last one wins.`}</Text>
      <SectionTitle>Set by hand in this paragraph</SectionTitle>
      {spans.length === 0 && direct.length === 0 ? (
        <Text className="font-ui text-[14px] text-ink-soft">Nothing: all of it comes from styles.</Text>
      ) : null}
      <Bars spans={spans} length={paragraph.content.size} />
      {spans.map((span, i) => (
        <Span key={i} span={span} text={text} start={$from.start()} />
      ))}
      {direct.map((property) => (
        <View key={property} className="min-h-[44px] flex-row items-center border-b border-line">
          <Text className="flex-1 font-ui text-[13px] text-ink">{`${nameOf({ of: "paragraph", property: property as never })}, of the whole paragraph`}</Text>
          <IconButton
            name={`Remove ${nameOf({ of: "paragraph", property: property as never }).toLowerCase()} from the paragraph`}
            icon={X}
            onPress={() => session.run(removeFormat($from.before(), property as never))}
            className="h-11 w-9 rounded-button wide:h-9"
          />
        </View>
      ))}
      <SectionTitle>Property by property</SectionTitle>
      {said.length === 0 ? (
        <Text className="font-ui text-[14px] text-ink-soft">Everything is as every text of this document has it.</Text>
      ) : null}
      {(all ? trail : said).map((entry) => (
        <Entry key={`${entry.of} ${entry.property}`} entry={entry} />
      ))}
      <Press onClick={() => setAll(!all)} className="flex min-w-0 flex-col shrink-0 h-11 justify-center">
        <Text className="font-ui-bold text-[14px] text-murex">
          {all ? "Only what is said somewhere" : "Show all properties"}
        </Text>
      </Press>
    </View>
  )
}
