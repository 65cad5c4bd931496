import type { ReactNode } from "react"
import { Text, View } from "react-native"
import {
  coverNames,
  documentAttrs,
  limits,
  type Border,
  type Properties,
  type RulePattern,
  type Watermark,
} from "@biblon/core/document"
import { coverOf, defaultBorder, setCover, type CoverName } from "@biblon/core/editing"
import { families } from "@biblon/core/layout/catalogue"
import { Choice, LengthField, NumberField, SectionTitle, WordButton } from "../../../ui/pieces"
import { useTyped } from "../../../ui/typed"
import { PropertyEntry } from "../../bars/PressedCard"
import { useDesk, useSession } from "../../context"
import { trying } from "../../trying"
import { Colours, inks } from "../write/Colours"
import { Slide } from "../write/Slide"
import { SheetDrawing } from "./SheetDrawing"
import { useSetup } from "./useSetup"

const usual: Watermark = { text: "Draft", family: "Literata", size: 120, angle: 45, colour: "#7a1f4b", strength: 0.15 }
const offered = ["Draft", "Copy", "In confidence"]

/** Words behind the text. */
function Mark() {
  const { session, setup, change, command } = useSetup()
  const watermark = setup?.watermark ?? null
  const own = useDesk(({ editor }) => (editor ? Object.keys(documentAttrs(editor.doc).styles.fonts).join("\n") : ""))
  const made = (part: Partial<Watermark>) =>
    command((now) => ({ ...now, watermark: { ...usual, ...now.watermark, ...part } }), "Watermark")
  const put = (part: Partial<Watermark> | null) =>
    change(
      (now) => ({ ...now, watermark: part && { ...usual, ...now.watermark, ...part } }),
      part ? "Watermark" : "No watermark",
    )
  const typed = useTyped(watermark?.text ?? "", (text) => put(text.trim() === "" ? null : { text: text.trim() }))
  return (
    <>
      <SectionTitle>Watermark</SectionTitle>
      <input
        aria-label="Words behind the text"
        placeholder="Words behind the text"
        maxLength={limits.watermark}
        {...typed}
        className="h-11 w-full rounded-button border border-line bg-raised px-3 font-ui text-[15px] text-ink wide:h-9"
      />
      <View className="flex-row gap-2">
        {offered.map((text) => (
          <button
            key={text}
            type="button"
            aria-pressed={watermark?.text === text}
            className={`h-11 min-w-0 flex-1 cursor-pointer rounded-button border border-line px-1 text-[14px] wide:h-9 ${watermark?.text === text ? "bg-murex-soft font-ui-bold text-murex" : "bg-raised font-ui text-ink hover:bg-murex-soft/50"}`}
            {...trying(session, made({ text }))}
          >
            {text}
          </button>
        ))}
      </View>
      {watermark ? (
        <>
          <View className="flex-row gap-2">
            <Choice
              label="Typeface"
              value={watermark.family}
              options={[...families.map(({ name }) => name), ...own.split("\n").filter(Boolean)].map(
                (name) => [name, name] as const,
              )}
              onChange={(family) => put({ family })}
            />
            <WordBelow label="Take it away" onPress={() => put(null)} />
          </View>
          <Slide
            label="Size (pt), less where the sheet is too small"
            value={watermark.size}
            min={12}
            max={300}
            step={6}
            typed={limits.size}
            set={(size) => made({ size })}
          />
          <Slide
            label="Angle"
            value={watermark.angle}
            min={-90}
            max={90}
            step={5}
            typed={limits.angle}
            set={(angle) => made({ angle })}
          />
          <Slide
            label="Strength (%)"
            value={Math.round(watermark.strength * 100)}
            min={2}
            max={100}
            step={1}
            set={(strength) => made({ strength: strength / 100 })}
          />
          <Colours
            label="Colour of the words"
            value={watermark.colour}
            palette={inks}
            set={(colour) => made({ colour: colour ?? usual.colour })}
          />
        </>
      ) : null}
    </>
  )
}

/** A button beside a choice with words above it. */
function WordBelow({ label, onPress }: { label: string; onPress: () => void }) {
  return (
    <View className="flex-1 flex-row items-end">
      <WordButton label={label} onPress={onPress} />
    </View>
  )
}

const patterns: readonly (readonly [RulePattern | "none", string])[] = [
  ["none", "None"],
  ["solid", "Solid"],
  ["double", "Double"],
  ["dotted", "Dotted"],
  ["dashed", "Dashed"],
  ["wavy", "Wavy"],
]

const usualFrame: Border = { ...defaultBorder, width: 1, distance: 30 }

