import { useState } from "react"
import { Pressable, Text, View } from "react-native"
import { documentAttrs, limits, textWidth, type LineSpacing, type ParagraphFormat } from "@biblon/core/document"
import { formatOfStyle, paragraphValue, paragraphValues, styleValue } from "@biblon/core/editing"
import { ToolButton } from "../../../commands/ToolButton"
import {
  Choice,
  Fold,
  LengthField,
  NumberField,
  SectionTitle,
  Segment,
  Segments,
  Switch,
  WordButton,
} from "../../../ui/pieces"
import { readLength } from "../../../ui/units"
import { Ruler } from "../../bars/Ruler"
import { toolNamed } from "../../../commands/registry"
import { useDesk, useSession } from "../../context"
import { BorderEditor } from "./BorderEditor"
import { Colours, tints } from "./Colours"
import { DropCapEditor } from "./DropCapEditor"
import { Scope, useShaping } from "./Scope"
import { TabStops } from "./TabStops"

function useParagraph<K extends keyof ParagraphFormat>(property: K): ParagraphFormat[K] | undefined {
  const { chosen } = useShaping()
  return useDesk(({ editor }) =>
    !editor
      ? undefined
      : chosen === null
        ? paragraphValue(editor, property)
        : formatOfStyle(editor, chosen).paragraph[property],
  )
}

const multiples = [1, 1.15, 1.5, 2]
const rules = [
  ["multiple", "Times"],
  ["exact", "Exactly"],
  ["atLeast", "At least"],
] as const

/** The same height of line by another rule. */
function byRule(rule: LineSpacing["rule"], now: LineSpacing | undefined): LineSpacing {
  if (rule === "multiple") return { rule, value: now?.rule === "multiple" ? now.value : 1.25 }
  return { rule, value: now && now.rule !== "multiple" ? now.value : 16 }
}

function Spacing() {
  const session = useSession()
  const spacing = useParagraph("lineSpacing")
  const [other, setOther] = useState(false)
  const multiple = spacing?.rule === "multiple" ? spacing.value : undefined
  const unusual = spacing !== undefined && (multiple === undefined || !multiples.includes(multiple))
  const { paragraph, stepParagraph } = useShaping()
  const set = (lineSpacing: LineSpacing) => session.run(paragraph({ lineSpacing }))
  const stepped = ({ rule, value }: LineSpacing, direction: -1 | 1): LineSpacing => ({
    rule,
    value: Math.round((value + direction * (rule === "multiple" ? 0.05 : 1)) * 100) / 100,
  })
  return (
    <>
      <Segments label="Line spacing">
        {multiples.map((value, i) => (
          <Segment
            key={value}
            first={i === 0}
            label={String(value)}
            on={value === multiple}
            onPress={() => set({ rule: "multiple", value })}
          />
        ))}
        <Segment
          label={unusual ? (multiple !== undefined ? String(multiple) : `${spacing.value} pt`) : "other"}
          on={other || unusual}
          onPress={() => setOther(!other)}
        />
      </Segments>
      {other ? (
        <View className="mt-2 flex-row items-end gap-2">
          <Choice
            label="Measured"
            value={spacing?.rule}
            options={rules}
            onChange={(rule) => set(byRule(rule, spacing))}
          />
          <NumberField
            label="Line spacing"
            value={spacing?.value}
            min={spacing?.rule === "multiple" ? 0.5 : 1}
            max={spacing?.rule === "multiple" ? 10 : 1000}
            step={(value) => value}
            {...(spacing?.rule === "multiple" ? {} : { read: (text: string) => readLength(text, "pt") })}
            onStep={(direction) =>
              session.run(
                stepParagraph(({ lineSpacing }) => ({ lineSpacing: stepped(lineSpacing, direction) }), "Line spacing"),
              )
            }
            onChange={(value) => set({ ...(spacing ?? { rule: "multiple" }), value } as LineSpacing)}
          />
        </View>
      ) : null}
    </>
  )
}

type LengthProperty = "spaceBefore" | "spaceAfter" | "indentLeft" | "indentRight" | "indentFirst"

function Length({
  label,
  property,
  min = 0,
  max = 400,
}: {
  label: string
  property: LengthProperty
  min?: number
  max?: number
}) {
  const session = useSession()
  const { paragraph, stepParagraph } = useShaping()
  const value = useParagraph(property)
  return (
    <LengthField
      label={label}
      value={value}
      min={min}
      max={max}
      // Space between paragraphs is counted in points whatever the ruler shows.
      inPoints={property.startsWith("space")}
      onChange={(points) => session.run(paragraph({ [property]: points }))}
      onStep={(next) => session.run(stepParagraph((now) => ({ [property]: next(now[property]) }), label))}
    />
  )
}

function Flag({
  label,
  property,
}: {
  label: string
  property: "keepNext" | "keepTogether" | "breakBefore" | "hyphenate" | "spaceAlike"
}) {
  const session = useSession()
  const { paragraph } = useShaping()
  const value = useParagraph(property)
  return (
    <Switch
      label={label}
      on={value === true}
      mixed={value === undefined}
      onChange={(on) => session.run(paragraph({ [property]: on }))}
    />
  )
}

function Lines({ label, property }: { label: string; property: "orphans" | "widows" }) {
  const session = useSession()
  const { paragraph, stepParagraph } = useShaping()
  const value = useParagraph(property)
  const [least, most] = limits.keptLines
  return (
    <View className="flex-1 gap-1">
      <Text className="font-ui text-[13px] text-ink-soft">{label}</Text>
      <NumberField
        label={label}
        value={value}
        min={least}
        max={most}
        step={(n, d) => n + d}
        onChange={(n) => session.run(paragraph({ [property]: Math.round(n) }))}
        onStep={(d) => session.run(stepParagraph((now) => ({ [property]: now[property] + d }), label))}
      />
    </View>
  )
}

