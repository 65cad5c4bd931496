/** A sheet as an SVG picture that needs no fonts: each glyph is a path. For the shelf and for pictures of pages. */
import { lineTop, underlineOf, type FaceId, type FontLibrary, type Sheet } from "../layout"

const short = (n: number) => String(Math.round(n * 100) / 100)

export function sheetPicture(sheet: Sheet, fonts: FontLibrary): string {
  const symbols = new Map<string, { id: string; path: string }>()
  const symbol = (face: FaceId, glyph: number) => {
    const key = `${face} ${glyph}`
    let known = symbols.get(key)
    if (!known) symbols.set(key, (known = { id: `g${symbols.size}`, path: fonts.font(face).outline(glyph) }))
    return known
  }
  const drawn: string[] = []
  for (const fragment of sheet.fragments)
    for (const line of fragment.paragraph.lines.slice(fragment.from, fragment.to)) {
      const y = lineTop(fragment, line) + line.baseline
      for (const piece of line.runs) {
        const { run } = piece
        let x = 0
        const uses: string[] = []
        for (let g = piece.first; g < piece.last; g++) {
          const { id, path } = symbol(run.face, run.glyphs.ids[g] as number)
          const dx = run.glyphs.offsets?.[2 * g] ?? 0
          const dy = run.glyphs.offsets?.[2 * g + 1] ?? 0
          if (path) uses.push(`<use href="#${id}" x="${short(x + dx)}"${dy ? ` y="${short(dy)}"` : ""}/>`)
          x += run.glyphs.advances[g] as number
          if (piece.extra && fragment.paragraph.text.charCodeAt(run.glyphs.clusters[g] as number) === 0x20) x += piece.extra / run.scale
        }
        const scale = run.scale.toPrecision(5)
        drawn.push(`<g fill="${run.look.colour}" transform="matrix(${scale} 0 0 -${scale} ${short(fragment.x + piece.x)} ${short(y)})">${uses.join("")}</g>`)
        const rule = underlineOf(line, piece)
        if (rule) drawn.push(`<path fill="${run.look.colour}" d="M${short(fragment.x + rule.x)} ${short(y + rule.y)}h${short(rule.width)}v${short(rule.height)}h-${short(rule.width)}z"/>`)
      }
    }
  const defs = [...symbols.values()].filter((s) => s.path).map((s) => `<path id="${s.id}" d="${s.path}"/>`)
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${short(sheet.width)} ${short(sheet.height)}">` +
    `<defs>${defs.join("")}</defs><path fill="#fff" d="M0 0h${short(sheet.width)}v${short(sheet.height)}H0z"/>${drawn.join("")}</svg>`
  )
}
