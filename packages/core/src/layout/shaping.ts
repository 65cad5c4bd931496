/** A paragraph's text as shaped runs: one run for each stretch in the same look, face, script and direction. */
import type { Node } from "prosemirror-model"
import { knownLanguage, letterLook, textOf, type FieldValues, type RunLook, type StyleSheet } from "../document"
import { allOf, allSafe, clusterOf, madeGlyphs, shifted } from "./fonts/glyphs"
import type { Feature, FontMetrics, ShapeOptions } from "./fonts/harfbuzz"
import { joinsPrevious, type FontLibrary } from "./fonts/library"
import type { FaceId } from "./fonts/catalogue"
import { endOfRun, runOfBefore, type Before } from "./longParagraphs"
import { pictureRun, type PictureRoom } from "./pictures"
import type { RunOptions, ShapedRun } from "./types"
import type { Unfolding } from "./unfolding"

/** Text that needs no look at its characters one by one: no fallback faces, no change of script. */
const plain = /^[\u0020-\u007e\u00a0-\u024f\u2010-\u2026]*$/

/** Size of small capitals where the face has none of its own. */
const smallCapital = 0.8

type Script = "common" | "latin" | "greek" | "cyrillic" | "hebrew" | "arabic" | "thai" | "devanagari" | "other"

function scriptOf(codePoint: number): Script {
  if (codePoint < 0x41) return "common"
  if (codePoint < 0x370)
    return codePoint < 0xc0 && !/[A-Za-z\u00aa\u00b5\u00ba]/.test(String.fromCharCode(codePoint)) ? "common" : "latin"
  if (codePoint < 0x400 || (codePoint >= 0x1f00 && codePoint < 0x2000)) return "greek"
  if (codePoint < 0x530) return "cyrillic"
  if ((codePoint >= 0x590 && codePoint < 0x600) || (codePoint >= 0xfb1d && codePoint < 0xfb50)) return "hebrew"
  if (
    (codePoint >= 0x600 && codePoint < 0x8ff) ||
    (codePoint >= 0xfb50 && codePoint < 0xfe00) ||
    (codePoint >= 0xfe70 && codePoint < 0xff00)
  )
    return "arabic"
  if (codePoint >= 0x900 && codePoint < 0x980) return "devanagari"
  if (codePoint >= 0xe00 && codePoint < 0xe80) return "thai"
  if (codePoint >= 0x1e00 && codePoint < 0x1f00) return "latin"
  if ((codePoint >= 0x2000 && codePoint < 0x2c00) || codePoint >= 0x1f000) return "common"
  return "other"
}

/** A text in capitals that is as long as before: letters whose capital is longer stay as they are. */
export function capitals(text: string, language: string): string {
  const upper = text.toLocaleUpperCase(knownLanguage(language))
  if (upper.length === text.length) return upper
  return [...text]
    .map((letter) => {
      const capital = letter === "ß" ? "ẞ" : letter.toLocaleUpperCase(knownLanguage(language))
      return capital.length === letter.length ? capital : letter
    })
    .join("")
}

/** A size at which the browser's advances are those of the layout: see apps/web/src/desk/view/painter.ts. */
const even = (size: number) => Math.max(1, Math.round(size * 2) / 2)

/** Size and distance above the baseline of raised and lowered letters, as the face wants them if that is sensible. */
function scriptPlace(look: RunLook, metrics: FontMetrics): { size: number; rise: number } {
  if (look.script === "none") return { size: look.size, rise: look.raise }
  const { size, offset } = look.script === "super" ? metrics.superscript : metrics.subscript
  const ratio = size / metrics.upem
  const sensible = ratio >= 0.4 && ratio <= 0.85
  const up = sensible && offset !== 0 ? offset / metrics.upem : look.script === "super" ? 0.34 : -0.14
  return { size: even(look.size * (sensible ? ratio : 0.62)), rise: look.raise + up * look.size }
}

const noLigatures: readonly Feature[] = [
  ["liga", 0],
  ["clig", 0],
]

