import { useEffect, useState } from "react"
import { Pressable, Text, View } from "react-native"
import { dateFormats, documentAttrs, formatDate, noteForms, type NoteSettings } from "@biblon/core/document"
import { changeNotes, insertField, insertText, markHere, noteHere, turnNote } from "@biblon/core/editing"
import { fallbackFaces } from "@biblon/core/layout/catalogue"
import { toolNamed } from "../../commands/registry"
import { Choice, Fold, Glyph, SectionTitle, Segment, Segments, WordButton } from "../../ui/pieces"
import { useDesk, useSession } from "../context"
import { findSymbols, useSymbols } from "../symbols"

const input = "h-11 w-full rounded-button border border-line bg-raised px-3 font-ui text-[15px] text-ink wide:h-9"
const faces = ["Tinos-regular", ...fallbackFaces(false)].join(", ")
/** A category shows so many at first. */
const most = 160

/** Symbols that one cannot see are shown by their place between two signs. */
function shown(char: string): string {
  return /^[\s\u00ad\u200b\u2060]$/u.test(char) ? `|${char}|` : char
}

function Grid({ items, onPick }: { items: readonly [string, string][]; onPick: (char: string) => void }) {
  const [named, setNamed] = useState("")
  return (
    <>
      <div
        role="group"
        aria-label="Symbols"
        className="grid grid-cols-[repeat(auto-fill,minmax(44px,1fr))] overflow-hidden rounded-button border border-line bg-raised"
      >
        {items.map(([char, name]) => (
          <button
            key={char}
            type="button"
            title={name}
            aria-label={name}
            onClick={() => onPick(char)}
            onMouseEnter={() => setNamed(name)}
            onFocus={() => setNamed(name)}
            onTouchStart={() => setNamed(name)}
            className="h-11 cursor-pointer border-0 bg-transparent text-[20px] text-ink hover:bg-murex-soft"
            style={{ fontFamily: faces }}
          >
            {shown(char)}
          </button>
        ))}
      </div>
      <Text className="mt-1 min-h-[18px] font-ui text-[12px] text-ink-soft">{named}</Text>
    </>
  )
}

function Symbols() {
  const session = useSession()
  const { categories, recent, load, used } = useSymbols()
  const [typed, setTyped] = useState("")
  const [category, setCategory] = useState(0)
  const [all, setAll] = useState(false)
  useEffect(() => void load(), [load])
  const pick = (char: string) => {
    session.run(insertText(char))
    session.focus()
    used(char)
  }
  if (!categories) return <Text className="font-ui text-[14px] text-ink-soft">One moment…</Text>
  const found = typed.trim() ? findSymbols(categories, typed) : null
  const items = categories[category]?.items ?? []
  const names = new Map(recent.length > 0 ? categories.flatMap((c) => c.items) : [])
  return (
    <View className="gap-2">
      <input
        aria-label="Find a symbol"
        placeholder="Name, such as arrow or alpha"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        className={input}
      />
      {found ? (
        found.length > 0 ? (
          <Grid items={found} onPick={pick} />
        ) : (
          <Text className="font-ui text-[14px] text-ink-soft">
            No symbol of that name can be shown by the typefaces here.
          </Text>
        )
      ) : (
        <>
          {recent.length > 0 ? (
            <Grid items={recent.map((char) => [char, names.get(char) ?? char])} onPick={pick} />
          ) : null}
          <select
            aria-label="Category"
            value={category}
            onChange={(event) => {
              setCategory(Number(event.target.value))
              setAll(false)
            }}
            className={input}
          >
            {categories.map(({ name }, i) => (
              <option key={name} value={i}>
                {name}
              </option>
            ))}
          </select>
          <Grid items={all ? items : items.slice(0, most)} onPick={pick} />
          {!all && items.length > most ? (
            <Pressable
              accessibilityRole="button"
              onPress={() => setAll(true)}
              className="h-11 justify-center self-start"
            >
              <Text className="font-ui-bold text-[14px] text-murex">{`Show all ${items.length}`}</Text>
            </Pressable>
          ) : null}
        </>
      )}
    </View>
  )
}

