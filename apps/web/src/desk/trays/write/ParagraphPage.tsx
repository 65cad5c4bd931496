import { useState } from "react"
import { Pressable, Text, View } from "react-native"
import { documentAttrs, type Border, type LineSpacing, type ParagraphFormat, type RulePattern } from "@biblon/core/document"
import { defaultBorder, paragraphValue, setBorder, setDropCap, setParagraphs, styleValue, toggleParagraph } from "@biblon/core/editing"
import { ToolButton } from "../../../commands/ToolButton"
import { Choice, Fold, LengthField, NumberField, SectionTitle, Segment, Segments, Switch, WordButton } from "../../../ui/pieces"
import { Ruler } from "../../bars/Ruler"
import { useDesk, useSession } from "../../context"
import { Colours, inks, tints } from "./Colours"
import { TabStops } from "./TabStops"

export function useParagraph<K extends keyof ParagraphFormat>(property: K): ParagraphFormat[K] | undefined {
  return useDesk(({ editor }) => (editor ? paragraphValue(editor, property) : undefined))
}

const multiples = [1, 1.15, 1.5, 2]
const rules = [["multiple", "Times"], ["exact", "Exactly"], ["atLeast", "At least"]] as const

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
  const set = (lineSpacing: LineSpacing) => session.run(setParagraphs({ lineSpacing }))
  return (
    <>
      <Segments label="Line spacing">
        {multiples.map((value, i) => (
          <Segment key={value} first={i === 0} label={String(value)} on={value === multiple} onPress={() => set({ rule: "multiple", value })} />
        ))}
        <Segment label={unusual ? (multiple !== undefined ? String(multiple) : `${spacing.value} pt`) : "other"} on={other || unusual} onPress={() => setOther(!other)} />
      </Segments>
      {other ? (
        <View className="mt-2 flex-row items-end gap-2">
          <Choice label="Measured" value={spacing?.rule} options={rules} onChange={(rule) => set(byRule(rule, spacing))} />
          <NumberField
            label="Line spacing"
            value={spacing?.value}
            min={spacing?.rule === "multiple" ? 0.5 : 1}
            max={spacing?.rule === "multiple" ? 10 : 1000}
            step={(value, direction) => Math.round((value + direction * (spacing?.rule === "multiple" ? 0.05 : 1)) * 100) / 100}
            onChange={(value) => set({ ...(spacing ?? { rule: "multiple" }), value } as LineSpacing)}
          />
        </View>
      ) : null}
    </>
  )
}

function Length({ label, property, min = 0, max = 400 }: { label: string; property: "spaceBefore" | "spaceAfter" | "indentLeft" | "indentRight" | "indentFirst"; min?: number; max?: number }) {
  const session = useSession()
  const value = useParagraph(property)
  return <LengthField label={label} value={value} min={min} max={max} onChange={(points) => session.run(setParagraphs({ [property]: points }))} />
}

function Flag({ label, property }: { label: string; property: "keepNext" | "keepTogether" | "breakBefore" | "hyphenate" | "spaceAlike" }) {
  const session = useSession()
  const value = useParagraph(property)
  return <Switch label={label} on={value === true} mixed={value === undefined} onChange={() => session.run(toggleParagraph(property))} />
}

function Lines({ label, property }: { label: string; property: "orphans" | "widows" }) {
  const session = useSession()
  const value = useParagraph(property)
  return (
    <View className="flex-1 gap-1">
      <Text className="font-ui text-[13px] text-ink-soft">{label}</Text>
      <NumberField label={label} value={value} min={1} max={9} step={(n, d) => n + d} onChange={(n) => session.run(setParagraphs({ [property]: Math.round(n) }))} />
    </View>
  )
}

const sides = [["around", "All round"], ["top", "Above"], ["bottom", "Below"], ["left", "Left"], ["right", "Right"], ["between", "Between"]] as const
type Side = (typeof sides)[number][0]
const patterns: readonly (readonly [RulePattern | "none", string])[] = [["none", "None"], ["solid", "Solid"], ["double", "Double"], ["dotted", "Dotted"], ["dashed", "Dashed"], ["wavy", "Wavy"]]

