/** A sheet as an SVG picture that needs no fonts: each glyph is a path. For the shelf and for pictures of pages. */
import {
  backdropOf,
  floatsOn,
  frameOfPicture,
  outlinePath,
  picturesIn,
  pictureShadow,
  radiiOf,
  wholeOf,
  type DrawnPicture,
  fragmentsOf,
  highlightOf,
  letterRules,
  lineTop,
  outlineWidth,
  rulePath,
  tablesOf,
  shadowColour,
  shadowOffset,
  type Box,
  type FaceId,
  type FontLibrary,
  type Fragment,
  type Line,
  type LineRun,
  type Rule,
  type PlacedSheet,
} from "../layout"
import { placedGlyphs } from "./glyphs"

const short = (n: number) => String(Math.round(n * 100) / 100)

/** @param address where the bytes of a picture are to be had; null where they are not */
export function sheetPicture(
  placed: PlacedSheet,
  fonts: FontLibrary,
  address: (asset: string) => string | null = () => null,
): string {
  const { sheet } = placed
  const fragments = fragmentsOf(placed)
  const symbols = new Map<string, { id: string; path: string }>()
  const symbol = (face: FaceId, glyph: number) => {
    const key = `${face} ${glyph}`
    let known = symbols.get(key)
    if (!known) symbols.set(key, (known = { id: `g${symbols.size}`, path: fonts.font(face).outline(glyph) }))
    return known
  }
  const drawn: string[] = []
  const box = ({ x, y, width, height }: Box, colour: string) =>
    drawn.push(
      `<path fill="${colour}" d="M${short(x)} ${short(y)}h${short(width)}v${short(height)}h-${short(width)}z"/>`,
    )
  const rule = (own: Rule) => {
    if (own.pattern === "solid") return box(own, own.colour)
    const { d, stroke } = rulePath(own)
    return drawn.push(
      `<path ${stroke === null ? `fill="${own.colour}"` : `fill="none" stroke="${own.colour}" stroke-width="${short(stroke)}"`} d="${d}"/>`,
    )
  }
  const letters = (piece: LineRun, text: string, left: number, baseline: number) => {
    const { run } = piece
    const { scale, look } = run
    const uses = [...placedGlyphs(piece, text)].flatMap(({ glyph, x, y }) => {
      const { id, path } = symbol(run.face, glyph)
      return path ? [`<use href="#${id}" x="${short(x / scale)}"${y ? ` y="${short(y / scale)}"` : ""}/>`] : []
    })
    const group = (paint: string, dx: number, dy: number) =>
      drawn.push(
        `<g ${paint} transform="matrix(${scale.toPrecision(5)} 0 0 -${scale.toPrecision(5)} ${short(left + dx)} ${short(baseline + dy)})">${uses.join("")}</g>`,
      )
    if (look.shadow) group(`fill="${shadowColour(look.colour)}"`, shadowOffset * run.size, shadowOffset * run.size)
    group(
      look.outline
        ? `fill="none" stroke="${look.colour}" stroke-width="${short((outlineWidth * run.size) / scale)}"`
        : `fill="${look.colour}"`,
      0,
      0,
    )
  }
  let clips = 0
  const picture = (own: DrawnPicture, left: number, top: number) => {
    const { width, height, box: round, turn, opacity } = own
    const place = `translate(${short(left + round.width / 2)} ${short(top + round.height / 2)}) rotate(${short(turn)})`
    const outline = outlinePath(width, height, radiiOf(own), -width / 2, -height / 2)
    const [whole, href, frame, id] = [wholeOf(own), address(own.asset), frameOfPicture(own), `c${clips++}`]
    drawn.push(`<g transform="${place}"${opacity < 1 ? ` opacity="${short(opacity)}"` : ""}>`)
    const { by } = pictureShadow
    if (own.shadow)
      drawn.push(`<path transform="translate(${by} ${by})" fill="${pictureShadow.colour}" d="${outline}"/>`)
    if (href)
      drawn.push(
        `<clipPath id="${id}"><path d="${outline}"/></clipPath><image clip-path="url(#${id})" href="${href}" x="${short(whole.x - width / 2)}" y="${short(whole.y - height / 2)}" width="${short(whole.width)}" height="${short(whole.height)}" preserveAspectRatio="none"/>`,
      )
    else drawn.push(`<path fill="#e9e3d6" d="${outline}"/>`)
    if (frame)
      drawn.push(
        `<path fill="none" stroke="${frame.colour}" stroke-width="${short(frame.width)}"${frame.dashes ? ` stroke-dasharray="${frame.dashes}"` : ""} d="${outline}"/>`,
      )
    drawn.push("</g>")
  }
  const colour = sheet.start.paper?.setup.colour
  if (colour) box({ x: 0, y: 0, width: sheet.width, height: sheet.height }, colour)
  /** What is drawn of a fragment, turned as that is. */
  const turned = ({ turn }: Fragment, draw: () => void) => {
    if (turn) drawn.push(`<g transform="rotate(${short(-turn.angle)} ${short(turn.x)} ${short(turn.y)})">`)
    draw()
    if (turn) drawn.push("</g>")
  }
  const lines = (fragment: Fragment) => {
    const { paragraph } = fragment
    for (const line of paragraph.lines.slice(fragment.from, fragment.to)) {
      const top = lineTop(fragment, line)
      const baseline = top + line.baseline
      const label = fragment.from === 0 && line === (paragraph.lines[0] as Line) ? (paragraph.label?.runs ?? []) : []
      for (const leader of line.leaders) rule({ ...leader, x: fragment.x + leader.x, y: baseline + leader.y })
      for (const piece of [...label, ...line.runs]) {
        if (piece.run.picture) continue
        const lit = highlightOf(line, piece)
        if (lit) box({ ...lit, x: fragment.x + lit.x, y: top + lit.y }, lit.colour)
        letters(piece, paragraph.text, fragment.x + piece.x, baseline - piece.run.rise)
        for (const own of letterRules(line, piece)) rule({ ...own, x: fragment.x + own.x, y: baseline + own.y })
      }
    }
  }
  const pictures = (fragment: Fragment) => {
    for (const own of picturesIn(fragment)) picture(own.picture, own.x, own.y)
  }
  for (const fragment of backdropOf(placed))
    turned(fragment, () => {
      lines(fragment)
      pictures(fragment)
    })
  sheet.rules.forEach(rule)
  for (const { ground } of tablesOf(placed)) {
    for (const { colour: own, ...place } of ground.fills) box(place, own)
    ground.rules.forEach(rule)
  }
  for (const own of fragments)
    if (own.frame)
      turned(own, () => {
        if (own.frame?.shading) box(own.frame.box, own.frame.shading)
        own.frame?.rules.forEach(rule)
      })
  const floats = floatsOn(placed)
  for (const own of floats) if (own.format.wrap !== "over") picture(own.picture, own.x, own.y)
  for (const own of fragments) turned(own, () => lines(own))
  for (const own of fragments) if (picturesIn(own).length > 0) turned(own, () => pictures(own))
  for (const own of floats) if (own.format.wrap === "over") picture(own.picture, own.x, own.y)
  const defs = [...symbols.values()].filter((s) => s.path).map((s) => `<path id="${s.id}" d="${s.path}"/>`)
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${short(sheet.width)} ${short(sheet.height)}">` +
    `<defs>${defs.join("")}</defs><path fill="#fff" d="M0 0h${short(sheet.width)}v${short(sheet.height)}H0z"/>${drawn.join("")}</svg>`
  )
}
