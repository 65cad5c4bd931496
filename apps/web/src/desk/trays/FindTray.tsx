import { useEffect, useRef, useState } from "react"
import { Text, View } from "react-native"
import { useStore } from "zustand"
import { documentAttrs } from "@biblon/core/document"
import { letterValue, selectedText, styleValue, type LookQuery, type Query } from "@biblon/core/editing"
import { families } from "@biblon/core/layout/catalogue"
import { CaretDown, CaretUp } from "../../ui/icons"
import { Chip, IconButton, WordButton } from "../../ui/button"
import { Choice, SectionTitle } from "../../ui/choice"
import { TextField } from "../../ui/field"
import { useDesk, useSession } from "../context"

/** A choice that may also be none. */
function AnyOf({
  label,
  value,
  options,
  onChange,
}: {
  label: string
  value: string | undefined
  options: readonly (readonly [string, string])[]
  onChange: (value: string | undefined) => void
}) {
  return (
    <Choice
      label={label}
      value={value ?? ""}
      options={[["", "any"], ...options]}
      onChange={(id) => onChange(id || undefined)}
    />
  )
}

/** Only by look if asked for: style, typeface, bold, or the colour of the selection. */
function Look({ look, onChange }: { look: LookQuery; onChange: (look: LookQuery) => void }) {
  const session = useSession()
  const styles = useDesk((s) => s.editor && documentAttrs(s.editor.doc).styles.styles)
  const likeSelection = () => {
    const editor = session.now
    if (!editor) return
    const style = styleValue(editor)
    const [bold, family, colour] = [
      letterValue(editor, "bold"),
      letterValue(editor, "family"),
      letterValue(editor, "colour"),
    ]
    onChange({
      ...(style ? { style } : {}),
      ...(bold === undefined ? {} : { bold }),
      ...(family ? { family } : {}),
      ...(colour ? { colour } : {}),
    })
  }
  const set = (change: LookQuery) =>
    onChange(Object.fromEntries(Object.entries({ ...look, ...change }).filter(([, v]) => v !== undefined)) as LookQuery)
  return (
    <View className="gap-2">
      <View className="flex-row gap-2">
        <AnyOf
          label="Style"
          value={look.style}
          options={Object.entries(styles ?? {}).map(([id, { name }]) => [id, name] as const)}
          onChange={(id) => set({ ...look, style: id as string })}
        />
        <AnyOf
          label="Typeface"
          value={look.family}
          options={families.map(({ name }) => [name, name] as const)}
          onChange={(family) => set({ family: family as string })}
        />
      </View>
      <View className="flex-row flex-wrap gap-2">
        <Chip
          label="Bold"
          on={look.bold === true}
          onPress={() => set({ bold: (look.bold ? undefined : true) as boolean })}
        />
        <Chip
          label="Italic"
          on={look.italic === true}
          onPress={() => set({ italic: (look.italic ? undefined : true) as boolean })}
        />
        {look.colour ? (
          <Chip label={`Colour ${look.colour}`} on onPress={() => set({ colour: undefined as unknown as string })} />
        ) : null}
        <Chip label="As the selection looks" on={false} onPress={likeSelection} />
      </View>
    </View>
  )
}

export function FindTray() {
  const session = useSession()
  const { finder } = session
  const { query, replacement, count, current, problem } = useStore(finder.store)
  const [byLook, setByLook] = useState(Object.keys(query.look).length > 0)
  const [told, setTold] = useState("")
  const field = useRef<HTMLInputElement>(null)
  const set = (change: Partial<Query>) => finder.set({ ...query, ...change })
  const asked = useDesk((s) => s.findAsked)
  useEffect(() => {
    // A selection inside a paragraph is what one wants to find; a longer one is where.
    const editor = session.now
    const text = editor && !editor.selection.empty ? selectedText(editor) : ""
    if (text && !text.includes("\n") && text.length < 200) finder.set({ ...finder.store.getState().query, text })
    field.current?.focus()
    field.current?.select()
  }, [session, finder, asked])
  useEffect(() => () => finder.close(), [finder])
  const within = () => {
    if (!query.within && !finder.selected)
      session.store.setState({ trouble: "Select the text in which to search, then choose this again." })
    set({ within: query.within ? null : finder.selected })
  }
  const nothing = query.text === "" && Object.keys(query.look).length === 0
  const state =
    problem ??
    (nothing
      ? ""
      : count === null
        ? "Counting…"
        : count === 0
          ? "Nothing found"
          : current
            ? `${current} of ${count}`
            : `${count} found`)
  return (
    <div data-keeps-keys className="flex flex-col">
      <View className="mt-3 flex-row gap-1">
        <TextField
          ref={field}
          quiet
          label="Find"
          placeholder={query.pattern ? "Pattern" : "Find"}
          value={query.text}
          spellCheck={false}
          onChange={(event) => set({ text: event.target.value })}
          onKeyDown={(event) => {
            if (event.key !== "Enter") return
            event.preventDefault()
            event.stopPropagation()
            finder.next(event.shiftKey ? -1 : 1)
          }}
          className="flex-1"
        />
        <IconButton
          name="Previous"
          icon={CaretUp}
          onPress={() => finder.next(-1)}
          className="h-11 w-11 rounded-button wide:h-9 wide:w-9"
        />
        <IconButton
          name="Next"
          icon={CaretDown}
          onPress={() => finder.next(1)}
          className="h-11 w-11 rounded-button wide:h-9 wide:w-9"
        />
      </View>
      <Text
        role="status"
        aria-live="polite"
        testID="find-count"
        className={`my-2 min-h-[18px] font-ui text-[13px] ${problem ? "text-madder" : "text-ink-soft"}`}
      >
        {state}
      </Text>
      <View className="flex-row flex-wrap gap-2">
        <Chip label="Match case" on={query.matchCase} onPress={() => set({ matchCase: !query.matchCase })} />
        <Chip label="Whole words" on={query.wholeWords} onPress={() => set({ wholeWords: !query.wholeWords })} />
        <Chip label="Pattern" on={query.pattern} onPress={() => set({ pattern: !query.pattern })} />
        <Chip label="In the selection" on={query.within !== null} onPress={within} />
        <Chip
          label="By look"
          on={byLook}
          onPress={() => {
            setByLook(!byLook)
            if (byLook) set({ look: {} })
          }}
        />
      </View>
      {byLook ? (
        <View className="mt-3">
          <Look look={query.look} onChange={(look) => set({ look })} />
        </View>
      ) : null}
      <SectionTitle>Replace with</SectionTitle>
      <TextField
        quiet
        label="Replace with"
        placeholder={query.pattern ? "$1 is the first group" : ""}
        value={replacement}
        onChange={(event) => finder.store.setState({ replacement: event.target.value })}
      />
      <View className="mt-2 flex-row gap-2">
        <WordButton label="Replace" onPress={() => finder.replaceOne()} />
        <WordButton
          label="Replace all"
          onPress={() => {
            const n = finder.replaceAll()
            setTold(
              n === 0
                ? "Nothing to replace."
                : `Replaced ${n} ${n === 1 ? "place" : "places"}. One undo takes it back.`,
            )
          }}
        />
      </View>
      <Text role="status" className="mt-2 font-ui text-[13px] text-ink-soft">
        {told}
      </Text>
    </div>
  )
}
