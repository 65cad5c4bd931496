import { useState } from "react"
import { Pressable, Text, View } from "react-native"
import { familyNamed, families, faceOf } from "@biblon/core/layout/catalogue"
import { letterValue, paragraphValue, setLetters, setParagraphs, sizeSteps, styleValue } from "@biblon/core/editing"
import { documentAttrs } from "@biblon/core/document"
import { ToolButton } from "../../commands/ToolButton"
import { Glyph, NumberField, SectionTitle, Segment, Segments } from "../../ui/pieces"
import { useDesk, useSession } from "../context"
import { CaretDown, CaretUp } from "../../ui/icons"

const colours = [
  { value: "#1e1a16", name: "Ink" },
  { value: "#7a1f4b", name: "Murex" },
  { value: "#1f4f7a", name: "Deep water" },
  { value: "#3b6b4c", name: "Laurel" },
  { value: "#9a6412", name: "Ochre" },
  { value: "#a8281e", name: "Madder" },
  { value: "#5e564b", name: "Driftwood" },
]
const spacings = [1, 1.15, 1.5, 2]

function stepThrough(steps: readonly number[]) {
  return (value: number, direction: -1 | 1) => (direction > 0 ? (steps.find((s) => s > value) ?? value + 4) : ([...steps].reverse().find((s) => s < value) ?? value - 1))
}

function Typeface() {
  const session = useSession()
  const [open, setOpen] = useState(false)
  const family = useDesk((s) => s.editor && letterValue(s.editor, "family"))
  return (
    <>
      <View className="flex-row gap-2">
        <Pressable
          accessibilityRole="button"
          aria-label={`Typeface: ${family ?? "several"}`}
          aria-expanded={open}
          onPress={() => setOpen(!open)}
          className="h-11 flex-[3] flex-row items-center justify-between rounded-button border border-line bg-raised px-3 wide:h-9"
        >
          <Text numberOfLines={1} className="flex-1 text-[17px] text-ink" style={{ fontFamily: family ? faceOf(family, false, false) : undefined }}>
            {family ? familyNamed(family).name : "Several"}
          </Text>
          <Glyph icon={(open ? CaretUp : CaretDown)} size={16} />
        </Pressable>
        <View className="flex-[2] flex-row">
          <Size />
        </View>
      </View>
      {open ? (
        <div role="listbox" aria-label="Typefaces" className="mt-2 overflow-hidden rounded-button border border-line bg-raised">
          {families.map(({ name, matches }) => (
            <Pressable
              key={name}
              role="option"
              aria-selected={name === family}
              onPress={() => session.run(setLetters("family", name))}
              className={`min-h-[44px] flex-row items-center justify-between px-3 wide:min-h-[36px] ${name === family ? "bg-murex-soft" : "hover:bg-murex-soft/50"}`}
            >
              <Text className={`text-[17px] ${name === family ? "text-murex" : "text-ink"}`} style={{ fontFamily: faceOf(name, false, false) }}>
                {name}
              </Text>
              {matches ? <Text className="font-ui text-[12px] text-ink-soft">as wide as {matches}</Text> : null}
            </Pressable>
          ))}
        </div>
      ) : null}
    </>
  )
}

function Size() {
  const session = useSession()
  const size = useDesk((s) => s.editor && letterValue(s.editor, "size"))
  return <NumberField label="Size" value={size ?? undefined} min={1} max={400} step={stepThrough(sizeSteps)} onChange={(value) => session.run(setLetters("size", value))} />
}

