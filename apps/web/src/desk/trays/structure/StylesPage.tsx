import { useState } from "react"
import { Text, View } from "react-native"
import {
  bodyOf,
  documentAttrs,
  entryOf,
  letterStyleFormat,
  styleLook,
  type Style,
  type StyleSheet,
} from "@biblon/core/document"
import {
  setStyle,
  differsFromStyle,
  letterStyleValue,
  newStyle,
  styleValue,
  stylesInUse,
  setLetterStyle,
  updateStyle,
} from "@biblon/core/editing"
import { PencilSimpleLine } from "../../../ui/icons"
import { IconButton, WordButton } from "../../../ui/button"
import { SectionTitle, Segment, Segments } from "../../../ui/choice"
import { toolNamed } from "../../../commands/registry"
import { useDesk, useSession } from "../../context"
import { trying } from "../../trying"
import { sampleFace } from "../write/Typefaces"
import { StyleEditor } from "./StyleEditor"
import { Press } from "../../../ui/bar"
import { TextField } from "../../../ui/field"

/** Samples are shown in their own look, but no larger than this, so that the list stays a list. */
const largestSample = 22

function Sample({ id, style, sheet, on }: { id: string; style: Style; sheet: StyleSheet; on: boolean }) {
  const letters = style.kind
    ? { ...sheet.defaults.letters, ...letterStyleFormat(sheet, id) }
    : styleLook(sheet, id).letters
  return (
    <span
      className={`min-w-0 flex-1 truncate ${on ? "text-murex" : ""}`}
      style={{
        fontFamily: sampleFace(letters.family, entryOf(sheet.fonts, letters.family), letters.bold, letters.italic),
        fontSize: Math.min(largestSample, letters.size * 1.2),
        ...(letters.caps === "small"
          ? { fontVariantCaps: "small-caps" }
          : letters.caps === "all"
            ? { textTransform: "uppercase" }
            : {}),
        textDecorationLine: letters.underline === "none" ? "none" : "underline",
      }}
    >
      {style.name}
    </span>
  )
}

function Row({
  id,
  style,
  sheet,
  on,
  differs,
  onEdit,
}: {
  id: string
  style: Style
  sheet: StyleSheet
  on: boolean
  differs: boolean
  onEdit: () => void
}) {
  const session = useSession()
  const command = style.kind ? setLetterStyle(on ? null : id) : setStyle(id)
  return (
    <div
      role="listitem"
      className={`flex items-stretch border-b border-line last:border-b-0 ${on ? "bg-murex-soft" : "bg-raised"}`}
    >
      <Press
        aria-pressed={on}
        aria-label={differs ? `${style.name}, the text here looks different` : style.name}
        {...trying(session, command)}
        className="flex min-h-[48px] min-w-0 flex-1 items-center border-0 bg-transparent px-3 text-left text-ink hover:bg-murex-soft/50 wide:min-h-[40px]"
      >
        <span className={`mr-3 h-6 w-1 shrink-0 rounded-full ${on ? "bg-murex" : "bg-transparent"}`} />
        <Sample id={id} style={style} sheet={sheet} on={on} />
        {differs ? (
          <span
            title="The text here looks different from its style"
            className="ml-2 h-2 w-2 shrink-0 rounded-full bg-ochre"
          />
        ) : null}
      </Press>
      <IconButton
        name={`Edit the style ${style.name}`}
        icon={PencilSimpleLine}
        onPress={onEdit}
        className="w-11 self-stretch"
      />
    </div>
  )
}

function NewStyle() {
  const session = useSession()
  const [typed, setTyped] = useState("")
  const selected = useDesk(
    ({ editor }) =>
      editor !== null && !editor.selection.empty && editor.selection.$from.sameParent(editor.selection.$to),
  )
  const [kind, setKind] = useState<"paragraph" | "letters">("paragraph")
  return (
    <form
      className="mt-2 flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (typed.trim() === "") return
        if (session.run(newStyle(typed, selected ? kind : "paragraph"))) setTyped("")
        session.focus()
      }}
    >
      <div className="flex gap-2">
        <TextField
          quiet
          label="Name of the new style"
          placeholder="New style from this"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          className="flex-1"
        />
        <WordButton label="Make" primary submit narrow disabled={typed.trim() === ""} />
      </div>
      {selected ? (
        <Segments label="What the new style is for">
          <Segment first label="Paragraphs" on={kind === "paragraph"} onPress={() => setKind("paragraph")} />
          <Segment label="Letters" on={kind === "letters"} onPress={() => setKind("letters")} />
        </Segments>
      ) : null}
    </form>
  )
}

