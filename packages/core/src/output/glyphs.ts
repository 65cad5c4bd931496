import { clusterOf, isWordSpace, type LineRun } from "../layout"

/** The glyphs of a piece, and where each stands: points from the left end of its baseline, y upwards. */
export function* placedGlyphs(
  { run, first, last, extra }: LineRun,
  text: string,
): Generator<{ glyph: number; x: number; y: number }> {
  const { ids, advances, offsets } = run.glyphs
  let x = 0
  for (let g = first; g < last; g++) {
    yield {
      glyph: ids[g] as number,
      x: x + (offsets?.[2 * g] ?? 0) * run.scale,
      y: (offsets?.[2 * g + 1] ?? 0) * run.scale,
    }
    x += (advances[g] as number) * run.scale
    if (extra !== 0 && run.shows === null && isWordSpace(text.charCodeAt(clusterOf(run.glyphs, g)))) x += extra
  }
}
