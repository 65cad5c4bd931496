import { View } from "react-native"
import { limits, type PictureFormat } from "@biblon/core/document"
import { setPicture, pictureHere } from "@biblon/core/editing"
import { Choice, Segment, Segments } from "../../../../ui/choice"
import { LengthField } from "../../../../ui/field"
import { useDesk, useSession } from "../../../context"
import { trying } from "../../../trying"
import { Press } from "../../../../ui/bar"

const wraps: readonly (readonly [PictureFormat["wrap"], string])[] = [
  ["line", "In the line"],
  ["beside", "Beside"],
  ["across", "Above, below"],
  ["under", "Under"],
  ["over", "Over"],
]

/** Lines of text round a picture, as a small drawing. */
function Drawing({ wrap }: { wrap: PictureFormat["wrap"] }) {
  const box = {
    line: [4, 3, 8, 9],
    beside: [17, 6, 15, 12],
    across: [10, 6, 16, 9],
    under: [10, 5, 16, 14],
    over: [10, 5, 16, 14],
  }[wrap] as [number, number, number, number]
  const rows = [3, 7, 11, 15, 19]
  const line = (y: number) => {
    if (wrap === "line" && y < 11) return [14, 32]
    if (wrap === "beside" && y >= 6 && y <= 18) return [4, 15]
    if (wrap === "across" && y >= 6 && y <= 15) return null
    return [4, 32]
  }
  const text = rows.map((y) => {
    const ends = line(y)
    return ends ? <line key={y} x1={ends[0]} x2={ends[1]} y1={y} y2={y} stroke="#5e564b" strokeWidth="1.4" /> : null
  })
  const picture = (
    <rect
      x={box[0]}
      y={box[1]}
      width={box[2]}
      height={box[3]}
      rx="1"
      fill="#7a1f4b"
      opacity={wrap === "under" ? 0.35 : 1}
    />
  )
  return (
    <svg viewBox="0 0 36 23" className="block w-full" aria-hidden="true">
      {wrap === "over" ? text : null}
      {picture}
      {wrap === "over" ? null : text}
    </svg>
  )
}

/** How text goes round the selected picture, tried on the sheets before it is chosen. */
export function Wrapping({
  format,
  set,
}: {
  format: PictureFormat
  set: (change: Partial<PictureFormat>, name?: string) => void
}) {
  const session = useSession()
  const pos = useDesk(({ editor }) => (editor ? (pictureHere(editor)?.pos ?? -1) : -1))
  const { wrap, across, down } = format
  return (
    <View className="gap-2">
      <View role="group" aria-label="Text round the picture" className="flex-row gap-1.5">
        {wraps.map(([value, label]) => {
          const on = wrap === value
          return (
            <Press
              key={value}
              type="button"
              aria-pressed={on}
              className={`min-w-0 flex-1 rounded-button border px-0.5 pb-1 pt-1.5 font-ui text-[12px] leading-4 ${on ? "border-murex bg-murex-soft font-ui-bold text-murex" : "border-line bg-raised text-ink hover:border-murex"}`}
              {...trying(session, setPicture(pos, { wrap: value }, `Picture: ${label.toLowerCase()}`))}
            >
              <Drawing wrap={value} />
              {label}
            </Press>
          )
        })}
      </View>
      {wrap === "line" ? null : (
        <>
          <Segments label="Where it stands across">
            {(["left", "center", "right"] as const).map((align, i) => (
              <Segment
                key={align}
                first={i === 0}
                label={{ left: "Left", center: "Middle", right: "Right" }[align]}
                on={across.align === align}
                onPress={() =>
                  set({ across: { of: across.align === null ? "column" : across.of, align, at: 0 } }, "Picture moved")
                }
              />
            ))}
          </Segments>
          <View className="flex-row gap-2">
            <Choice
              label="Of the"
              value={across.of}
              options={[
                ["column", "Column"],
                ["margins", "Margins"],
                ["sheet", "Sheet"],
              ]}
              onChange={(of) => set({ across: { ...across, of } }, "Picture moved")}
            />
            {across.align === null ? (
              <LengthField
                label="From its left"
                value={Math.round(across.at * 10) / 10}
                min={-1000}
                max={2000}
                onChange={(at) => set({ across: { ...across, at } }, "Picture moved")}
              />
            ) : null}
          </View>
          <View className="flex-row gap-2">
            <Choice
              label="Moves with"
              value={down.of}
              options={[
                ["paragraph", "Its paragraph"],
                ["margins", "Nothing: margins"],
                ["sheet", "Nothing: sheet"],
              ]}
              onChange={(of) => set({ down: { of, at: 0 } }, "Picture moved")}
            />
            <LengthField
              label="Below its top"
              value={Math.round(down.at * 10) / 10}
              min={-2000}
              max={2000}
              onChange={(at) => set({ down: { ...down, at } }, "Picture moved")}
            />
          </View>
          {wrap === "beside" || wrap === "across" ? (
            <View className="flex-row gap-2">
              {wrap === "beside" ? (
                <Choice
                  label="Text stands"
                  value={format.side}
                  options={[
                    ["both", "On both sides"],
                    ["wider", "Wider side"],
                    ["left", "Left of it"],
                    ["right", "Right of it"],
                  ]}
                  onChange={(side) => set({ side })}
                />
              ) : null}
              <LengthField
                label="Kept clear"
                inPoints
                value={format.distance}
                min={limits.picture.distance[0]}
                max={limits.picture.distance[1]}
                onChange={(distance) => set({ distance })}
              />
            </View>
          ) : null}
        </>
      )}
    </View>
  )
}
