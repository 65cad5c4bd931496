import { useCallback, useState } from "react"
import { Text, View } from "react-native"
import { useStore } from "zustand"
import { countingWords } from "@biblon/core/checking"
import { documentAttrs, namedPartAt, namedParts } from "@biblon/core/document"
import { partTitle } from "@biblon/core/editing"
import { IconButton } from "../../ui/button"
import { Glyph, inkSoft } from "../../ui/glyph"
import { resting } from "../../ui/resting"
import { inSlices } from "../../ui/slices"
import { useDesk, useSession } from "../context"
import type { DeskState } from "../store"
import { useRested } from "../useRested"
import { fullSize } from "../view/fitting"
import { partDrawing } from "../partSigns"
import { languageName } from "../languages"
import { useVerdicts } from "../trays/check/brief/useVerdicts"
import type { ViewMode } from "../view/fitting"
import { Minus, Plus } from "../../ui/icons"
import { Press } from "../../ui/bar"

const countAfter = 250
const figures = new Intl.NumberFormat("en")
const editorOf = ({ editor }: DeskState) => editor
const said = "font-ui text-[13px] text-ink-soft"

/** How many words there are, counted when the hands rest, not with every key. */
function Words() {
  const session = useSession()
  const [{ all, selected }, setWords] = useState({ all: 0, selected: 0 })
  const count = useCallback(
    async (wanted: () => boolean) => {
      const state = session.now
      if (!state) return
      const { from, to, empty } = state.selection
      const all = await inSlices(countingWords(state.doc), wanted, resting)
      const selected = empty ? 0 : await inSlices(countingWords(state.doc, from, to), wanted, resting)
      if (all === null || selected === null || !wanted()) return
      setWords((before) => (before.all === all && before.selected === selected ? before : { all, selected }))
    },
    [session],
  )
  useRested(countAfter, editorOf, count)
  const chosen = selected ? `, ${figures.format(selected)} selected` : ""
  return (
    <Text testID="words" className={said}>
      {`${figures.format(all)} ${all === 1 ? "word" : "words"}${chosen}`}
    </Text>
  )
}

/** How many words look wrong; leads to them. */
function WrongWords() {
  const session = useSession()
  const { on, found } = useStore(session.spelling.store)
  if (!on || found === null) return null
  const sum = [...found.values()].reduce((all, own) => all + own, 0)
  return (
    <Press
      onClick={() => session.opening.tray("check", "spelling")}
      className="flex h-8 min-w-0 shrink-0 flex-col justify-center rounded-button px-1 hover:bg-raised"
    >
      <Text className={`font-ui text-[13px] ${sum > 0 ? "text-madder" : "text-ink-soft"}`}>
        {sum === 0 ? "Spelling fine" : `${figures.format(sum)} to look at`}
      </Text>
    </Press>
  )
}

/** The part with the caret; leads to all of them. */
function PartHere() {
  const session = useSession()
  const part = useDesk(({ editor }) =>
    editor ? (namedParts(editor.doc)[namedPartAt(editor.doc, editor.selection.head)] ?? null) : null,
  )
  if (!part) return null
  return (
    <Press
      title="Switch to another part"
      onClick={() => session.opening.tray("structure", "parts")}
      className="flex h-8 min-w-0 max-w-[180px] items-center gap-1.5 rounded-button px-1 hover:bg-raised"
    >
      <Glyph icon={partDrawing(part.sign)} size={16} colour={inkSoft} />
      <span className="min-w-0 truncate font-ui text-[13px] text-ink-soft">{partTitle(part)}</span>
    </Press>
  )
}

/** How much of the document's brief it follows; leads there. */
function BriefWords() {
  const session = useSession()
  const looked = useVerdicts()
  if (!looked || looked.found.length === 0) return null
  const right = looked.found.filter(({ agrees }) => agrees).length
  const all = looked.found.length
  return (
    <Press
      onClick={() => session.opening.tray("check", "brief")}
      className="flex h-8 min-w-0 shrink-0 flex-col justify-center rounded-button px-1 hover:bg-raised"
    >
      <Text className={`font-ui text-[13px] ${right === all ? "text-ink-soft" : "text-ochre"}`}>
        {right === all ? "Follows its brief" : `Brief: ${right} of ${all}`}
      </Text>
    </Press>
  )
}

