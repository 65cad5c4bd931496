import { type PointerEvent as ReactPointerEvent } from "react"
import { createPortal } from "react-dom"
import { pictureFormat, type PictureFormat } from "@biblon/core/document"
import { pictureHere, setPicture } from "@biblon/core/editing"
import { followPress, takePress } from "../../ui/followPress"
import { Glyph, murex } from "../../ui/glyph"
import { PushPin } from "../../ui/icons"
import { useDesk, useSession } from "../context"
import type { PictureSeen } from "../view/source"
import type { DeskSession } from "../session"
import { carried, corners, cropped, resized, sides, turnedBy, turnedTo, type Grip } from "./pictureGrips"

/** Length of the stem with which a picture is turned, and of the brackets and bars, in pixels. */
const [stem, bracket, bar] = [26, 14, 22]

/** Follows a press until it is let go: shows what it would come to, and takes it; Escape puts back. */
function follow(
  session: DeskSession,
  event: ReactPointerEvent<HTMLElement>,
  name: string,
  change: (dx: number, dy: number, event: PointerEvent) => Partial<PictureFormat> | null,
): void {
  if (!takePress(event)) return
  let last: Partial<PictureFormat> | null = null
  // Others may write before it meanwhile.
  const shaped = (format: Partial<PictureFormat> | null) => {
    const here = format && session.now && pictureHere(session.now)
    return here && setPicture(here.pos, format, name)
  }
  followPress(event.currentTarget, event, {
    move: (dx, dy, e) => {
      last = change(dx, dy, e)
      session.trial.show(shaped(last), "once")
    },
    end: (how) => {
      session.trial.show(null)
      session.store.setState({ guide: null })
      const shape = how === "moved" ? shaped(last) : null
      if (shape) session.run(shape)
      session.focus()
    },
  })
}