/** OpenType features of a look; undefined where all is as the face has it. */
export function featuresOf(look: RunLook, smallCaps: boolean): readonly Feature[] | undefined {
  if (look.ligatures && look.spacing === 0 && look.kerning && look.caps !== "small") return undefined
  const features: Feature[] = [
    // Letters set apart do not join.
    ...(look.ligatures && look.spacing === 0 ? [] : noLigatures),
    ...(look.kerning ? [] : ([["kern", 0]] as const)),
    ...(smallCaps && look.caps === "small" ? ([["smcp", 1]] as const) : []),
  ]
  return features.length > 0 ? features : undefined
}

const plainOptions: RunOptions = {}

export function shapeRun(
  fonts: FontLibrary,
  text: string,
  from: number,
  to: number,
  face: FaceId,
  look: RunLook,
  options: RunOptions = plainOptions,
): ShapedRun {
  const { level = 0, upper = false, small = false } = options
  const font = fonts.font(face)
  const { metrics } = font
  const place = scriptPlace(look, metrics)
  const size = small ? even(place.size * smallCapital) : place.size
  const scale = size / metrics.upem
  const features = featuresOf(look, font.smallCaps)
  const shape: ShapeOptions = { language: look.language, rtl: level % 2 === 1, features }
  // Only the run's own text is turned to capitals, so that offsets stay those of the paragraph.
  let glyphs = upper
    ? shifted(font.shape(capitals(text.slice(from, to), look.language), 0, to - from, shape), from)
    : font.shape(text, from, to, shape)
  if (look.spacing !== 0) glyphs = { ...madeGlyphs(glyphs), advances: spaced(glyphs, look.spacing / scale) }
  const { underline, strike } = rulesAt(metrics, scale)
  return {
    from,
    to,
    face,
    look,
    size,
    rise: place.rise,
    scale,
    glyphs,
    underline,
    strike,
    level,
    upper,
    shows: null,
    cap: false,
  }
}

type Rules = Pick<ShapedRun, "underline" | "strike">
const rules = new WeakMap<FontMetrics, Map<number, Rules>>()

/** Where a face wants its lines at a scale: the same objects each time. */
function rulesAt(metrics: FontMetrics, scale: number): Rules {
  let known = rules.get(metrics)
  if (!known) rules.set(metrics, (known = new Map()))
  let own = known.get(scale)
  if (!own)
    known.set(
      scale,
      (own = {
        underline: ruleAt(metrics.underlinePosition, metrics.underlineThickness, scale),
        strike: ruleAt(metrics.strikePosition, metrics.strikeThickness, scale),
      }),
    )
  return own
}

/** Position and thickness in font units, the position that of the middle and upwards. */
function ruleAt(position: number, thickness: number, scale: number): { y: number; thickness: number } {
  return { y: (-position - thickness / 2) * scale, thickness: thickness * scale }
}

/** Advances with a space, in font units, behind each cluster. */
function spaced(glyphs: ShapedRun["glyphs"], space: number): Float64Array {
  const { count } = glyphs
  const wider = Float64Array.from(glyphs.advances)
  for (let g = 0; g < count; g++)
    if (g + 1 === count || clusterOf(glyphs, g + 1) !== clusterOf(glyphs, g)) wider[g] = (wider[g] as number) + space
  return wider
}

/** Text that is not the paragraph's, such as a field's or a hyphen, as one run that cannot be divided: all its glyphs belong to `from`. */
export function shapeShown(
  fonts: FontLibrary,
  shows: string,
  from: number,
  to: number,
  look: RunLook,
  level = 0,
): ShapedRun {
  const run = shapeRun(fonts, shows, 0, shows.length, fonts.faceFor(shows.codePointAt(0) ?? 0x20, look), look, {
    level,
  })
  return {
    ...run,
    from,
    to,
    glyphs: { ...allOf(run.glyphs, from), unsafe: allSafe(run.glyphs.count) },
    shows,
  }
}

