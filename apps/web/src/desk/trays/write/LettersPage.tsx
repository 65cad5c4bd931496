import { View } from "react-native"
import { documentAttrs, limits, type LetterFormat, type LetterProperty } from "@biblon/core/document"
import { formatOfStyle, letterStyleValue, letterValue, nextSize, setLetterStyle } from "@biblon/core/editing"
import { ToolButton } from "../../../commands/ToolButton"
import { Choice, Fold, SectionTitle, Segments, Switch } from "../../../ui/choice"
import { NumberField } from "../../../ui/field"
import { useDesk, useSession } from "../../context"
import { languageOptions } from "../../languages"
import { Colours, inks, tints } from "./Colours"
import { readLength } from "../../../ui/units"
import { Scope, useShaping } from "./Scope"
import { Slide } from "./Slide"
import { Typefaces } from "./Typefaces"

function useLetters<K extends LetterProperty>(property: K): LetterFormat[K] | undefined {
  const { chosen } = useShaping()
  return useDesk(({ editor }) =>
    !editor
      ? undefined
      : chosen === null
        ? letterValue(editor, property)
        : formatOfStyle(editor, chosen).letters[property],
  )
}

const [smallest, largest] = limits.size

function Size() {
  const session = useSession()
  const { set, step } = useShaping()
  const size = useLetters("size")
  return (
    <NumberField
      label="Size"
      value={size}
      min={smallest}
      max={largest}
      step={nextSize}
      read={(text) => readLength(text, "pt")}
      onChange={(value) => session.run(set("size", Math.max(smallest, Math.round(value * 2) / 2)))}
      onStep={(direction) =>
        session.run(step("size", (value) => nextSize(value, direction), direction > 0 ? "Larger" : "Smaller"))
      }
    />
  )
}

function ToolRow({ label, ids }: { label: string; ids: readonly string[] }) {
  return (
    <Segments label={label}>
      {ids.map((id, i) => (
        <ToolButton key={id} id={id} className={`h-11 flex-1 wide:h-9 ${i === 0 ? "" : "border-l border-line"}`} />
      ))}
    </Segments>
  )
}

const underlines = [
  ["none", "None"],
  ["single", "Single"],
  ["double", "Double"],
  ["thick", "Thick"],
  ["dotted", "Dotted"],
  ["dashed", "Dashed"],
  ["wavy", "Wavy"],
] as const
const strikes = [
  ["none", "None"],
  ["single", "Single"],
  ["double", "Double"],
] as const
const capitals = [
  ["none", "As typed"],
  ["small", "Small capitals"],
  ["all", "All capitals"],
] as const
const scripts = [
  ["none", "On the line"],
  ["super", "Superscript"],
  ["sub", "Subscript"],
] as const

function Pick<K extends "underline" | "strike" | "caps" | "script">({
  label,
  property,
  options,
}: {
  label: string
  property: K
  options: readonly (readonly [LetterFormat[K], string])[]
}) {
  const session = useSession()
  const { set } = useShaping()
  const value = useLetters(property)
  return (
    <Choice<LetterFormat[K]>
      label={label}
      value={value}
      options={options}
      onChange={(next) => session.run(set(property, next))}
    />
  )
}

function Flag({ label, property }: { label: string; property: "outline" | "shadow" | "kerning" | "ligatures" }) {
  const session = useSession()
  const { set } = useShaping()
  const value = useLetters(property)
  return (
    <Switch
      label={label}
      on={value === true}
      mixed={value === undefined}
      onChange={(on) => session.run(set(property, on))}
    />
  )
}

function LetterStyle() {
  const session = useSession()
  const value = useDesk(({ editor }) => (editor ? letterStyleValue(editor) : null))
  const styles = useDesk(({ editor }) => (editor ? documentAttrs(editor.doc).styles.styles : null))
  const options = Object.entries(styles ?? {}).flatMap(([key, style]) =>
    style.kind ? [[key, style.name] as const] : [],
  )
  return (
    <Choice
      label="Style of letters"
      value={value === null ? "none" : value}
      options={[["none", "None"], ...options]}
      onChange={(key) => session.run(setLetterStyle(key === "none" ? null : key))}
    />
  )
}

export function LettersPage() {
  const session = useSession()
  const { set, step } = useShaping()
  const [colour, highlight, underlineColour, spacing, raise, language] = [
    useLetters("colour"),
    useLetters("highlight"),
    useLetters("underlineColour"),
    useLetters("spacing"),
    useLetters("raise"),
    useLetters("language"),
  ]
  return (
    <View>
      <Scope />
      <SectionTitle>Typeface and size</SectionTitle>
      <View className="flex-row flex-wrap gap-2">
        <Typefaces />
        <View className="min-w-[148px] flex-[2] flex-row wide:min-w-0">
          <Size />
        </View>
      </View>
      <View className="mt-2 gap-2">
        <ToolRow label="Weight and slant" ids={["bold", "italic", "underline", "strike"]} />
        <ToolRow label="Place and capitals" ids={["superscript", "subscript", "small-capitals", "clear-letters"]} />
      </View>
      <View className="mt-3 gap-2">
        <Colours
          label="Colour of the letters"
          value={colour}
          palette={inks}
          ofDocument
          set={(next) => set("colour", next ?? "#1e1a16")}
        />
        <Colours
          label="Highlight"
          value={highlight}
          palette={tints}
          none="No highlight"
          set={(next) => set("highlight", next)}
        />
      </View>
      <Fold title="Lines and capitals">
        <View className="flex-row gap-2">
          <Pick label="Underline" property="underline" options={underlines} />
          <Pick label="Strike-through" property="strike" options={strikes} />
        </View>
        <Colours
          label="Colour of the underline"
          value={underlineColour}
          palette={inks}
          none="As the letters"
          set={(next) => set("underlineColour", next)}
        />
        <View className="flex-row gap-2">
          <Pick label="Capitals" property="caps" options={capitals} />
          <Pick label="Raised or lowered" property="script" options={scripts} />
        </View>
        <Flag label="Outline" property="outline" />
        <Flag label="Shadow" property="shadow" />
      </Fold>
      <Fold title="Spacing and joins">
        <Slide
          label="Letter spacing (pt)"
          value={spacing}
          min={-2}
          max={6}
          step={0.1}
          typed={limits.letterSpacing}
          set={(next) => set("spacing", next)}
          onStep={(by) => step("spacing", (now) => Math.round((now + by) * 100) / 100, "Letter spacing")}
        />
        <Slide
          label="Distance from the line (pt)"
          value={raise}
          min={-12}
          max={12}
          step={0.5}
          typed={limits.raise}
          set={(next) => set("raise", next)}
          onStep={(by) => step("raise", (now) => Math.round((now + by) * 100) / 100, "Distance from the line")}
        />
        <Flag label="Kerning" property="kerning" />
        <Flag label="Ligatures" property="ligatures" />
      </Fold>
      <Fold title="Language and style of letters">
        <Choice
          label="Language of this text"
          value={language}
          options={languageOptions(language)}
          onChange={(next) => session.run(set("language", next))}
        />
        <LetterStyle />
      </Fold>
    </View>
  )
}