/** A line round each sheet. */
function Frame() {
  const { setup, change, command } = useSetup()
  if (!setup) return null
  const { frame } = setup
  const made = (part: Partial<Border>) => (now: typeof setup) => ({
    ...now,
    frame: { ...usualFrame, ...now.frame, ...part },
  })
  const put = (part: Partial<Border>) => change(made(part), "Line round the sheet")
  return (
    <>
      <SectionTitle>Line round the sheet</SectionTitle>
      <View className="flex-row gap-2">
        <Choice
          label="Line"
          value={frame?.pattern ?? "none"}
          options={patterns}
          onChange={(pattern) =>
            pattern === "none"
              ? change((now) => ({ ...now, frame: null }), "No line round the sheet")
              : put({ pattern })
          }
        />
        {frame ? (
          <View className="flex-1 gap-1">
            <Text className="font-ui text-[13px] text-ink-soft">Thickness (pt)</Text>
            <NumberField
              label="Thickness of the line"
              value={frame.width}
              min={limits.border.width[0]}
              max={limits.border.width[1]}
              step={(n, d) => n + d * (n < 1 || (n === 1 && d < 0) ? 0.25 : 0.5)}
              onChange={(width) => put({ width })}
            />
          </View>
        ) : null}
      </View>
      {frame ? (
        <>
          <LengthField
            label="From the edge of the paper"
            value={frame.distance}
            min={limits.border.distance[0]}
            max={limits.border.distance[1]}
            onChange={(distance) => put({ distance })}
          />
          <Colours
            label="Colour of the line"
            value={frame.colour}
            palette={inks}
            set={(colour) => command(made({ colour: colour ?? usualFrame.colour }), "Line round the sheet")}
          />
        </>
      ) : null}
    </>
  )
}

const coverWords: Readonly<Record<CoverName, string>> = {
  pier: "Pier",
  slipway: "Slipway",
  chart: "Chart",
  ledger: "Ledger",
}

/** A cover as a small drawing: where its title stands, and what is beside it. */
function CoverDrawing({ design }: { design: CoverName }) {
  const line = (x: number, y: number, width: number, height = 2, colour = "#5e564b") => (
    <rect key={`${x} ${y}`} x={x} y={y} width={width} height={height} fill={colour} />
  )
  const murex = "#7a1f4b"
  const parts: Record<CoverName, ReactNode[]> = {
    pier: [
      line(6, 8, 16),
      line(6, 34, 2, 12, murex),
      line(11, 35, 28, 4, "#1e1a16"),
      line(11, 42, 18),
      line(6, 58, 14),
    ],
    slipway: [
      line(17, 8, 16),
      line(8, 22, 34, 1, murex),
      line(12, 26, 26, 4, "#1e1a16"),
      line(8, 34, 34, 1, murex),
      line(16, 39, 18),
      line(18, 58, 14),
    ],
    chart: [
      line(6, 12, 38, 16, murex),
      line(9, 18, 26, 4, "#ffffff"),
      line(6, 34, 18),
      line(6, 54, 14),
      line(6, 59, 20),
    ],
    ledger: [
      <rect key="frame" x="3" y="3" width="44" height="64" fill="none" stroke="#5e564b" />,
      line(8, 26, 30, 4, "#1e1a16"),
      line(8, 42, 34, 1),
      line(8, 49, 34, 1),
      line(8, 56, 34, 1),
    ],
  }
  return (
    <svg viewBox="0 0 50 70" width="50" height="70" aria-hidden className="shadow-sm">
      <rect width="50" height="70" fill="#ffffff" />
      {parts[design]}
    </svg>
  )
}

const properties: readonly (keyof Properties)[] = ["title", "subtitle", "author", "organisation", "date"]

function Cover() {
  const session = useSession()
  const chosen = useDesk(({ editor }) => (editor ? (coverOf(editor.doc)?.design ?? null) : null))
  return (
    <>
      <SectionTitle>Cover</SectionTitle>
      <View role="group" aria-label="Covers" className="flex-row flex-wrap gap-2">
        {coverNames.map((design) => (
          <button
            key={design}
            type="button"
            aria-pressed={chosen === design}
            className={`flex cursor-pointer flex-col items-center gap-1 rounded-button border-0 p-1.5 text-[13px] ${chosen === design ? "bg-murex-soft font-ui-bold text-murex" : "bg-transparent font-ui text-ink hover:bg-murex-soft/50"}`}
            {...trying(session, setCover(chosen === design ? null : design))}
          >
            <CoverDrawing design={design} />
            {coverWords[design]}
          </button>
        ))}
      </View>
      {chosen ? (
        <View className="flex-row">
          <WordButton label="Take the cover away" onPress={() => void session.run(setCover(null))} />
        </View>
      ) : (
        <Text className="font-ui text-[13px] leading-5 text-ink-soft">
          A first sheet that shows what is written here. Change the design at any time; the words stay.
        </Text>
      )}
      {properties.map((property) => (
        <PropertyEntry key={property} property={property} />
      ))}
    </>
  )
}

/** What stands behind the text, round it, and before it. */
export function BehindPage() {
  const { setup } = useSetup()
  if (!setup) return null
  return (
    <View className="gap-3 pt-4">
      <SheetDrawing setup={setup} />
      <Mark />
      <Frame />
      <Cover />
    </View>
  )
}
