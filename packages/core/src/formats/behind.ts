/** What stands behind the text of sheets, as office documents carry it: a shape in a head that is about as large as what it shows. */
import { asName, limits, within, type Size, type Watermark } from "../document"

/** Letters fill the height of their shape but for what hangs below their line. */
const filled = 0.85
/** A picture is that many times as wide as its size. */
const pictured = 3

/** What such a shape is called. */
export const shapeName = "Watermark"

/** By its name a shape is known for one of these, where nothing else tells. */
export const isNamedBehind = (name: string | undefined): boolean => /watermark/i.test(name ?? "")

/** What a letter is wide on average, in parts of its size: capitals, others, and what is narrow. */
function widthOf(text: string): number {
  let width = 0
  for (const sign of text)
    width += /[\s.,:;!'|iIjl]/u.test(sign)
      ? 0.3
      : sign === sign.toLowerCase() && sign !== sign.toUpperCase()
        ? 0.5
        : 0.7
  return width
}

/** How large its shape is before it is turned, in points. */
export function shapeSize({ text, size, picture }: Watermark): Size {
  if (picture) return { width: pictured * size, height: (pictured * size * picture.pixels[1]) / picture.pixels[0] }
  return { width: Math.max(size, widthOf(text) * size), height: size / filled }
}

/** What is no number leaves the colour itself. */
const fitStrength = (strength: number) => within(Number.isFinite(strength) ? strength : 1, limits.strength)

/** What a shape tells, as far as it does. */
interface ShapeTold {
  family: string
  /** Of its letters, or of the shape. */
  size: number | undefined
  height: number | undefined
  angle: number
  colour: string
  strength: number
}

/** @returns null where no words are left */
export function wordsBehind(
  words: string,
  { family, size, height, angle, colour, strength }: ShapeTold,
): Watermark | null {
  const text = asName(words, limits.watermark)
  if (text === "") return null
  return {
    text,
    family,
    size: within(size ?? Math.round((height ?? 96 / filled) * filled), limits.size),
    angle: within(angle, limits.angle),
    colour,
    strength: fitStrength(strength),
  }
}

export function pictureBehind(
  { asset, pixels }: { asset: string; pixels: readonly [number, number] },
  { width, angle, strength }: { width: number | null; angle: number; strength: number },
): Watermark {
  return {
    picture: { asset, pixels: [...pixels] },
    text: "Picture",
    family: "Arimo",
    size: within(Math.round((width ?? 96 * pictured) / pictured), limits.size),
    angle: within(angle, limits.angle),
    colour: "#808080",
    strength: fitStrength(strength),
  }
}

/** Degrees by which words rise that are turned by so many: what stands on its head is read from the other side. */
export function risen(degrees: number): number {
  if (!Number.isFinite(degrees)) return 0
  const rises = (((degrees % 360) + 540) % 360) - 180
  return Math.round(rises > 90 ? rises - 180 : rises < -90 ? rises + 180 : rises)
}
