/**
 * Fields that show several words, which may be broken into lines like other text. While a paragraph is set they are unfolded: the
 * words stand in its text. Afterwards the lines are folded again, so that a field has one offset wherever its words stand: that of
 * its last line; pieces on lines before are no part of the text, as hyphens are.
 */
import type { Node } from "prosemirror-model"
import {
  letterLook,
  stretchesOf,
  textOf,
  type FieldValues,
  type RunLook,
  type Stretch,
  type StyleSheet,
} from "../document"
import { allOf, shifted } from "./fonts/glyphs"
import type { Line, LineRun, ShapedRun } from "./types"

/** A field whose words stand in the text: its own offset, and theirs. */
interface Unfolded {
  offset: number
  from: number
  to: number
}

export interface Unfolding {
  /** The text with the words of its fields. */
  text: string
  fields: readonly Unfolded[]
  /** The words of a field by their looks, by the offset at which it stands in the paragraph; undefined where it is not unfolded. */
  words: ReadonlyMap<number, readonly Stretch[]>
}

/** So many letters a field may have without blanks to be left whole. */
const whole = 20

/** @returns null for a paragraph without such fields, as most are */
export function unfold(styles: StyleSheet, node: Node, base: RunLook, values: FieldValues): Unfolding | null {
  const plain = textOf(node)
  if (!plain.includes("\ufffc")) return null
  const words = new Map<number, readonly Stretch[]>()
  node.forEach((child, offset) => {
    if (child.type.name !== "field") return
    const shown = values(child, letterLook(styles, base, child.marks).language).replace(/[\u0000-\u001f\ufffc]+/g, " ")
    const stretches = stretchesOf(shown)
    if (/\s/.test(shown) || shown.length > whole || stretches.some(({ italic, raised }) => italic || raised))
      words.set(offset, stretches)
  })
  if (words.size === 0) return null
  const fields: Unfolded[] = []
  let text = ""
  let done = 0
  for (const [offset, stretches] of words) {
    const own = stretches.map((stretch) => stretch.text).join("")
    text += plain.slice(done, offset)
    fields.push({ offset, from: text.length, to: text.length + own.length })
    text += own
    done = offset + 1
  }
  return { text: text + plain.slice(done), fields, words }
}

/** Lines that were set with unfolded fields, with the offsets of the paragraph. */
export function folded({ text, fields }: Unfolding, lines: readonly Line[]): Line[] {
  const fieldAt = (from: number, to: number) => fields.find((own) => from >= own.from && to <= own.to && to > from)
  const offset = (at: number) => {
    let shift = 0
    for (const own of fields) {
      if (at <= own.from) break
      if (at < own.to) return own.offset
      shift += own.to - own.from - 1
    }
    return at - shift
  }
  const runs = new Map<ShapedRun, ShapedRun>()
  const moved = (run: ShapedRun): ShapedRun => {
    let own = runs.get(run)
    if (!own) {
      const by = offset(run.from) - run.from
      own = by === 0 ? run : { ...run, from: run.from + by, to: offset(run.to), glyphs: shifted(run.glyphs, by) }
      runs.set(run, own)
    }
    return own
  }
  const piece = (own: LineRun): LineRun => {
    const field = fieldAt(own.from, own.to)
    if (!field) {
      const run =
        own.run.from === own.run.to ? { ...own.run, from: offset(own.from), to: offset(own.to) } : moved(own.run)
      return { ...own, run, from: offset(own.from), to: offset(own.to) }
    }
    const from = field.offset
    const to = own.to === field.to ? from + 1 : from
    const { run } = own
    const shows = text.slice(own.from, own.to)
    return {
      ...own,
      extra: 0,
      from,
      to,
      run: { ...run, from, to, glyphs: allOf(run.glyphs, from), shows, part: own.from - field.from },
    }
  }
  return lines.map((line) => ({
    ...line,
    from: offset(line.from),
    to: offset(line.to),
    runs: line.runs.map(piece),
    tabs: line.tabs.map((tab) => ({ ...tab, from: offset(tab.from) })),
  }))
}