function ModeButton({ mode, label }: { mode: ViewMode; label: string }) {
  const session = useSession()
  const on = useDesk((s) => s.mode === mode)
  return (
    <Press
      aria-pressed={on}
      onClick={() => session.viewing.setMode(mode)}
      className="flex min-w-0 flex-col shrink-0 h-8 justify-center rounded-button px-2 hover:bg-raised"
    >
      <Text className={`text-[13px] ${on ? "font-ui-bold text-murex" : "font-ui text-ink-soft"}`}>{label}</Text>
    </Press>
  )
}

export function FootLine() {
  const session = useSession()
  const { sheets, sheet, mode, scale, language, complete } = useDesk((s) => ({
    sheets: s.view.sheets,
    sheet: s.view.caretSheet,
    complete: s.view.complete,
    mode: s.mode,
    scale: s.scale,
    language: s.editor ? documentAttrs(s.editor.doc).styles.defaults.letters.language : "en",
  }))
  const zoomBy = (factor: number) => () => session.viewing.zoom(scale * factor)
  return (
    <View role="contentinfo" className="h-8 flex-row items-center gap-5 border-t border-line bg-surface px-4">
      {mode === "sheets" ? (
        <Press
          title={"Go to a sheet, heading or note"}
          onClick={() => session.store.setState({ goingTo: true })}
          className="flex min-w-0 flex-col shrink-0 -ml-1 h-8 justify-center rounded-button px-1 hover:bg-raised"
        >
          <Text className={said}>{`Sheet ${sheet} of ${sheets}${complete ? "" : "…"}`}</Text>
        </Press>
      ) : null}
      <PartHere />
      <Words />
      <Press
        aria-label={`Language of the document: ${languageName(language)}`}
        onClick={() => session.opening.tray("document")}
        className="flex min-w-0 flex-col shrink-0 h-8 justify-center rounded-button px-1 hover:bg-raised"
      >
        <Text className={said}>{languageName(language)}</Text>
      </Press>
      <WrongWords />
      <BriefWords />
      <View className="flex-1" />
      <Press
        onClick={() => session.viewing.startReading()}
        className="flex min-w-0 flex-col shrink-0 h-8 justify-center rounded-button px-2 hover:bg-raised"
      >
        <Text className={said}>Reading</Text>
      </Press>
      <ModeButton mode="sheets" label="Sheets" />
      <ModeButton mode="flow" label="Flow" />
      <View className="flex-row items-center">
        <Press
          onClick={() => session.viewing.fitTo("sheet")}
          className="flex min-w-0 flex-col shrink-0 h-8 justify-center rounded-button px-2 hover:bg-raised"
        >
          <Text className={said}>Whole</Text>
        </Press>
        <Press
          onClick={() => session.viewing.fitTo("pair")}
          className="flex min-w-0 flex-col shrink-0 h-8 justify-center rounded-button px-2 hover:bg-raised"
        >
          <Text className={said}>Side by side</Text>
        </Press>
        <IconButton name="Smaller view" icon={Minus} onPress={zoomBy(1 / 1.15)} className="h-8 w-8 rounded-button" />
        <Press
          aria-label="Fit the view to the window"
          onClick={() => session.viewing.fitTo("width")}
          className="flex min-w-0 flex-col shrink-0 h-8 w-14 items-center justify-center rounded-button hover:bg-raised"
        >
          <Text className={said}>{`${Math.round((scale / fullSize) * 100)} %`}</Text>
        </Press>
        <IconButton name="Larger view" icon={Plus} onPress={zoomBy(1.15)} className="h-8 w-8 rounded-button" />
      </View>
    </View>
  )
}
