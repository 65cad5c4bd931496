/** A paragraph's text as shaped runs: one run for each stretch in the same look, face and script. */
import type { Node } from "prosemirror-model"
import { blockText, fieldText, letterLook, type LetterFormat, type RunLook } from "../document"
import { joinsPrevious, type FontLibrary } from "./fonts/library"
import type { FaceId } from "./fonts/catalogue"
import type { ShapedRun } from "./types"

/** Text that needs no look at its characters one by one: no fallback faces, no change of script. */
const plain = /^[\u0020-\u007e\u00a0-\u024f\u2010-\u2026]*$/

const longestRun = 20000

function scriptOf(codePoint: number): "common" | "latin" | "greek" | "cyrillic" | "other" {
  if (codePoint < 0x41) return "common"
  if (codePoint < 0x370) return codePoint < 0xc0 && !/[A-Za-z\u00aa\u00b5\u00ba]/.test(String.fromCharCode(codePoint)) ? "common" : "latin"
  if (codePoint < 0x400 || (codePoint >= 0x1f00 && codePoint < 0x2000)) return "greek"
  if (codePoint < 0x530) return "cyrillic"
  if (codePoint >= 0x1e00 && codePoint < 0x1f00) return "latin"
  if ((codePoint >= 0x2000 && codePoint < 0x2c00) || codePoint >= 0x1f000) return "common"
  return "other"
}

export function shapeRun(fonts: FontLibrary, text: string, from: number, to: number, face: FaceId, look: RunLook): ShapedRun {
  const font = fonts.font(face)
  const glyphs = font.shape(text, from, to, { language: look.language })
  const scale = look.size / font.metrics.upem
  const { underlinePosition, underlineThickness } = font.metrics
  const underline = { y: (-underlinePosition - underlineThickness / 2) * scale, thickness: underlineThickness * scale }
  return { from, to, face, look, scale, glyphs, underline, rtl: false, shows: null }
}

/** A field's text as one run that cannot be divided: all its glyphs belong to the field's offset. */
function shapeField(fonts: FontLibrary, shows: string, offset: number, look: RunLook): ShapedRun {
  const run = shapeRun(fonts, shows, 0, shows.length, fonts.faceFor(shows.codePointAt(0) ?? 0x20, look.family, look.bold, look.italic), look)
  return { ...run, from: offset, to: offset + 1, glyphs: { ...run.glyphs, clusters: run.glyphs.clusters.map(() => offset), unsafe: run.glyphs.unsafe.map(() => 0) }, shows }
}

/** Shaped runs in the order of the text. Tabs and line breaks get no run: they leave gaps between runs. */
export function shapeParagraph(fonts: FontLibrary, paragraph: Node, base: LetterFormat): ShapedRun[] {
  const text = blockText(paragraph)
  const runs: ShapedRun[] = []
  const add = (from: number, to: number, face: FaceId, look: RunLook) => {
    for (let at = from; at < to; at += longestRun) runs.push(shapeRun(fonts, text, at, Math.min(to, at + longestRun), face, look))
  }
  paragraph.forEach((child, offset) => {
    const look = letterLook(base, child.marks)
    if (child.type.name === "field") runs.push(shapeField(fonts, fieldText(child, look.language), offset, look))
    if (!child.isText) return
    const end = offset + child.nodeSize
    const wish = fonts.faceFor(0x20, look.family, look.bold, look.italic)
    if (plain.test(child.text ?? "")) return add(offset, end, wish, look)

    let from = offset
    let face = wish
    let script = "common"
    for (let at = offset; at < end; ) {
      const codePoint = text.codePointAt(at) ?? 0
      const length = codePoint > 0xffff ? 2 : 1
      if (codePoint === 0x09) {
        if (from < at) add(from, at, face, look)
        from = at + 1
      } else if (!(joinsPrevious(codePoint) && at > from)) {
        const ownFace = fonts.faceFor(codePoint, look.family, look.bold, look.italic)
        const ownScript = scriptOf(codePoint)
        const changes = ownFace !== face || (ownScript !== "common" && script !== "common" && ownScript !== script)
        if (changes && from < at) {
          add(from, at, face, look)
          from = at
          script = "common"
        }
        face = ownFace
        if (ownScript !== "common") script = ownScript
      }
      at += length
    }
    if (from < end) add(from, end, face, look)
  })
  return runs
}
