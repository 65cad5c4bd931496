import { useEffect, useRef, useState, type KeyboardEvent } from "react"
import { Text, View } from "react-native"
import { documentAttrs, entryOf, type OwnFamily } from "@biblon/core/document"
import {
  addFont,
  familiesInUse,
  firstOf,
  formatOfStyle,
  letterValue,
  setLetters,
  type Command,
} from "@biblon/core/editing"
import { faceOf, families, ownFace } from "@biblon/core/layout/catalogue"
import { api } from "../../../api"
import { CaretDown, CaretUp, Plus } from "../../../ui/icons"
import { Glyph } from "../../../ui/glyph"
import { useDesk, useSession } from "../../context"
import { useRecents } from "../../recents"
import { trying } from "../../trying"
import { useShaping } from "./Scope"
import { declareFace } from "../../../ui/fontFaces"
import { Press } from "../../../ui/bar"

/** The face in which a family's name is shown. */
export function sampleFace(family: string, own: OwnFamily | undefined, bold = false, italic = false): string {
  return (own && ownFace(own, bold, italic)) ?? faceOf(family, bold, italic)
}

const kinds: Record<string, string> = {
  serif: "serif",
  sans: "plain sans",
  mono: "even widths",
  hand: "handwriting",
  eastAsian: "Chinese and Japanese",
  complex: "other scripts",
}

interface Entry {
  name: string
  note: string
}

function Row({
  entry,
  current,
  own,
  at,
  onChosen,
}: {
  entry: Entry
  current: boolean
  own: OwnFamily | undefined
  at: boolean
  onChosen: () => void
}) {
  const session = useSession()
  const { set } = useShaping()
  const used = useRecents((s) => s.used)
  const row = useRef<HTMLButtonElement>(null)
  const command = set("family", entry.name)
  const shown = useRef(command)
  shown.current = command
  useEffect(() => {
    if (!at) return
    row.current?.scrollIntoView({ block: "nearest" })
    session.trial.show(shown.current)
  }, [at, session])
  return (
    <Press
      ref={row}
      type="button"
      role="option"
      id={at ? "typeface-at" : undefined}
      tabIndex={-1}
      aria-selected={current}
      aria-label={entry.name}
      {...trying(session, command, () => {
        used("typefaces", entry.name)
        onChosen()
      })}
      className={`flex min-h-[44px] w-full items-center justify-between gap-2 border-0 px-3 text-left wide:min-h-[36px] ${at ? "outline outline-2 -outline-offset-2 outline-murex" : ""} ${current ? "bg-murex-soft text-murex" : "bg-transparent text-ink hover:bg-murex-soft/50"}`}
    >
      <span className="truncate text-[17px]" style={{ fontFamily: sampleFace(entry.name, own) }}>
        {entry.name}
      </span>
      <span className="shrink-0 font-ui text-[12px] text-ink-soft">{entry.note}</span>
    </Press>
  )
}

/** Brings in font files and gives their families to the document. */
function useFontAdding() {
  const session = useSession()
  const input = useRef<HTMLInputElement>(null)
  const add = async (files: FileList | null) => {
    for (const file of files ?? []) {
      try {
        const { asset, family, variant } = await api.addFont(file)
        declareFace(`own-${asset}`)
        const chosen: Command = (state, dispatch) => addFont(family, { [variant]: asset })(state, dispatch)
        session.run(chosen)
        session.run(firstOf(setLetters("family", family)))
      } catch (error) {
        session.store.setState({
          trouble: `${file.name} was not added. ${(error as Error).message} Your document is as it was.`,
        })
      }
    }
    if (input.current) input.current.value = ""
  }
  return { input, add }
}

