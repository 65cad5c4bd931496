import { Text, View } from "react-native"
import { documentAttrs, textWidth, type ParagraphFormat } from "@biblon/core/document"
import { formatOfStyle, paragraphValues, styleValue } from "@biblon/core/editing"
import { ToolButton } from "../../../commands/ToolButton"
import { WordButton } from "../../../ui/button"
import { Fold, SectionTitle, Segment, Segments } from "../../../ui/choice"
import { Ruler } from "../../bars/Ruler"
import { toolNamed } from "../../../commands/registry"
import { useDesk, useSession } from "../../context"
import { BorderEditor } from "./BorderEditor"
import { Colours, tints } from "./Colours"
import { DropCapEditor } from "./DropCapEditor"
import { Scope, useShaping } from "./Scope"
import { TabStops } from "./TabStops"
import { Spacing } from "./LineSpacing"
import { Flag, Length, Lines, useParagraph } from "./paragraphFields"
import { Press } from "../../../ui/bar"

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
          <Press
            aria-label="Choose a style"
            onClick={() => session.opening.tray("structure", "styles")}
            className="-my-3 -mr-2 px-2 py-3"
          >
            <Text className="font-ui text-[13px] text-murex">{style ?? "Several styles"}</Text>
          </Press>
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
        <Press
          onClick={() => session.opening.tray("document")}
          className="flex min-w-0 flex-col shrink-0 h-11 justify-center wide:h-9"
        >
          <Text className="font-ui text-[14px] text-murex">Limits and line breaking of the document</Text>
        </Press>
      </Fold>
    </View>
  )
}
