import { View } from "react-native"
import { documentAttrs, type LetterFormat, type LetterProperty } from "@biblon/core/document"
import { letterStyleValue, letterValue, setLetters, setLetterStyle, sizeSteps, type Command } from "@biblon/core/editing"
import { ToolButton } from "../../../commands/ToolButton"
import { Choice, Fold, NumberField, SectionTitle, Segments, Switch } from "../../../ui/pieces"
import { useDesk, useSession } from "../../context"
import { languageOptions } from "../../languages"
import { Colours, inks, tints } from "./Colours"
import { Slide } from "./Slide"
import { Typefaces } from "./Typefaces"

function useLetters<K extends LetterProperty>(property: K): LetterFormat[K] | undefined {
  return useDesk(({ editor }) => (editor ? letterValue(editor, property) : undefined))
}

function stepThrough(value: number, direction: -1 | 1): number {
  return direction > 0 ? (sizeSteps.find((s) => s > value) ?? value + 4) : ([...sizeSteps].reverse().find((s) => s < value) ?? Math.max(1, value - 1))
}

function Size() {
  const session = useSession()
  const size = useLetters("size")
  return <NumberField label="Size" value={size} min={1} max={400} step={stepThrough} onChange={(value) => session.run(setLetters("size", Math.max(1, Math.round(value * 2) / 2)))} />
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

const underlines = [["none", "None"], ["single", "Single"], ["double", "Double"], ["thick", "Thick"], ["dotted", "Dotted"], ["dashed", "Dashed"], ["wavy", "Wavy"]] as const
const strikes = [["none", "None"], ["single", "Single"], ["double", "Double"]] as const
const capitals = [["none", "As typed"], ["small", "Small capitals"], ["all", "All capitals"]] as const
const scripts = [["none", "On the line"], ["super", "Superscript"], ["sub", "Subscript"]] as const

function Pick<K extends "underline" | "strike" | "caps" | "script">({ label, property, options }: { label: string; property: K; options: readonly (readonly [LetterFormat[K], string])[] }) {
  const session = useSession()
  const value = useLetters(property)
  return <Choice<LetterFormat[K]> label={label} value={value} options={options} onChange={(next) => session.run(setLetters(property, next))} />
}

function Flag({ label, property }: { label: string; property: "outline" | "shadow" | "kerning" | "ligatures" }) {
  const session = useSession()
  const value = useLetters(property)
  return <Switch label={label} on={value === true} mixed={value === undefined} onChange={(on) => session.run(setLetters(property, on))} />
}

/** The underline takes the colour of the letters where none is set. */
const setUnderlineColour = (colour: string | null): Command => setLetters("underlineColour", colour)

function LetterStyle() {
  const session = useSession()
  const value = useDesk(({ editor }) => (editor ? letterStyleValue(editor) : null))
  const styles = useDesk(({ editor }) => (editor ? documentAttrs(editor.doc).styles.styles : null))
  const options = Object.entries(styles ?? {}).flatMap(([key, style]) => (style.kind ? [[key, style.name] as const] : []))
  return <Choice label="Style of letters" value={value === null ? "none" : value} options={[["none", "None"], ...options]} onChange={(key) => session.run(setLetterStyle(key === "none" ? null : key))} />
}

export function LettersPage() {
  const session = useSession()
  const [colour, highlight, underlineColour, spacing, raise, language] = [useLetters("colour"), useLetters("highlight"), useLetters("underlineColour"), useLetters("spacing"), useLetters("raise"), useLetters("language")]
  return (
    <View>
      <SectionTitle>Typeface and size</SectionTitle>
      <View className="flex-row flex-wrap gap-2">
        <Typefaces />
        <View className="flex-[2] flex-row">
          <Size />
        </View>
      </View>
      <View className="mt-2 gap-2">
        <ToolRow label="Weight and slant" ids={["bold", "italic", "underline", "strike"]} />
        <ToolRow label="Place and capitals" ids={["superscript", "subscript", "small-capitals", "clear-letters"]} />
      </View>
      <View className="mt-3 gap-2">
        <Colours label="Colour of the letters" value={colour} palette={inks} ofDocument set={(next) => setLetters("colour", next ?? "#1e1a16")} />
        <Colours label="Highlight" value={highlight} palette={tints} none="No highlight" set={(next) => setLetters("highlight", next)} />
      </View>
      <Fold title="Lines and capitals">
        <View className="flex-row gap-2">
          <Pick label="Underline" property="underline" options={underlines} />
          <Pick label="Strike-through" property="strike" options={strikes} />
        </View>
        <Colours label="Colour of the underline" value={underlineColour} palette={inks} none="As the letters" set={setUnderlineColour} />
        <View className="flex-row gap-2">
          <Pick label="Capitals" property="caps" options={capitals} />
          <Pick label="Raised or lowered" property="script" options={scripts} />
        </View>
        <Flag label="Outline" property="outline" />
        <Flag label="Shadow" property="shadow" />
      </Fold>
      <Fold title="Spacing and joins">
        <Slide label="Letter spacing (pt)" value={spacing} min={-2} max={6} step={0.1} typed={{ min: -100, max: 400 }} set={(next) => setLetters("spacing", next)} />
        <Slide label="Distance from the line (pt)" value={raise} min={-12} max={12} step={0.5} typed={{ min: -400, max: 400 }} set={(next) => setLetters("raise", next)} />
        <Flag label="Kerning" property="kerning" />
        <Flag label="Ligatures" property="ligatures" />
      </Fold>
      <Fold title="Language and style of letters">
        <Choice label="Language of this text" value={language} options={languageOptions(language)} onChange={(next) => session.run(setLetters("language", next))} />
        <LetterStyle />
      </Fold>
    </View>
  )
}
