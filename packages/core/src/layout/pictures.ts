/** Pictures in the text of a paragraph: as runs on their lines, or tied to it and set elsewhere. */
import type { Node } from "prosemirror-model"
import { pictureAttrs, pictureFormat, pictureSize, turnedSize, type RunLook, type Size } from "../document"
import { allOf, allSafe } from "./fonts/glyphs"
import type { FontLibrary } from "./fonts/library"
import type { DrawnPicture, Floating, ShapedRun } from "./types"

/** How pictures of a paragraph are set. */
export interface PictureRoom {
  /** The largest that one may be. */
  room: Size
  /** Whether those that do not stand in their line may stand elsewhere. */
  floats: boolean
}

export function holdsPictures(paragraph: Node): boolean {
  return paragraph.children.some(({ type }) => type.name === "picture")
}

function drawn(picture: Node, room: Size): DrawnPicture {
  const { asset } = pictureAttrs(picture)
  const { crop, turn, shape, frame, shadow, opacity, alt } = pictureFormat(picture)
  const size = pictureSize(picture, room)
  return { asset, box: turnedSize(size, turn), turn, crop, shape, frame, shadow, opacity, alt, ...size }
}

/** Whether a picture stands elsewhere than in its line. */
const isFloating = (picture: Node, { floats }: PictureRoom) => floats && pictureFormat(picture).wrap !== "line"

/** A picture as a run that cannot be divided; null for one that is set elsewhere. */
export function pictureRun(
  fonts: FontLibrary,
  picture: Node,
  offset: number,
  look: RunLook,
  level: number,
  place: PictureRoom,
): ShapedRun | null {
  if (isFloating(picture, place)) return null
  const own = drawn(picture, place.room)
  const face = fonts.wish(look)
  const glyphs = {
    count: 1,
    ids: new Uint16Array(1),
    first: offset,
    clusters: null,
    advances: Float64Array.of(own.box.width),
    offsets: null,
    unsafe: allSafe(1),
  }
  return {
    from: offset,
    to: offset + 1,
    face,
    look: { ...look, underline: "none", strike: "none", highlight: null, shadow: false },
    size: look.size,
    rise: 0,
    scale: 1,
    glyphs: allOf(glyphs, offset),
    underline: { y: 0, thickness: 0 },
    strike: { y: 0, thickness: 0 },
    level,
    upper: false,
    shows: "",
    cap: false,
    picture: own,
  }
}

/** Pictures of a paragraph that stand elsewhere than in their lines; null for none. */
export function floatsOf(paragraph: Node, place: PictureRoom | null): readonly Floating[] | null {
  if (!place?.floats) return null
  const found: Floating[] = []
  paragraph.forEach((child, offset) => {
    if (child.type.name === "picture" && isFloating(child, place))
      found.push({ offset, picture: drawn(child, place.room), format: pictureFormat(child) })
  })
  return found.length > 0 ? found : null
}
