/** The content stream of one sheet. */
import { isWordSpace, lineTop, underlineOf, type Fragment, type LineRun, type Sheet } from "../../layout"
import type { PdfFace } from "./fonts"
import { num, textString } from "./objects"

interface Drawn {
  content: string
  faces: Set<PdfFace>
  links: LinkBox[]
}

/** A linked stretch of a line, in PDF's coordinates. */
export interface LinkBox {
  to: string
  left: number
  bottom: number
  right: number
  top: number
}

const tagOf = (fragment: Fragment) => (fragment.paragraph.outline ? `H${Math.min(6, fragment.paragraph.outline)}` : "P")

function fill(colour: string): string {
  const part = (i: number) => num(parseInt(colour.slice(i, i + 2), 16) / 255)
  return `${part(1)} ${part(3)} ${part(5)} rg\n`
}

export function hasText(fragment: Fragment): boolean {
  return fragment.paragraph.lines.slice(fragment.from, fragment.to).some((line) => line.runs.length > 0)
}

/** Draws the fragments; each one with text is marked content whose number is its place among those with text. */
export function drawSheet(sheet: Sheet, faceFor: (run: LineRun) => PdfFace): Drawn {
  const faces = new Set<PdfFace>()
  const parts: string[] = []
  const links: LinkBox[] = []
  let marked = 0
  for (const fragment of sheet.fragments.filter(hasText)) {
    parts.push(`/${tagOf(fragment)}<</MCID ${marked++}>>BDC\nBT\n`)
    const rules: string[] = []
    let font = ""
    let colour = ""
    for (let i = fragment.from; i < fragment.to; i++) {
      const line = fragment.paragraph.lines[i]
      if (!line) continue
      const y = sheet.height - (lineTop(fragment, line) + line.baseline)
      for (const run of line.runs) {
        const face = faceFor(run)
        faces.add(face)
        const { look } = run.run
        const wanted = `/${face.name} ${num(look.size)} Tf\n`
        if (wanted !== font) parts.push((font = wanted))
        if (look.colour !== colour) parts.push(fill((colour = look.colour)))
        const x = fragment.x + run.x
        parts.push(`1 0 0 1 ${num(x)} ${num(y)} Tm\n`, glyphs(run, face, fragment.paragraph.text))
        if (look.link) links.push({ to: look.link, left: x, bottom: y - line.height + line.baseline, right: x + run.width, top: y + line.baseline })
        const rule = underlineOf(line, run)
        if (rule) rules.push(`${fill(look.colour)}${num(fragment.x + rule.x)} ${num(y - rule.y - rule.height)} ${num(rule.width)} ${num(rule.height)} re f\n`)
      }
    }
    parts.push("ET\n", ...rules, "EMC\n")
  }
  return { content: parts.join(""), faces, links }
}

/** Shows the glyphs of a run, corrected wherever the declared widths have drifted from where layout put them by half a thousandth. */
function glyphs(piece: LineRun, face: PdfFace, text: string): string {
  const { run, first, last, extra } = piece
  const { ids, clusters, advances, offsets } = run.glyphs
  const unit = (run.scale * 1000) / run.look.size
  const stretch = (extra * 1000) / run.look.size
  let out = "["
  let codes = ""
  let wanted = 0
  let actual = 0
  let rise = 0
  const flush = () => {
    if (codes) out += `<${codes}>`
    codes = ""
  }
  const moveTo = (x: number) => {
    const adjust = Math.round(x - actual)
    if (adjust === 0) return
    flush()
    out += -adjust
    actual += adjust
  }
  for (let g = first; g < last; ) {
    const start = clusters[g] as number
    let next = g
    while (next < last && clusters[next] === start) next++
    const end = next < last ? (clusters[next] as number) : piece.to
    const cluster = run.shows ?? text.slice(start, end)
    // Several glyphs for one text: the text is said once, around them all.
    const several = next - g > 1
    if (several) {
      flush()
      out += `]TJ\n/Span<</ActualText ${textString(cluster)}>>BDC\n[`
    }
    for (; g < next; g++) {
      const dx = (offsets?.[2 * g] ?? 0) * unit
      const dy = (offsets?.[2 * g + 1] ?? 0) * run.scale
      moveTo(wanted + dx)
      if (dy !== rise) {
        flush()
        out += `]TJ ${num(dy)} Ts[`
        rise = dy
      }
      const glyph = ids[g] as number
      codes += face.cid(glyph, cluster)
      actual += face.width(glyph)
      wanted += (advances[g] as number) * unit
    }
    if (isWordSpace(text.charCodeAt(start))) wanted += stretch
    if (several) {
      flush()
      out += "]TJ\nEMC\n["
    }
  }
  flush()
  return `${out}]TJ\n${rise !== 0 ? "0 Ts\n" : ""}`
}
