/**
 * Long paragraphs are cut into runs so that a letter typed in one leaves the others as they were, and what was set of them last is
 * known: see `takenOver.ts` for their lines.
 */
import { firstWhere, textChange, type Look, type StyleSheet, type TextChange, type Typesetting } from "../document"
import type { Breaks } from "./breaking"
import { shifted } from "./fonts/glyphs"
import type { ParagraphLayout, RunOptions, ShapedRun } from "./types"

/** Units of a run at most. */
const longestRun = 20000
/** Of so many blanks one is a place to cut a longer stretch behind. */
const blanksToCut = 1024

/**
 * Where a run of a long stretch ends: behind a blank that is chosen by the letters round it, so that a letter typed in one run leaves
 * those behind it as they were.
 */
export function endOfRun(text: string, from: number, to: number): number {
  if (to - from <= longestRun) return to
  const most = from + longestRun
  for (let at = text.indexOf(" ", from) + 1; at > 0 && at < most; at = text.indexOf(" ", at) + 1) {
    let hash = 0
    for (let i = at - 3; i < at + 3; i++) hash = (Math.imul(hash, 31) + text.charCodeAt(i)) | 0
    if (((hash >>> 5) ^ hash) % blanksToCut === 0) return at
  }
  return most
}

/** Units of text from which on a paragraph is long. */
export const longText = 20_000
/** So many such are known. */
const longKept = 4

/** What a long paragraph is set of, but for its text. */
interface LongKey {
  look: Look
  width: number
  label: string | null
  typesetting: Typesetting
  styles: StyleSheet
}

/** A long paragraph as it was set, in lines of one width. */
interface LongSet extends LongKey {
  text: string
  runs: readonly ShapedRun[]
  breaks: Breaks
  layout: ParagraphLayout
}

/** What a long paragraph was before, and what was changed in its text. */
export interface Before {
  set: LongSet
  change: TextChange
}

/** The long paragraphs that were set last. */
export class LongParagraphs {
  private sets: readonly LongSet[] = []

  /** The one that differs least from a text which is to be set alike. */
  before({ look, width, label, typesetting, styles }: LongKey, text: string): Before | null {
    let [least, best]: [number, Before | null] = [text.length / 2, null]
    for (const set of this.sets) {
      if (set.look !== look || set.width !== width || set.label !== label) continue
      if (set.typesetting !== typesetting || set.styles !== styles) continue
      const change = textChange(set.text, text)
      const changed = Math.max(change.oldTo, change.newTo) - change.from
      if (changed < least) [least, best] = [changed, { set, change }]
    }
    return best
  }

  /** Knows a paragraph in place of the one that it was before. */
  keep({ look, width, label, typesetting, styles, text, runs, breaks, layout }: LongSet, before: Before | null): void {
    const own = { look, width, label, typesetting, styles, text, runs, breaks, layout }
    this.sets = [own, ...this.sets.filter((set) => set !== before?.set)].slice(0, longKept)
  }
}

/** What is asked of the text round a place where a run is cut. */
const atCut = 3

/** The run of before that begins a stretch of text, from `at` to `to`, if it is the same in the changed text. */
export function runOfBefore(
  { set: { runs }, change }: Before,
  at: number,
  to: number,
  { face, look, level = 0, upper = false, small = false }: RunOptions & Pick<ShapedRun, "face" | "look">,
): ShapedRun | null {
  const isBehind = at >= change.newTo + atCut
  const by = isBehind ? change.newTo - change.oldTo : 0
  const index = firstWhere(runs, ({ from }) => from >= at - by)
  const run = runs[index]
  if (run?.from !== at - by || (!isBehind && run.to + atCut > change.from)) return null
  if (run.face !== face || run.look !== look || run.level !== level || run.upper !== upper || small) return null
  const next = runs[index + 1]
  const isCut = next?.from === run.to && next.look === look && next.face === face
  if (isCut ? to - at <= longestRun : run.to + by !== to) return null
  return by === 0 ? run : { ...run, from: at, to: run.to + by, glyphs: shifted(run.glyphs, by) }
}