/** Alignment of what is chosen to be shaped. */
function Alignment() {
  const session = useSession()
  const { chosen, paragraph } = useShaping()
  const align = useParagraph("align")
  if (chosen === null)
    return (
      <Segments label="Alignment">
        {["align-left", "align-center", "align-right", "align-justify"].map((id, i) => (
          <ToolButton key={id} id={id} className={`h-11 flex-1 wide:h-9 ${i === 0 ? "" : "border-l border-line"}`} />
        ))}
      </Segments>
    )
  return (
    <Segments label="Alignment">
      {(["left", "center", "right", "justify"] as const).map((value, i) => (
        <Segment
          key={value}
          first={i === 0}
          label={{ left: "Left", center: "Centre", right: "Right", justify: "Justify" }[value]}
          on={align === value}
          onPress={() => session.run(paragraph({ align: value }))}
        />
      ))}
    </Segments>
  )
}

/** The values of all selected paragraphs, or that of the style that is shaped. */
function useAll<K extends "borders" | "tabs">(property: K): ParagraphFormat[K][] {
  const { chosen } = useShaping()
  return useDesk(({ editor }) =>
    !editor
      ? []
      : chosen === null
        ? paragraphValues(editor, property)
        : [formatOfStyle(editor, chosen).paragraph[property]],
  )
}

function BordersAndShading() {
  const session = useSession()
  const { paragraph, stepParagraph } = useShaping()
  const all = useAll("borders")
  const shading = useParagraph("shading")
  return (
    <Fold title="Borders and background">
      <BorderEditor
        all={all}
        onChange={(change) => session.run(stepParagraph(({ borders }) => ({ borders: change(borders) }), "Border"))}
      />
      <Colours
        label="Background of the paragraph"
        value={shading}
        palette={tints}
        none="No background"
        set={(colour) => paragraph({ shading: colour })}
      />
    </Fold>
  )
}

function DropCaps() {
  const session = useSession()
  const { paragraph } = useShaping()
  const cap = useParagraph("dropCap")
  return (
    <Fold title="Drop cap and line across">
      <DropCapEditor cap={cap} onChange={(dropCap) => session.run(paragraph({ dropCap }))} />
      <View className="flex-row">
        <WordButton label="Put a line across below" onPress={() => toolNamed("line-across").run(session)} />
      </View>
    </Fold>
  )
}

function Stops() {
  const session = useSession()
  const { stepParagraph } = useShaping()
  const all = useAll("tabs")
  const edge = useDesk(({ editor }) => (editor ? textWidth(documentAttrs(editor.doc).setup) : null))
  return (
    <TabStops
      all={all}
      edge={edge}
      onChange={(change) => session.run(stepParagraph(({ tabs }) => ({ tabs: change(tabs) }), "Tab stops"))}
    />
  )
}

export function ParagraphPage() {
  const session = useSession()
  const style = useDesk(({ editor }) => {
    const id = editor && styleValue(editor)
    return editor && id ? (documentAttrs(editor.doc).styles.styles[id]?.name ?? null) : null
  })
  return (
    <View>
      <Scope />
      <SectionTitle
        aside={
          <Pressable
            accessibilityRole="button"
            aria-label="Choose a style"
            onPress={() => session.openTray("structure", "styles")}
          >
            <Text className="font-ui text-[13px] text-murex">{style ?? "Several styles"}</Text>
          </Pressable>
        }
      >
        Alignment and indent
      </SectionTitle>
      <Alignment />
      <View className="mt-2">
        <Segments label="Indent">
          {["indent-less", "indent-more", "direction", "clear-paragraph"].map((id, i) => (
            <ToolButton key={id} id={id} className={`h-11 flex-1 wide:h-9 ${i === 0 ? "" : "border-l border-line"}`} />
          ))}
        </Segments>
      </View>
      <SectionTitle>Line spacing and space</SectionTitle>
      <Spacing />
      <View className="mt-3 flex-row gap-3">
        <Length label="Space before" property="spaceBefore" />
        <Length label="Space after" property="spaceAfter" />
      </View>
      <View className="mt-2 flex-row gap-3">
        <Length label="First line" property="indentFirst" min={-400} max={400} />
        <View className="flex-1 flex-row items-end">
          <WordButton label="Hanging" onPress={() => toolNamed("hanging").run(session)} />
        </View>
      </View>
      <View className="mt-2">
        <Flag label="Space between paragraphs of one style" property="spaceAlike" />
      </View>
      <Fold title="Indents and tab stops">
        <Ruler compact />
        <View className="flex-row gap-3">
          <Length label="Start" property="indentLeft" min={-400} max={1000} />
          <Length label="End" property="indentRight" min={-400} max={1000} />
        </View>
        <Stops />
      </Fold>
      <BordersAndShading />
      <DropCaps />
      <Fold title="Sheets and hyphens">
        <Flag label="Stay with the next paragraph" property="keepNext" />
        <Flag label="Keep all lines together" property="keepTogether" />
        <Flag label="Begin on a new sheet" property="breakBefore" />
        <View className="flex-row gap-3">
          <Lines label="Lines at the foot" property="orphans" />
          <Lines label="Lines carried over" property="widows" />
        </View>
        <Flag label="Divide words at the end of lines" property="hyphenate" />
        <Pressable
          accessibilityRole="button"
          onPress={() => session.openTray("document")}
          className="h-11 justify-center wide:h-9"
        >
          <Text className="font-ui text-[14px] text-murex">Limits and line breaking of the document</Text>
        </Pressable>
      </Fold>
    </View>
  )
}