/** Shaped runs in the order of the text. Tabs and line breaks get no run: they leave gaps between runs. */
export function shapeParagraph(
  fonts: FontLibrary,
  sheet: StyleSheet,
  paragraph: Node,
  base: RunLook,
  levels: Uint8Array | null,
  values: FieldValues,
  unfolding: Unfolding | null = null,
  pictures: PictureRoom | null = null,
  before: Before | null = null,
): ShapedRun[] {
  const text = unfolding?.text ?? textOf(paragraph)
  const runs: ShapedRun[] = []
  const add = (from: number, to: number, face: FaceId, look: RunLook, options: RunOptions) => {
    for (let at = from; at < to;) {
      const known = before && runOfBefore(before, at, to, { face, look, ...options })
      const run = known ?? shapeRun(fonts, text, at, endOfRun(text, at, to), face, look, options)
      runs.push(run)
      at = run.to
    }
  }
  let behind = 0
  const shapeWords = (own: string, offset: number, look: RunLook) => {
    const end = offset + own.length
    const wish = fonts.wish(look)
    const drawsSmall = look.caps === "small" && !fonts.font(wish).smallCaps
    if (!levels && !drawsSmall && plain.test(own))
      return add(offset, end, wish, look, look.caps === "all" ? { upper: true } : plainOptions)

    let from = offset
    let face = wish
    let script: Script = "common"
    let level = levels?.[offset] ?? 0
    let small = false
    const options = (): RunOptions => ({ level, upper: look.caps === "all" || small, small })
    for (let at = offset; at < end;) {
      const codePoint = text.codePointAt(at) ?? 0
      const length = codePoint > 0xffff ? 2 : 1
      if (codePoint === 0x09) {
        if (from < at) add(from, at, face, look, options())
        from = at + 1
      } else if (!(joinsPrevious(codePoint) && at > from)) {
        const next = {
          face: fonts.faceFor(codePoint, look),
          script: scriptOf(codePoint),
          level: levels?.[at] ?? 0,
          small: drawsSmall && isLower(codePoint),
        }
        const changes =
          next.face !== face ||
          next.level !== level ||
          next.small !== small ||
          (next.script !== "common" && script !== "common" && next.script !== script)
        if (changes && from < at) {
          add(from, at, face, look, options())
          from = at
          script = "common"
        }
        ;({ face, level, small } = next)
        if (next.script !== "common") script = next.script
      }
      at += length
    }
    if (from < end) add(from, end, face, look, options())
  }
  paragraph.forEach((child, at) => {
    const look = letterLook(sheet, base, child.marks)
    const offset = behind
    const stretches = unfolding?.words.get(at)
    const own = child.isText ? (child.text ?? "") : null
    behind = offset + (stretches?.reduce((sum, { text: words }) => sum + words.length, 0) ?? child.nodeSize)
    if (child.type.name === "anchor") {
      const mark: RunLook = { ...look, script: "super", raise: 0 }
      runs.push(shapeShown(fonts, values(child, look.language), offset, offset + 1, mark, levels?.[offset] ?? 0))
    }
    if (child.type.name === "picture" && pictures) {
      const run = pictureRun(fonts, child, offset, look, levels?.[offset] ?? 0, pictures)
      if (run) runs.push(run)
    }
    if (child.type.name === "field" && !stretches)
      runs.push(shapeShown(fonts, values(child, look.language), offset, offset + 1, look, levels?.[offset] ?? 0))
    if (own !== null) shapeWords(own, offset, look)
    let from = offset
    for (const { text: words, italic, raised } of stretches ?? []) {
      // What would be in italics among upright words is upright among words in italics.
      const own = {
        ...look,
        ...(italic ? { italic: !look.italic } : {}),
        ...(raised ? { script: "super" as const } : {}),
      }
      shapeWords(words, from, italic || raised ? own : look)
      from += words.length
    }
  })
  return runs
}

function isLower(codePoint: number): boolean {
  const letter = String.fromCodePoint(codePoint)
  return letter !== letter.toUpperCase()
}
