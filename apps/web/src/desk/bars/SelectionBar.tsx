import { createPortal } from "react-dom"
import { Pressable, Text, View } from "react-native"
import { ToolButton } from "../../commands/ToolButton"
import { useDesk, useSession } from "../context"
import { useStyleName } from "./Strip"

const size = { width: 330, height: 44, gap: 10 }

/** The most used tools, by the selection and never over it. Lies on the canvas, so it moves with the text. */
export function SelectionBar() {
  const session = useSession()
  const style = useStyleName()
  const { canvas, from, to, shown } = useDesk((s) => ({
    canvas: s.canvas,
    from: s.view.selection.from,
    to: s.view.selection.to,
    shown: s.editor !== null && !s.editor.selection.empty && s.writing && !s.touch,
  }))
  if (!canvas || !shown || !to) return null
  const above = from && from.y - size.height - size.gap > canvas.parentElement!.scrollTop
  const top = above ? from.y - size.height - size.gap : to.y + to.height + size.gap
  const anchor = above ? from.x : to.x
  const left = Math.max(8, Math.min(canvas.clientWidth - size.width - 8, anchor - 40))
  return createPortal(
    <div className="floating absolute left-0 top-0 z-10 cursor-default" style={{ transform: `translate(${left}px, ${top}px)` }}>
      <View role="toolbar" aria-label="Tools for the selection" className="h-11 flex-row items-center rounded-tray border border-line bg-surface px-1 shadow-md" style={{ width: size.width }}>
        <Pressable accessibilityRole="button" aria-label={`Style: ${style}`} onPress={() => session.openTray("structure")} className="h-9 w-[104px] justify-center rounded-button px-2 hover:bg-murex-soft/50">
          <Text numberOfLines={1} className="font-ui text-[14px] text-ink">
            {style}
          </Text>
        </Pressable>
        <View className="mx-1 h-7 w-px bg-line" />
        {["bold", "italic", "underline", "link", "copy", "cut"].map((id) => (
          <ToolButton key={id} id={id} className="h-9 w-[34px] rounded-button" />
        ))}
      </View>
    </div>,
    canvas,
  )
}