/** The chooser of typefaces: searched by typing, those of this document and the last ones first; it stays open while values are tried. */
export function Typefaces() {
  const session = useSession()
  const [open, setOpen] = useState(false)
  const [typed, setTyped] = useState("")
  const [at, setAt] = useState(-1)
  const { set } = useShaping()
  const { chosen: shaped } = useShaping()
  const { family, fonts } = useDesk(({ editor }) => ({
    family: !editor
      ? undefined
      : shaped === null
        ? letterValue(editor, "family")
        : formatOfStyle(editor, shaped).letters.family,
    fonts: editor ? documentAttrs(editor.doc).styles.fonts : null,
  }))
  // What stands on top is found when the list opens, so that nothing in it moves while one tries.
  const [onTop, setOnTop] = useState<{ here: string[]; recent: string[] }>({ here: [], recent: [] })
  const turn = () => {
    if (!open && session.now) {
      const here = familiesInUse(session.now.doc)
      setOnTop({ here, recent: useRecents.getState().typefaces.filter((name) => !here.includes(name)) })
    }
    setOpen(!open)
  }
  const { input, add } = useFontAdding()
  const all: Entry[] = [
    ...Object.keys(fonts ?? {}).map((name) => ({ name, note: "your own" })),
    ...families.map(({ name, matches, kind }) => ({
      name,
      note: matches ? `as wide as ${matches}` : (kinds[kind] ?? ""),
    })),
  ]
  const known = new Map(all.map((entry) => [entry.name, entry]))
  const wanted = typed.trim().toLowerCase()
  const matching = all.filter(({ name, note }) => `${name} ${note}`.toLowerCase().includes(wanted))
  const pick = (names: readonly string[]) => names.flatMap((name) => known.get(name) ?? [])
  const groups: [title: string, entries: Entry[]][] = wanted
    ? [["Found", matching]]
    : [
        ["In this document", pick(onTop.here)],
        ["Used last", pick(onTop.recent)],
        ["All", all],
      ]
  const inOrder = groups.flatMap(([, entries]) => entries)
  const onKey = (event: KeyboardEvent) => {
    const step = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0
    if (step !== 0) {
      event.preventDefault()
      return setAt(Math.max(0, Math.min(inOrder.length - 1, at + step)))
    }
    const chosen = inOrder[Math.max(0, at)]
    if (event.key !== "Enter" || !chosen || (at < 0 && wanted === "")) return
    // The first that was found is taken; then one goes on writing.
    session.run(set("family", chosen.name))
    useRecents.getState().used("typefaces", chosen.name)
    session.focus()
  }
  let index = -1
  return (
    <>
      <Press
        aria-label={`Typeface: ${family ?? "several"}`}
        aria-expanded={open}
        onClick={turn}
        className="flex min-w-0 shrink-0 h-11 flex-[3] items-center justify-between rounded-button border border-line bg-raised px-3 wide:h-9"
      >
        <Text
          numberOfLines={1}
          className="flex-1 text-[17px] text-ink"
          style={{ fontFamily: family ? sampleFace(family, fonts ? entryOf(fonts, family) : undefined) : undefined }}
        >
          {family ?? "Several"}
        </Text>
        <Glyph icon={open ? CaretUp : CaretDown} size={16} />
      </Press>
      {open ? (
        <View className="order-last w-full overflow-hidden rounded-button border border-line bg-raised">
          <input
            aria-label="Find a typeface"
            placeholder="Find a typeface"
            value={typed}
            onChange={(event) => {
              setTyped(event.target.value)
              setAt(-1)
            }}
            onKeyDown={onKey}
            role="combobox"
            aria-expanded="true"
            aria-controls="typefaces"
            aria-activedescendant={at >= 0 ? "typeface-at" : undefined}
            className="h-11 w-full border-0 border-b border-line bg-transparent px-3 font-ui text-[15px] text-ink wide:h-9"
          />
          <div
            id="typefaces"
            role="listbox"
            aria-label="Typefaces"
            className="max-h-[340px] overflow-y-auto"
            onPointerLeave={() => session.trial.show(null)}
          >
            {groups
              .filter(([, entries]) => entries.length > 0)
              .map(([title, entries]) => (
                <div key={title} role="group" aria-label={title}>
                  <div className="px-3 pb-1 pt-2 font-ui text-[12px] text-ink-soft">{title}</div>
                  {entries.map((entry) => (
                    <Row
                      key={entry.name}
                      entry={entry}
                      current={entry.name === family}
                      own={fonts ? entryOf(fonts, entry.name) : undefined}
                      at={++index === at}
                      onChosen={() => session.focus()}
                    />
                  ))}
                </div>
              ))}
            {groups.every(([, entries]) => entries.length === 0) ? (
              <div className="p-3 font-ui text-[14px] text-ink-soft">
                No typeface of that name. A font file of your own can be added below.
              </div>
            ) : null}
          </div>
          <Press
            onClick={() => input.current?.click()}
            className="flex min-w-0 shrink-0 h-11 items-center gap-2 border-t border-line px-3 hover:bg-murex-soft/50 wide:h-9"
          >
            <Glyph icon={Plus} size={16} />
            <Text className="font-ui text-[14px] text-ink">Add a font file</Text>
          </Press>
          <input
            ref={input}
            type="file"
            accept=".ttf,.otf"
            multiple
            aria-label="Font file"
            onChange={(event) => void add(event.target.files)}
            className="hidden"
          />
        </View>
      ) : null}
    </>
  )
}
