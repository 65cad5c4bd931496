import { Text, View } from "react-native"
import { equal, fitSetup, limits, MM, papers, type PageSetup, type PaperName } from "@biblon/core/document"
import { turned } from "@biblon/core/editing"
import { Choice, Segment, Segments, SectionTitle, Switch } from "../../../ui/choice"
import { LengthField } from "../../../ui/field"
import { Colours, tints } from "../write/Colours"
import { SheetDrawing } from "./SheetDrawing"
import { useSetup } from "./useSetup"

/** Our sets of margins, in millimetres: top, right, bottom, left, and what is added for binding. */
const marginSets: readonly (readonly [name: string, mm: readonly [number, number, number, number], gutter: number])[] =
  [
    ["Standard", [25, 25, 25, 25], 0],
    ["Slim", [15, 15, 15, 15], 0],
    ["Roomy", [32, 38, 32, 38], 0],
    ["Bound", [25, 20, 25, 20], 12],
  ]

const marginsOf = ([top, right, bottom, left]: readonly [number, number, number, number]): PageSetup["margins"] => ({
  top: top * MM,
  right: right * MM,
  bottom: bottom * MM,
  left: left * MM,
})

const near = (a: number, b: number) => Math.abs(a - b) < 0.5

/** The name of the paper of a setup, whichever way it lies; null for one of one's own size. */
function paperOf({ width, height }: PageSetup): PaperName | null {
  const names = Object.keys(papers) as PaperName[]
  return (
    names.find((name) => near(papers[name].width, width) && near(papers[name].height, height)) ??
    names.find((name) => near(papers[name].width, height) && near(papers[name].height, width)) ??
    null
  )
}

export function PaperPage() {
  const { setup, change, command, limited } = useSetup()
  if (!setup) return null
  const paper = paperOf(setup)
  const sideways = setup.width > setup.height
  const choosePaper = (name: PaperName | "own") => {
    if (name === "own") return
    const { width, height } = papers[name]
    const turn = sideways !== width > height
    change((own) => ({ ...own, width: turn ? height : width, height: turn ? width : height }), `Paper ${name}`)
  }
  const margin = (side: keyof PageSetup["margins"], label: string) => (
    <LengthField
      label={label}
      value={setup.margins[side]}
      min={0}
      max={limits.space[1]}
      onChange={(value) => change((own) => ({ ...own, margins: { ...own.margins, [side]: value } }), "Margins")}
    />
  )
  return (
    <View className="gap-3 pt-4">
      <SheetDrawing
        setup={setup}
        margins={{
          set: (margins) => command((own) => ({ ...own, margins: { ...own.margins, ...margins } }), "Margins"),
          take: (margins) => change((own) => ({ ...own, margins: { ...own.margins, ...margins } }), "Margins"),
        }}
      />
      {limited ? (
        <Text role="status" className="font-ui text-[13px] leading-5 text-ochre">
          Some of it was limited, so that text keeps room on the paper.
        </Text>
      ) : null}
      <View className="flex-row items-end gap-2">
        <Choice
          label="Paper"
          value={paper ?? "own"}
          options={[
            ...(paper === null ? [["own", "A size of its own"] as const] : []),
            ...(Object.keys(papers) as PaperName[]).map((name) => [name, name] as const),
          ]}
          onChange={choosePaper}
        />
        <View className="flex-1">
          <Segments label="Orientation">
            <Segment
              first
              label="Upright"
              on={!sideways}
              onPress={() => sideways && change(turned, "Portrait orientation")}
            />
            <Segment
              label="Sideways"
              on={sideways}
              onPress={() => !sideways && change(turned, "Landscape orientation")}
            />
          </Segments>
        </View>
      </View>
      <SectionTitle>Margins</SectionTitle>
      <Segments label="Sets of margins">
        {marginSets.map(([name, mm, gutter], i) => (
          <Segment
            key={name}
            first={i === 0}
            label={name}
            on={
              near(setup.gutter, gutter * MM) &&
              equal(
                Object.values(setup.margins).map((own) => Math.round(own * 10)),
                Object.values(fitSetup({ ...setup, gutter: gutter * MM, margins: marginsOf(mm) }).margins).map((own) =>
                  Math.round(own * 10),
                ),
              )
            }
            onPress={() =>
              change(
                (own) => ({
                  ...own,
                  margins: marginsOf(mm),
                  gutter: gutter * MM,
                  mirrored: gutter > 0 || own.mirrored,
                }),
                `${name} margins`,
              )
            }
          />
        ))}
      </Segments>
      <View className="flex-row gap-2">
        {margin("top", "Top")}
        {margin("bottom", "Bottom")}
      </View>
      <View className="flex-row gap-2">
        {margin("left", setup.mirrored ? "Inside" : "Left")}
        {margin("right", setup.mirrored ? "Outside" : "Right")}
      </View>
      <Switch
        label="Inside and outside, as in a book"
        on={setup.mirrored}
        onChange={(mirrored) => change((own) => ({ ...own, mirrored }), "Inside and outside margins")}
      />
      <LengthField
        label="Gutter, added for binding"
        value={setup.gutter}
        min={0}
        max={limits.space[1]}
        onChange={(gutter) => change((own) => ({ ...own, gutter }), "Gutter")}
      />
      <View className="flex-row gap-2">
        <LengthField
          label="Width"
          value={setup.width}
          min={limits.paper[0]}
          max={limits.paper[1]}
          onChange={(width) => change((own) => ({ ...own, width }), "Width of the paper")}
        />
        <LengthField
          label="Height"
          value={setup.height}
          min={limits.paper[0]}
          max={limits.paper[1]}
          onChange={(height) => change((own) => ({ ...own, height }), "Height of the paper")}
        />
      </View>
      <SectionTitle>Colour of the paper</SectionTitle>
      <Colours
        label="Colour of the paper"
        value={setup.colour}
        palette={tints}
        none="White"
        set={(colour) => command((own) => ({ ...own, colour }), "Colour of the paper")}
      />
    </View>
  )
}
