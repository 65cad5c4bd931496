import { createPortal } from "react-dom"
import { View } from "react-native"
import { ToolButton } from "../../commands/ToolButton"
import { Swatches } from "../../ui/icons"
import { Glyph } from "../../ui/glyph"
import { useDesk, useSession } from "../context"
import { useStyleName } from "./Strip"
import { Bar, Press } from "../../ui/bar"

const tools = [
  "bold",
  "italic",
  "underline",
  "link",
  "align-left",
  "align-center",
  "align-right",
  "align-justify",
  "copy",
  "cut",
]
const size = { width: 40, height: 46 + tools.length * 32, gap: 10 }

/**
 * The most used tools, upright in the margin beside the selection, so that no line of the text is covered. Lies on the canvas, so
 * it moves with the text.
 */
export function SelectionBar() {
  const session = useSession()
  const style = useStyleName()
  const { canvas, at, column } = useDesk((s) => {
    const shown = s.editor !== null && !s.editor.selection.empty && s.writing && !s.touch && s.view.picture === null
    const { from, to } = s.view.selection
    return { canvas: s.canvas, at: shown ? (from ?? to) : null, column: s.view.column }
  })
  const host = canvas?.parentElement
  if (!canvas || !host || !at) return null
  const lowest = host.scrollTop + host.clientHeight - size.height - size.gap
  const top = Math.max(host.scrollTop + size.gap, Math.min(lowest, at.y - 8))
  const edge = column ? column.x + column.width + size.gap : at.x
  const left = Math.max(8, Math.min(canvas.clientWidth - size.width - 8, edge))
  return createPortal(
    <div
      className="floating absolute left-0 top-0 z-10 cursor-default"
      style={{ transform: `translate(${left}px, ${top}px)` }}
    >
      <Bar
        label="Tools for the selection"
        upright
        className="items-center rounded-tray border border-line bg-surface py-1 shadow-md"
        style={{ width: size.width }}
      >
        <Press
          aria-label={`Style: ${style}`}
          title={`Style: ${style}`}
          onClick={() => session.opening.tray("structure", "styles")}
          className="flex min-w-0 flex-col shrink-0 h-8 w-8 items-center justify-center rounded-button hover:bg-murex-soft/50"
        >
          <Glyph icon={Swatches} size={20} />
        </Press>
        <View className="my-0.5 h-px w-7 bg-line" />
        {tools.map((id) => (
          <ToolButton key={id} id={id} className="h-8 w-8 rounded-button" />
        ))}
      </Bar>
    </div>,
    canvas,
  )
}
