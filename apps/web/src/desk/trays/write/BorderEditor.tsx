import { useState } from "react"
import { View } from "react-native"
import { limits, type Border, type Borders, type RulePattern } from "@biblon/core/document"
import { defaultBorder, withBorder } from "@biblon/core/editing"
import { Choice } from "../../../ui/choice"
import { LengthField } from "../../../ui/field"
import { ThicknessField } from "../ThicknessField"
import { ColourField } from "./Colours"

const sides = [
  ["around", "All round"],
  ["top", "Above"],
  ["bottom", "Below"],
  ["left", "Left"],
  ["right", "Right"],
  ["between", "Between"],
] as const
type Side = (typeof sides)[number][0]
/** Lines that may be drawn. */
export const patterns: readonly (readonly [RulePattern | "none", string])[] = [
  ["none", "None"],
  ["solid", "Solid"],
  ["double", "Double"],
  ["dotted", "Dotted"],
  ["dashed", "Dashed"],
  ["wavy", "Wavy"],
]

/** What all of several borders have on a side: undefined where they differ. */
function shared(all: readonly Borders[], side: Side): Border | null | undefined {
  const of = (borders: Borders) => JSON.stringify(borders[side === "around" ? "top" : side] ?? null)
  const first = all[0]
  return first && all.every((own) => of(own) === of(first)) ? (JSON.parse(of(first)) as Border | null) : undefined
}

/**
 * Borders side by side.
 * @param all those of everything that is shaped; where they differ, a choice makes them alike
 */
export function BorderEditor({
  all,
  onChange,
}: {
  all: readonly Borders[]
  onChange: (change: (borders: Borders) => Borders) => void
}) {
  const [side, setSide] = useState<Side>("around")
  const border = shared(all, side)
  const set = (next: Border | null) => onChange((borders) => withBorder(borders, side, next))
  const change = (by: Partial<Border>) => set({ ...(border ?? defaultBorder), ...by })
  return (
    <>
      <View className="flex-row gap-2">
        <Choice label="Side" value={side} options={sides} onChange={setSide} />
        <Choice
          label="Line"
          value={border === undefined ? undefined : (border?.pattern ?? "none")}
          options={patterns}
          onChange={(pattern) => (pattern === "none" ? set(null) : change({ pattern }))}
        />
      </View>
      {border ? (
        <>
          <View className="flex-row gap-2">
            <ThicknessField
              label="Thickness of the border"
              value={border.width}
              onChange={(width) => change({ width })}
            />
            <LengthField
              label="Distance"
              value={border.distance}
              min={limits.border.distance[0]}
              max={limits.border.distance[1]}
              onChange={(distance) => change({ distance })}
            />
          </View>
          <ColourField
            label="Colour of the border"
            value={border.colour}
            onChange={(colour) => change({ colour: colour ?? border.colour })}
          />
        </>
      ) : null}
    </>
  )
}
