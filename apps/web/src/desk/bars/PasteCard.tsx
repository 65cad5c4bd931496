import { createPortal } from "react-dom"
import { useStore } from "zustand"
import { Pressable, Text, View } from "react-native"
import { Segment } from "../../ui/pieces"
import { useDesk, useSession } from "../context"
import type { PasteWay } from "../input/clipboard"

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
  const { canvas, caret } = useDesk((s) => ({ canvas: s.canvas, caret: s.view.caret }))
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
        <Pressable
          accessibilityRole="button"
          onPress={() => session.clipboard.stop()}
          className="h-11 justify-center px-2"
        >
          <Text className="font-ui-bold text-[14px] text-murex">Stop</Text>
        </Pressable>
      </View>
    )
  if (!canvas || !offered || !caret) return null
  const left = Math.max(8, Math.min(canvas.clientWidth - width - 8, caret.x - 60))
  return createPortal(
    <div
      className="floating absolute left-0 top-0 z-10 cursor-default"
      style={{ transform: `translate(${left}px, ${caret.y + caret.height + 10}px)` }}
    >
      <View
        role="toolbar"
        aria-label="How to paste"
        className="flex-row overflow-hidden rounded-tray border border-line bg-surface shadow-md"
        style={{ width }}
      >
        {ways.map(({ way, label }, i) => (
          <Segment
            key={way}
            first={i === 0}
            label={label}
            on={way === offered.way}
            onPress={() => session.clipboard.again(way)}
          />
        ))}
      </View>
    </div>,
    canvas,
  )
}