function Dates() {
  const session = useSession()
  const [kept, setKept] = useState(false)
  const language = useDesk((s) => (s.editor ? documentAttrs(s.editor.doc).styles.defaults.letters.language : "en-GB"))
  const now = new Date()
  return (
    <>
      <Segments label="How the date behaves">
        <Segment first label="Fixed" on={!kept} onPress={() => setKept(false)} />
        <Segment label="Kept up to date" on={kept} onPress={() => setKept(true)} />
      </Segments>
      <View className="mt-2 overflow-hidden rounded-button border border-line bg-raised">
        {Object.keys(dateFormats).map((format) => (
          <Pressable
            key={format}
            accessibilityRole="button"
            onPress={() => {
              session.run(kept ? insertField(format) : insertText(formatDate(now, format, language)))
              session.focus()
            }}
            className="min-h-[44px] justify-center px-3 hover:bg-murex-soft/50 wide:min-h-[34px]"
          >
            <Text className="font-ui text-[15px] text-ink">{formatDate(now, format, language)}</Text>
          </Pressable>
        ))}
      </View>
    </>
  )
}

/** Tools side by side, each with its words. */
function Tools({ tools }: { tools: readonly (readonly [id: string, label: string])[] }) {
  const session = useSession()
  const applies = useDesk(({ editor }) =>
    tools.map(([id]) => (editor ? (toolNamed(id).applies?.(editor) ?? true) : false)).join(),
  ).split(",")
  return (
    <View className="flex-row gap-2">
      {tools.map(([id, label], i) => {
        const off = applies[i] === "false"
        return (
          <Pressable
            key={id}
            accessibilityRole="button"
            disabled={off}
            onPress={() => toolNamed(id).run(session)}
            className={`h-11 flex-1 flex-row items-center justify-center gap-2 rounded-button border border-line bg-raised hover:bg-murex-soft/50 wide:h-9 ${off ? "opacity-40" : ""}`}
          >
            <Glyph icon={toolNamed(id).icon} size={18} />
            <Text className="font-ui text-[14px] text-ink">{label}</Text>
          </Pressable>
        )
      })}
    </View>
  )
}

type NoteForm = NoteSettings["end"]["form"]

const formNames: Readonly<Record<NoteForm, string>> = {
  decimal: "1, 2, 3",
  lowerRoman: "i, ii, iii",
  upperRoman: "I, II, III",
  lowerLetter: "a, b, c",
  upperLetter: "A, B, C",
  signs: "*, †, ‡, §",
}
const forms = noteForms.map((form) => [form, formNames[form]] as const)

/** How notes are numbered; and a note that is here made one of the other kind. */
function NoteNumbers() {
  const session = useSession()
  const { settings, kind } = useDesk(({ editor }) => ({
    settings: editor ? documentAttrs(editor.doc).notes : null,
    kind: editor ? ((noteHere(editor) ?? markHere(editor))?.kind ?? null) : null,
  }))
  if (!settings) return null
  return (
    <>
      {kind ? (
        <View className="mt-2 flex-row">
          <WordButton
            label={kind === "note" ? "Make it an endnote" : "Make it a footnote"}
            onPress={() => {
              session.run(turnNote)
              session.focus()
            }}
          />
        </View>
      ) : null}
      <Fold title="How notes are numbered">
        <View className="flex-row gap-2">
          <Choice
            label="Footnotes"
            value={settings.foot.form}
            options={forms}
            onChange={(form) => session.run(changeNotes("foot", { form }))}
          />
          <Choice
            label="Counted anew"
            value={settings.foot.restart}
            options={[
              ["document", "Never"],
              ["section", "In each section"],
              ["sheet", "On each sheet"],
            ]}
            onChange={(restart) => session.run(changeNotes("foot", { restart }))}
          />
        </View>
        <Choice
          label="Endnotes"
          value={settings.end.form}
          options={forms}
          onChange={(form) => session.run(changeNotes("end", { form }))}
        />
      </Fold>
    </>
  )
}

export function PlaceTray() {
  return (
    <View>
      <SectionTitle>Notes</SectionTitle>
      <Tools
        tools={[
          ["note", "Footnote"],
          ["endnote", "Endnote"],
          ["cross-note", "Mark ⇄ note"],
        ]}
      />
      <NoteNumbers />
      <SectionTitle>Breaks</SectionTitle>
      <Tools
        tools={[
          ["sheet-break", "New sheet"],
          ["column-break", "New column"],
        ]}
      />
      <View className="h-2" />
      <Tools
        tools={[
          ["blank-sheet", "Blank sheet"],
          ["line-break", "New line"],
        ]}
      />
      <SectionTitle>Symbols</SectionTitle>
      <Symbols />
      <SectionTitle>Date and time</SectionTitle>
      <Dates />
    </View>
  )
}