function Colours() {
  const session = useSession()
  const colour = useDesk((s) => s.editor && letterValue(s.editor, "colour"))
  return (
    <View role="group" aria-label="Colour of the letters" className="mt-2 flex-row items-center justify-between">
      {colours.map(({ value, name }) => (
        <Pressable
          key={value}
          accessibilityRole="button"
          aria-label={name}
          aria-pressed={value === colour}
          {...{ title: name }}
          onPress={() => session.run(setLetters("colour", value))}
          className="h-11 w-8 items-center justify-center"
        >
          <View className={`h-8 w-8 items-center justify-center rounded-full border-2 ${value === colour ? "border-murex" : "border-transparent"}`}>
            <View className="h-6 w-6 rounded-full" style={{ backgroundColor: value }} />
          </View>
        </Pressable>
      ))}
      <label className="relative flex h-11 cursor-pointer items-center px-1 font-ui text-[13px] text-ink-soft">
        Other
        <input
          type="color"
          aria-label="Another colour"
          value={colour ?? "#1e1a16"}
          onChange={(event) => session.run(setLetters("colour", event.target.value.toLowerCase()))}
          className="absolute inset-0 h-full w-full cursor-pointer opacity-0"
        />
      </label>
    </View>
  )
}

function Spacing() {
  const session = useSession()
  const spacing = useDesk((s) => s.editor && paragraphValue(s.editor, "lineSpacing"))
  const [other, setOther] = useState(false)
  const multiple = spacing?.rule === "multiple" ? spacing.value : undefined
  const set = (value: number) => session.run(setParagraphs({ lineSpacing: { rule: "multiple", value } }))
  return (
    <>
      <Segments label="Line spacing">
        {spacings.map((value, i) => (
          <Segment key={value} first={i === 0} label={String(value)} on={value === multiple} onPress={() => set(value)} />
        ))}
        <Segment label={multiple !== undefined && !spacings.includes(multiple) ? String(multiple) : "other"} on={other || (multiple !== undefined && !spacings.includes(multiple))} onPress={() => setOther(!other)} />
      </Segments>
      {other ? (
        <View className="mt-2 flex-row">
          <NumberField label="Line spacing" value={multiple} min={0.5} max={10} step={(value, direction) => Math.round((value + direction * 0.05) * 100) / 100} onChange={set} />
        </View>
      ) : null}
    </>
  )
}

function Space({ label, property }: { label: string; property: "spaceBefore" | "spaceAfter" }) {
  const session = useSession()
  const value = useDesk((s) => s.editor && paragraphValue(s.editor, property))
  return (
    <View className="flex-1 gap-1">
      <Text className="font-ui text-[13px] text-ink-soft">{label} (pt)</Text>
      <NumberField label={label} value={value ?? undefined} min={0} max={400} step={(v, d) => v + d * 2} onChange={(v) => session.run(setParagraphs({ [property]: v }))} />
    </View>
  )
}

export function WriteTray() {
  const session = useSession()
  const style = useDesk(({ editor }) => {
    const id = editor && styleValue(editor)
    return editor && id ? (documentAttrs(editor.doc).styles.styles[id]?.name ?? null) : null
  })
  return (
    <View>
      <SectionTitle>Letters</SectionTitle>
      <Typeface />
      <View className="mt-2">
        <Segments label="Weight and slant">
          {["bold", "italic", "underline"].map((id, i) => (
            <ToolButton key={id} id={id} className={`h-11 flex-1 wide:h-9 ${i === 0 ? "" : "border-l border-line"}`} />
          ))}
        </Segments>
      </View>
      <Colours />
      <SectionTitle
        aside={
          <Pressable accessibilityRole="button" aria-label="Choose a style" onPress={() => session.openTray("structure")}>
            <Text className="font-ui text-[13px] text-murex">{style ?? "Several styles"}</Text>
          </Pressable>
        }
      >
        Paragraph
      </SectionTitle>
      <Segments label="Alignment">
        {["align-left", "align-center", "align-right", "align-justify"].map((id, i) => (
          <ToolButton key={id} id={id} className={`h-11 flex-1 wide:h-9 ${i === 0 ? "" : "border-l border-line"}`} />
        ))}
      </Segments>
      <View className="h-2" />
      <Spacing />
      <View className="mt-3 flex-row gap-3">
        <Space label="Space before" property="spaceBefore" />
        <Space label="Space after" property="spaceAfter" />
      </View>
    </View>
  )
}
