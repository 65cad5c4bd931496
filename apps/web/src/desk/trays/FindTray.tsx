import { useEffect, useRef, useState } from "react"
import { Pressable, Text, View } from "react-native"
import { useStore } from "zustand"
import { documentAttrs } from "@biblon/core/document"
import { letterValue, selectedText, styleValue, type LookQuery, type Query } from "@biblon/core/editing"
import { families } from "@biblon/core/layout/catalogue"
import { CaretDown, CaretUp } from "../../ui/icons"
import { IconButton, SectionTitle } from "../../ui/pieces"
import { useDesk, useSession } from "../context"

const input =
  "h-11 w-full min-w-0 rounded-button border border-line bg-raised px-3 font-ui text-[15px] text-ink wide:h-9"

function Switch({ label, on, onPress }: { label: string; on: boolean; onPress: () => void }) {
  return (
    <Pressable
      accessibilityRole="button"
      aria-pressed={on}
      onPress={onPress}
      className={`h-11 justify-center rounded-button border px-3 wide:h-8 ${on ? "border-murex bg-murex-soft" : "border-line bg-raised"}`}
    >
      <Text className={`text-[13px] ${on ? "font-ui-bold text-murex" : "font-ui text-ink"}`}>{label}</Text>
    </Pressable>
  )
}

function Act({ label, onPress }: { label: string; onPress: () => void }) {
  return (
    <Pressable
      accessibilityRole="button"
      onPress={onPress}
      className="h-11 flex-1 items-center justify-center rounded-button border border-line bg-raised hover:bg-murex-soft/50 wide:h-9"
    >
      <Text className="font-ui-bold text-[14px] text-ink">{label}</Text>
    </Pressable>
  )
}

function Choice({
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
    <label className="flex min-w-0 flex-1 flex-col gap-1 font-ui text-[13px] text-ink-soft">
      {label}
      <select value={value ?? ""} onChange={(event) => onChange(event.target.value || undefined)} className={input}>
        <option value="">any</option>
        {options.map(([id, name]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
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
        <Choice
          label="Style"
          value={look.style}
          options={Object.entries(styles ?? {}).map(([id, { name }]) => [id, name] as const)}
          onChange={(id) => set({ ...look, style: id as string })}
        />
        <Choice
          label="Typeface"
          value={look.family}
          options={families.map(({ name }) => [name, name] as const)}
          onChange={(family) => set({ family: family as string })}
        />
      </View>
      <View className="flex-row flex-wrap gap-2">
        <Switch
          label="Bold"
          on={look.bold === true}
          onPress={() => set({ bold: (look.bold ? undefined : true) as boolean })}
        />
        <Switch
          label="Italic"
          on={look.italic === true}
          onPress={() => set({ italic: (look.italic ? undefined : true) as boolean })}
        />
        {look.colour ? (
          <Switch label={`Colour ${look.colour}`} on onPress={() => set({ colour: undefined as unknown as string })} />
        ) : null}
        <Switch label="As the selection looks" on={false} onPress={likeSelection} />
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
        <input
          ref={field}
          aria-label="Find"
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
          className={input}
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
        <Switch label="Match case" on={query.matchCase} onPress={() => set({ matchCase: !query.matchCase })} />
        <Switch label="Whole words" on={query.wholeWords} onPress={() => set({ wholeWords: !query.wholeWords })} />
        <Switch label="Pattern" on={query.pattern} onPress={() => set({ pattern: !query.pattern })} />
        <Switch label="In the selection" on={query.within !== null} onPress={within} />
        <Switch
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
      <input
        aria-label="Replace with"
        placeholder={query.pattern ? "$1 is the first group" : ""}
        value={replacement}
        onChange={(event) => finder.store.setState({ replacement: event.target.value })}
        className={input}
      />
      <View className="mt-2 flex-row gap-2">
        <Act label="Replace" onPress={() => finder.replaceOne()} />
        <Act
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
