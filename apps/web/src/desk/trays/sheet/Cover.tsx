import type { ReactNode } from "react"
import { Text, View } from "react-native"
import { coverNames, type Properties } from "@biblon/core/document"
import { coverOf, setCover, type CoverName } from "@biblon/core/editing"
import { WordButton } from "../../../ui/button"
import { SectionTitle } from "../../../ui/choice"
import { PropertyEntry } from "../../bars/PressedCard"
import { useDesk, useSession } from "../../context"
import { trying } from "../../trying"
import { Press } from "../../../ui/bar"

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

/** A first sheet that shows the properties of the document, and these. */
export function Cover() {
  const session = useSession()
  const chosen = useDesk(({ editor }) => (editor ? (coverOf(editor.doc)?.design ?? null) : null))
  return (
    <>
      <SectionTitle>Cover</SectionTitle>
      <View role="group" aria-label="Covers" className="flex-row flex-wrap gap-2">
        {coverNames.map((design) => (
          <Press
            key={design}
            type="button"
            aria-pressed={chosen === design}
            className={`flex flex-col items-center gap-1 rounded-button border-0 p-1.5 text-[13px] ${chosen === design ? "bg-murex-soft font-ui-bold text-murex" : "bg-transparent font-ui text-ink hover:bg-murex-soft/50"}`}
            {...trying(session, setCover(chosen === design ? null : design))}
          >
            <CoverDrawing design={design} />
            {coverWords[design]}
          </Press>
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