export function StylesPage() {
  const session = useSession()
  const editing = useDesk((s) => s.pages.structure?.split("/")[1] ?? null)
  const setEditing = (key: string | null) =>
    session.opening.tray("structure", key === null ? "styles" : `styles/${key}`)
  const [all, setAll] = useState(false)
  const { sheet, current, letters, differs, updates, body } = useDesk(({ editor }) => ({
    sheet: editor ? documentAttrs(editor.doc).styles : null,
    current: editor ? styleValue(editor) : undefined,
    letters: editor ? letterStyleValue(editor) : null,
    differs: editor !== null && differsFromStyle(editor),
    updates: editor !== null && updateStyle(editor),
    body: editor ? bodyOf(editor.doc) : null,
  }))
  const used = session.now && body ? stylesInUse(session.now.doc) : new Set<string>()
  if (!sheet) return null
  if (editing !== null && entryOf(sheet.styles, editing))
    return <StyleEditor id={editing} onDone={() => setEditing(null)} />
  // A heading that is used brings the next level with it, so that one can go on.
  const deepest = Math.max(0, ...[...used].map((key) => entryOf(sheet.styles, key)?.outline ?? 0))
  const usual = (key: string, style: Style) =>
    used.has(key) ||
    key === current ||
    (style.outline === null ? style.kind === undefined : style.outline <= Math.max(3, deepest + 1)) ||
    style.kind === "letters"
  const shown = Object.entries(sheet.styles).filter(([key, style]) => all || usual(key, style))
  const hidden = Object.keys(sheet.styles).length - shown.length
  const rows = (kind: Style["kind"]) =>
    shown
      .filter(([, style]) => style.kind === kind)
      .map(([key, style]) => {
        const on = kind ? key === letters : key === current
        return (
          <Row
            key={key}
            id={key}
            style={style}
            sheet={sheet}
            on={on}
            differs={on && !kind && differs}
            onEdit={() => setEditing(key)}
          />
        )
      })
  return (
    <View>
      {/* On a phone the styles themselves come first. */}
      <View className="order-last mt-3 wide:order-none">
        <View className="gap-2">
          <View className="flex-row">
            <WordButton
              label="Make the style look like this"
              disabled={!updates}
              onPress={() => toolNamed("update-style").run(session)}
            />
          </View>
          {updates ? null : (
            <Text className="font-ui text-[13px] leading-5 text-ink-soft">
              The text here looks as its style says. Change it by hand, then its style can follow.
            </Text>
          )}
          <View className="flex-row gap-2">
            <WordButton
              label="Back to the style"
              disabled={!differs}
              onPress={() => toolNamed("reset-style").run(session)}
            />
            <WordButton label="Trail" onPress={() => session.opening.tray("trail")} />
          </View>
        </View>
        <NewStyle />
      </View>
      <SectionTitle>Paragraphs</SectionTitle>
      <div
        role="list"
        aria-label="Styles"
        className="overflow-hidden rounded-button border border-line"
        onPointerLeave={() => session.trial.show(null)}
      >
        {rows(undefined)}
      </div>
      <SectionTitle>Letters inside a paragraph</SectionTitle>
      <div
        role="list"
        aria-label="Styles of letters"
        className="overflow-hidden rounded-button border border-line"
        onPointerLeave={() => session.trial.show(null)}
      >
        {rows("letters")}
      </div>
      {hidden > 0 || all ? (
        <Press onClick={() => setAll(!all)} className="flex min-w-0 flex-col shrink-0 h-11 justify-center">
          <Text className="font-ui-bold text-[14px] text-murex">
            {all ? "Show the usual ones" : `Show ${hidden} more`}
          </Text>
        </Press>
      ) : null}
    </View>
  )
}