function Frame({ seen }: { seen: PictureSeen }) {
  const session = useSession()
  const { cropping, touch } = useDesk((s) => ({ cropping: s.cropping, touch: s.touch }))
  const format = useDesk(({ editor }) => {
    const here = editor && pictureHere(editor)
    return here ? pictureFormat(here.node) : null
  })
  if (!format) return null
  const { pos, x, y, width, height, turn, floats } = seen
  const resize = (event: ReactPointerEvent<HTMLElement>, grip: Grip) =>
    follow(session, event, "Size of the picture", (dx, dy, { shiftKey }) =>
      resized(seen, format, grip, dx, dy, shiftKey),
    )
  const crop = (event: ReactPointerEvent<HTMLElement>, grip: Grip) =>
    follow(session, event, "Crop", (dx, dy) => cropped(seen, format, grip, dx, dy))
  const rotate = (event: ReactPointerEvent<HTMLElement>) => {
    const box = event.currentTarget.closest(".picture-frame")?.getBoundingClientRect()
    if (!box) return
    const [cx, cy] = [box.left + box.width / 2, box.top + box.height / 2]
    follow(session, event, "Picture turned", (_dx, _dy, { clientX, clientY, shiftKey }) =>
      turnedTo(clientX - cx, clientY - cy, shiftKey),
    )
  }
  const carry = (event: ReactPointerEvent<HTMLElement>) => {
    if (!floats) return
    const { column } = session.store.getState().view
    follow(session, event, "Picture moved", (dx, dy) => {
      const { guide, change } = carried(seen, format, column, dx, dy)
      session.store.setState({ guide })
      return change
    })
  }
  const gripSize = touch ? 30 : 16
  const act = cropping ? crop : resize
  const place = ([gx, gy]: Grip) => ({
    left: ((gx + 1) / 2) * width - gripSize / 2,
    top: ((gy + 1) / 2) * height - gripSize / 2,
    width: gripSize,
    height: gripSize,
  })
  const cursor = ([gx, gy]: Grip) =>
    gx === 0
      ? "cursor-ns-resize"
      : gy === 0
        ? "cursor-ew-resize"
        : gx === gy
          ? "cursor-nwse-resize"
          : "cursor-nesw-resize"
  const colour = cropping ? "border-ochre" : "border-murex"
  return (
    <div
      className="floating picture-frame absolute left-0 top-0 z-[6]"
      style={{
        transform: `translate(${x}px, ${y}px) rotate(${turn}deg)`,
        width,
        height,
        pointerEvents: "none",
      }}
    >
      <div
        data-testid="picture-body"
        className={`absolute inset-0 ${floats ? "cursor-move touch-none" : ""}`}
        style={{ pointerEvents: floats ? "auto" : "none" }}
        onPointerDown={carry}
      />
      {corners.map((grip) => (
        <div
          key={grip.join()}
          data-testid={`picture-corner ${grip.join()}`}
          className={`absolute touch-none ${cursor(grip)}`}
          style={{ ...place(grip), pointerEvents: "auto" }}
          onPointerDown={(event) => act(event, grip)}
        >
          <span
            className={`absolute ${colour}`}
            style={{
              width: bracket,
              height: bracket,
              left: gripSize / 2 - (grip[0] > 0 ? bracket - 2 : 2),
              top: gripSize / 2 - (grip[1] > 0 ? bracket - 2 : 2),
              borderStyle: "solid",
              borderWidth: `${grip[1] < 0 ? 3 : 0}px ${grip[0] > 0 ? 3 : 0}px ${grip[1] > 0 ? 3 : 0}px ${grip[0] < 0 ? 3 : 0}px`,
            }}
          />
        </div>
      ))}
      {sides.map((grip) => (
        <div
          key={grip.join()}
          data-testid={`picture-side ${grip.join()}`}
          className={`absolute touch-none ${cursor(grip)}`}
          style={{ ...place(grip), pointerEvents: "auto" }}
          onPointerDown={(event) => act(event, grip)}
        >
          <span
            className={`absolute rounded-full ${cropping ? "bg-ochre" : "bg-murex"}`}
            style={{
              width: grip[0] === 0 ? bar : 3,
              height: grip[0] === 0 ? 3 : bar,
              left: gripSize / 2 - (grip[0] === 0 ? bar / 2 : 1.5),
              top: gripSize / 2 - (grip[0] === 0 ? 1.5 : bar / 2),
            }}
          />
        </div>
      ))}
      {cropping ? null : (
        <div
          role="slider"
          tabIndex={0}
          aria-label="Turn the picture"
          aria-valuenow={Math.round(turn)}
          aria-valuemin={-180}
          aria-valuemax={180}
          className="absolute cursor-grab touch-none"
          style={{
            left: width / 2 - gripSize / 2,
            top: -stem - gripSize / 2,
            width: gripSize,
            height: gripSize,
            pointerEvents: "auto",
          }}
          onPointerDown={rotate}
          onKeyDown={(event) => {
            const by = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key]
            if (!by) return
            event.preventDefault()
            event.stopPropagation()
            session.run(setPicture(pos, turnedBy(turn, by, event.shiftKey), "Picture turned"))
          }}
        >
          <span className="absolute w-px bg-murex" style={{ left: gripSize / 2, top: gripSize / 2, height: stem }} />
          <span
            className="absolute rounded-full border-2 border-murex bg-raised"
            style={{ left: gripSize / 2 - 5, top: gripSize / 2 - 5, width: 11, height: 11 }}
          />
        </div>
      )}
    </div>
  )
}

/** Brackets and bars round the selected picture, and a stem to turn it. */
export function PictureFrame() {
  const { seen, canvas, shown } = useDesk((s) => ({
    seen: s.view.picture,
    canvas: s.canvas,
    shown: s.mode !== "reading",
  }))
  if (!seen || !canvas || !shown) return null
  return createPortal(
    <>
      <Frame seen={seen} />
      {seen.pin ? (
        <div
          title="The picture moves with this line"
          className="floating absolute left-0 top-0 z-[6]"
          style={{ transform: `translate(${seen.pin.x - 22}px, ${seen.pin.y - 9}px)`, pointerEvents: "none" }}
        >
          <Glyph icon={PushPin} size={18} colour={murex} />
        </div>
      ) : null}
    </>,
    canvas,
  )
}
