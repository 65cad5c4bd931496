import { useStore } from "zustand"
import { Text, View } from "react-native"
import { Segment } from "../../ui/choice"
import { useDesk, useSession } from "../context"
import { FloatingCard } from "./FloatingCard"
import type { PasteWay } from "../input/clipboard"
import { Bar, Press } from "../../ui/bar"

const ways: readonly { way: PasteWay; label: string }[] = [
  { way: "asItWas", label: "As it was" },
  { way: "asHere", label: "In the look of here" },
  { way: "textOnly", label: "Text only" },
]
const width = 330

/** After a paste: the other ways to do it. */
export function PasteCard() {
  const session = useSession()
  const { offered, pasting } = useStore(session.clipboard.store)
  const caret = useDesk((s) => (offered ? s.view.caret : null))
  if (pasting)
    return (
      <View
        role="status"
        aria-live="polite"
        className="absolute bottom-[84px] left-1/2 z-20 flex-row items-center gap-3 rounded-tray border border-line bg-surface px-4 py-1 shadow-md wide:bottom-10"
        style={{ transform: [{ translateX: "-50%" }] }}
      >
        <Text className="font-ui text-[14px] text-ink">
          {pasting.done === 0 ? "Reading what was pasted" : `Pasted ${pasting.done} paragraphs`}
        </Text>
        <Press
          onClick={() => session.clipboard.stop()}
          className="flex min-w-0 flex-col shrink-0 h-11 justify-center px-2"
        >
          <Text className="font-ui-bold text-[14px] text-murex">Stop</Text>
        </Press>
      </View>
    )
  if (!offered || !caret) return null
  return (
    <FloatingCard label="How to paste" by={caret} width={width}>
      <Bar label="How to paste">
        {ways.map(({ way, label }, i) => (
          <Segment
            key={way}
            first={i === 0}
            label={label}
            on={way === offered.way}
            onPress={() => session.clipboard.again(way)}
          />
        ))}
      </Bar>
    </FloatingCard>
  )
}
