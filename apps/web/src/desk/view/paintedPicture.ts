/** Pictures as elements. */
import { frameOfPicture, outlinePath, pictureShadow, radiiOf, wholeOf, type DrawnPicture } from "@biblon/core/layout"
import { keptAddress } from "../../live/files"
import { element, px } from "./elements"

const svgSpace = "http://www.w3.org/2000/svg"

/** Milliseconds after which a picture that is not to be had is asked for again: it may be on its way from another device. */
const again = [2000, 8000, 30_000]

/** Shows a picture from the server, or from this device until that has it. */
function load(image: HTMLImageElement, asset: string): void {
  const address = `/api/assets/${asset}`
  let tried = 0
  image.onerror = () =>
    void keptAddress(asset).then((kept) => {
      const pause = again[tried++]
      if (kept && image.src !== kept) image.src = kept
      else if (pause !== undefined)
        setTimeout(() => image.isConnected && (image.src = `${address}?again=${tried}`), pause)
    })
  image.src = address
}

/** A picture whose upright box has its corner at a place of what it is put into. */
export function paintPicture(own: DrawnPicture, x: number, y: number): HTMLElement {
  const { width, height, box, turn, opacity } = own
  const outer = element("span", "picture", {
    left: px(x + (box.width - width) / 2),
    top: px(y + (box.height - height) / 2),
    width: px(width),
    height: px(height),
    transform: turn === 0 ? "" : `rotate(${turn}deg)`,
    opacity: opacity < 1 ? String(opacity) : "",
  })
  const radii = radiiOf(own)
  const corners = `${radii.map(({ x: rx }) => px(rx)).join(" ")} / ${radii.map(({ y: ry }) => px(ry)).join(" ")}`
  if (own.shadow) {
    const { by, colour } = pictureShadow
    outer.append(
      element("i", "picture-part", {
        left: px(by),
        top: px(by),
        width: px(width),
        height: px(height),
        background: colour,
        borderRadius: corners,
      }),
    )
  }
  const clip = element("i", "picture-part", {
    width: px(width),
    height: px(height),
    overflow: "hidden",
    borderRadius: corners,
    background: "transparent",
  })
  const whole = wholeOf(own)
  const image = document.createElement("img")
  load(image, own.asset)
  image.alt = own.alt
  image.draggable = false
  image.decoding = "async"
  Object.assign(image.style, {
    position: "absolute",
    left: px(whole.x),
    top: px(whole.y),
    width: px(whole.width),
    height: px(whole.height),
    maxWidth: "none",
  })
  clip.append(image)
  outer.append(clip)
  const frame = frameOfPicture(own)
  if (frame) {
    const drawing = document.createElementNS(svgSpace, "svg")
    drawing.setAttribute("class", "picture-part")
    drawing.setAttribute("style", `width:${px(width)};height:${px(height)};overflow:visible`)
    drawing.setAttribute("viewBox", `0 0 ${width} ${height}`)
    const path = document.createElementNS(svgSpace, "path")
    path.setAttribute("d", outlinePath(width, height, radii))
    path.setAttribute("fill", "none")
    path.setAttribute("stroke", frame.colour)
    path.setAttribute("stroke-width", String(frame.width))
    if (frame.dashes) path.setAttribute("stroke-dasharray", frame.dashes)
    drawing.append(path)
    outer.append(drawing)
  }
  return outer
}