function BordersAndShading() {
  const session = useSession()
  const [side, setSide] = useState<Side>("around")
  const { borders, shading } = useDesk(({ editor }) => ({ borders: editor ? paragraphValue(editor, "borders") : undefined, shading: editor ? paragraphValue(editor, "shading") : undefined }))
  const border = borders?.[side === "around" ? "top" : side] ?? null
  const change = (by: Partial<Border>) => session.run(setBorder(side, { ...(border ?? defaultBorder), ...by }))
  return (
    <Fold title="Borders and background">
      <View className="flex-row gap-2">
        <Choice label="Side" value={side} options={sides} onChange={setSide} />
        <Choice label="Line" value={border?.pattern ?? "none"} options={patterns} onChange={(pattern) => (pattern === "none" ? session.run(setBorder(side, null)) : change({ pattern }))} />
      </View>
      {border ? (
        <>
          <View className="flex-row gap-2">
            <View className="flex-1 gap-1">
              <Text className="font-ui text-[13px] text-ink-soft">Thickness (pt)</Text>
              <NumberField label="Thickness of the border" value={border.width} min={0.25} max={36} step={(n, d) => (d > 0 ? n + (n < 1 ? 0.25 : 0.5) : n - (n <= 1 ? 0.25 : 0.5))} onChange={(width) => change({ width })} />
            </View>
            <LengthField label="Distance" value={border.distance} min={0} max={200} onChange={(distance) => change({ distance })} />
          </View>
          <Colours label="Colour of the border" value={border.colour} palette={inks} set={(colour) => setBorder(side, { ...border, colour: colour ?? border.colour })} />
        </>
      ) : null}
      <Colours label="Background of the paragraph" value={shading} palette={tints} none="No background" set={(colour) => setParagraphs({ shading: colour })} />
    </Fold>
  )
}

function DropCaps() {
  const session = useSession()
  const cap = useParagraph("dropCap")
  const families = useDesk(({ editor }) => (editor ? Object.keys(documentAttrs(editor.doc).styles.fonts).join("\n") : ""))
  const named = ["Literata", "Playfair Display", "EB Garamond", "Libre Baskerville", "Great Vibes", "Dancing Script", ...families.split("\n").filter(Boolean)]
  const own = cap?.family
  const options = [["", "That of the text"] as const, ...named.map((name) => [name, name] as const), ...(own && !named.includes(own) ? [[own, own] as const] : [])]
  return (
    <Fold title="Drop cap and line across">
      <Switch label="Drop cap" on={Boolean(cap)} mixed={cap === undefined} onChange={(on) => session.run(setDropCap(on ? { lines: 3, distance: 6, family: null } : null))} />
      {cap ? (
        <>
          <View className="flex-row gap-2">
            <View className="flex-1 gap-1">
              <Text className="font-ui text-[13px] text-ink-soft">Lines high</Text>
              <NumberField label="Lines of the drop cap" value={cap.lines} min={2} max={9} step={(n, d) => n + d} onChange={(lines) => session.run(setDropCap({ ...cap, lines: Math.round(lines) }))} />
            </View>
            <LengthField label="Distance" value={cap.distance} min={0} max={100} onChange={(distance) => session.run(setDropCap({ ...cap, distance }))} />
          </View>
          <Choice label="Typeface of the drop cap" value={cap.family ?? ""} options={options} onChange={(family) => session.run(setDropCap({ ...cap, family: family === "" ? null : family }))} />
        </>
      ) : null}
      <View className="flex-row">
        <WordButton label="Put a line across below" onPress={() => session.runTool("line-across")} />
      </View>
    </Fold>
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
      <SectionTitle
        aside={
          <Pressable accessibilityRole="button" aria-label="Choose a style" onPress={() => session.openTray("structure", "styles")}>
            <Text className="font-ui text-[13px] text-murex">{style ?? "Several styles"}</Text>
          </Pressable>
        }
      >
        Alignment and indent
      </SectionTitle>
      <Segments label="Alignment">
        {["align-left", "align-center", "align-right", "align-justify"].map((id, i) => (
          <ToolButton key={id} id={id} className={`h-11 flex-1 wide:h-9 ${i === 0 ? "" : "border-l border-line"}`} />
        ))}
      </Segments>
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
      <View className="mt-2">
        <Flag label="Space between paragraphs of one style" property="spaceAlike" />
      </View>
      <Fold title="Indents and tab stops">
        <Ruler compact />
        <View className="flex-row gap-3">
          <Length label="Start" property="indentLeft" min={-400} max={1000} />
          <Length label="End" property="indentRight" min={-400} max={1000} />
        </View>
        <View className="flex-row gap-3">
          <Length label="First line" property="indentFirst" min={-400} max={400} />
          <View className="flex-1 flex-row items-end">
            <WordButton label="Hanging" onPress={() => session.runTool("hanging")} />
          </View>
        </View>
        <TabStops />
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
        <Pressable accessibilityRole="button" onPress={() => session.openTray("document")} className="h-11 justify-center wide:h-9">
          <Text className="font-ui text-[14px] text-murex">Limits and line breaking of the document</Text>
        </Pressable>
      </Fold>
    </View>
  )
}
