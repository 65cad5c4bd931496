import { View } from "react-native"
import { limits, type Border } from "@biblon/core/document"
import { defaultBorder } from "@biblon/core/editing"
import { Choice, SectionTitle } from "../../../ui/choice"
import { LengthField } from "../../../ui/field"
import { ThicknessField } from "../ThicknessField"
import { patterns } from "../write/BorderEditor"
import { Colours, inks } from "../write/Colours"
import { useSetup } from "./useSetup"

const usualFrame: Border = { ...defaultBorder, width: 1, distance: 30 }

/** A line round each sheet. */
export function LineRound() {
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
          <ThicknessField label="Thickness of the line" value={frame.width} onChange={(width) => put({ width })} />
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
