import { Text, View } from "react-native"
import { limits, type Border } from "@biblon/core/document"
import { defaultBorder } from "@biblon/core/editing"
import { Choice, LengthField, NumberField, SectionTitle } from "../../../ui/pieces"
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
