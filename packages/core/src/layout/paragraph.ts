import type { Node } from "prosemirror-model"
import {
  letterLook,
  outlineLevel,
  paragraphAttrs,
  paragraphLook,
  textOf,
  type DropCap,
  type FieldValues,
  type LetterFormat,
  type ListLevel,
  type Look,
  type ParagraphFormat,
  type RunLook,
  type StyleSheet,
  type Typesetting,
} from "../document"
import { bidiLevels } from "./bidi"
import { graphemeEnds, lineBreaks } from "./breaking"
import type { FontLibrary } from "./fonts/library"
import type { Hyphenator } from "./hyphenation"
import { setLines, type SetParagraph } from "./lines"
import { lineMetrics, runWidth, spacedHeight, type Cap, type LineSource } from "./measuring"
import { anchorsOf } from "./anchors"
import { LongParagraphs, longText, type Before } from "./longParagraphs"
import { packParagraph } from "./packing"
import { shapeParagraph, shapeRun, shapeShown } from "./shaping"
import { sameInsets, sameShape } from "./boxes"
import { bottomOf } from "./rows"
import { floatsOf, holdsPictures, type PictureRoom } from "./pictures"
import { TakenOver } from "./takenOver"
import { folded, unfold, type Unfolding } from "./unfolding"
import type { Floating, Insets, Line, ParagraphLayout, Shape, ShapedRun } from "./types"

/** What of the document as a whole a paragraph depends on. */
export interface Setting {
  styles: StyleSheet
  typesetting: Typesetting
  /** What fields and marks of notes show. */
  values: FieldValues
  /** Whether it is set for the width of a screen, where lines may be too short to be justified. */
  flow?: boolean
  /** How high a picture may be; left out for as high as it is. */
  tallest?: number
}

/** Letters on a line below which justified text would tear open, and how wide a letter is as part of the size. */
const fewestJustified = 45
const meanLetter = 0.45

/** Space above and below a paragraph that a screen has room for, in points. */
const mostSpace = 48

/** The look of a paragraph as it is set for a screen of a width: ragged where lines are short, and without the wide spaces of a sheet. */
function lookAt(look: Look, width: number): Look {
  const { paragraph, letters } = look
  const { align, direction, spaceBefore, spaceAfter, indentLeft, indentRight } = paragraph
  const ragged = align === "justify" && width - indentLeft - indentRight < fewestJustified * meanLetter * letters.size
  if (!ragged && spaceBefore <= mostSpace && spaceAfter <= mostSpace) return look
  const known = ragged ? raggedLooks : closeLooks
  let own = known.get(look)
  if (!own) {
    const format: ParagraphFormat = {
      ...paragraph,
      align: ragged ? (direction === "rtl" ? "right" : "left") : align,
      spaceBefore: Math.min(mostSpace, spaceBefore),
      spaceAfter: Math.min(mostSpace, spaceAfter),
    }
    known.set(look, (own = { ...look, paragraph: format }))
  }
  return own
}
const raggedLooks = new WeakMap<Look, Look>()
const closeLooks = new WeakMap<Look, Look>()

const leveled = new WeakMap<Look, Look>()

/** The look with a level of its own; there is but one such level, that of notes. */
function withLevel(look: Look, level: ListLevel | null): Look {
  if (level === null) return look
  let own = leveled.get(look)
  if (own?.level !== level) leveled.set(look, (own = { ...look, level }))
  return own
}

/** How what stands round a paragraph bears on it. */
export interface Around {
  /** How its label is set, if not as its list says. */
  level?: ListLevel | null
  /** The widths in which its first lines stand, where they are others. */
  shape?: Shape
  /** What the look of its table says of its letters. */
  letters?: Partial<LetterFormat> | null
  /** Whether its pictures may stand elsewhere than in its lines, and the room that such ones take from its lines. */
  floats?: boolean
  insets?: Insets
}

const lettered = new WeakMap<Look, Map<Partial<LetterFormat>, Look>>()

/** The look with what a table says of letters: one object for each. */
function withLetters(look: Look, letters: Partial<LetterFormat> | null): Look {
  if (letters === null) return look
  let own = lettered.get(look)
  if (!own) lettered.set(look, (own = new Map()))
  let known = own.get(letters)
  if (!known) own.set(letters, (known = { ...look, letters: { ...look.letters, ...letters } }))
  return known
}

const none: readonly Remembered[] = []

interface Remembered {
  look: Look
  outline: number | null
  width: number
  shape: Shape
  insets: Insets
  pictures: PictureRoom | null
  label: string | null
  typesetting: Typesetting
  /** Set where its letters depend on the style sheet beyond the look of the paragraph. */
  styles: StyleSheet | null
  /** What its fields show; empty without any. */
  shown: string
  layout: ParagraphLayout
}

/** What lines are set of, whatever the width. */
interface Shaped {
  /** In no width yet. */
  source: LineSource
  unfolding: Unfolding | null
  floats: readonly Floating[] | null
}

/** The lines of paragraphs with unfolded fields as they were set, for what goes on in another width. */
const unfoldedLines = new WeakMap<ParagraphLayout, readonly Line[]>()

let ids = 0

/** So many layouts of one paragraph are remembered: on sheets and in the flow view, and once more where it is tried. */
const layoutsKept = 3

/** Sets paragraphs and remembers the last layouts of each by its node, for as long as its look, its label and what its fields show stay the same. */
export class Typesetter {
  private readonly remembered = new WeakMap<Node, readonly Remembered[]>()

  constructor(
    readonly fonts: FontLibrary,
    private readonly hyphenator: Hyphenator | null,
    /** What fields show that hang on neither document nor sheet. */
    readonly values: FieldValues,
  ) {}

  /**
   * @param label what stands before it as an item of a list, or as a note
   */
  paragraph(
    setting: Setting,
    node: Node,
    width: number,
    label: string | null,
    { level = null, shape = [], letters = null, floats = false, insets = noInsets }: Around = {},
  ): ParagraphLayout {
    const { styles, typesetting, flow } = setting
    const hasFields = textOf(node).includes("\ufffc")
    const { values } = setting
    const own = withLetters(paragraphLook(styles, node), letters)
    const look = withLevel(flow ? lookAt(own, width) : own, level)
    const outline = outlineLevel(styles, node)
    const shown = hasFields ? shownBy(values, styles, look.letters, node) : ""
    const pictures = hasFields && holdsPictures(node) ? pictureRoom(look, width, setting, floats) : null
    const layouts = this.remembered.get(node) ?? none
    const remembered = layouts.find(
      (own) =>
        own.look === look &&
        own.outline === outline &&
        own.width === width &&
        sameShape(own.shape, shape) &&
        sameInsets(own.insets, insets) &&
        samePictures(own.pictures, pictures) &&
        own.label === label &&
        own.typesetting === typesetting &&
        own.shown === shown &&
        (own.styles === null || own.styles === styles),
    )
    if (remembered) return remembered.layout
    const before = shape.at(-1)
    const above =
      before &&
      this.paragraph(setting, node, before.width, label, {
        level,
        shape: shape.slice(0, -1),
        letters,
        floats: floats && !before.inLine,
        ...(before.insets ? { insets: before.insets } : {}),
      })
    const begun = above ? (unfoldedLines.get(above) ?? above.lines).slice(0, before.lines) : []
    const isLong =
      node.content.size >= longText &&
      !hasFields &&
      begun.length === 0 &&
      insets.length === 0 &&
      look.paragraph.dropCap === null &&
      typesetting.breaking !== "whole"
    const key = { look, width, label, typesetting, styles }
    const known = isLong ? this.long.before(key, textOf(node)) : null
    const shaped = this.shaped(setting, node, label, look, shown, pictures, begun.length > 0, known)
    const isKept = isLong && shaped.source.levels === null
    const taken = known && isKept ? new TakenOver(shaped.source, known) : null
    const layout = this.set(shaped, node, width, label, look, outline, begun, insets, taken)
    if (isKept) this.long.keep({ layout, ...shaped.source, ...key, runs: taken?.runs ?? shaped.source.runs }, known)
    this.remembered.set(node, [
      {
        look,
        outline,
        width,
        shape,
        insets,
        pictures,
        label,
        typesetting,
        styles: asksStyles(node) ? styles : null,
        shown,
        layout,
      },
      ...(this.remembered.get(node) ?? none).slice(0, layoutsKept - 1),
    ])
    return layout
  }

  private readonly long = new LongParagraphs()

  /** The last paragraph that went on in another width: it is shaped once, however many columns it runs through. */
  private goingOn: {
    node: Node
    look: Look
    label: string | null
    shown: string
    setting: Setting
    shaped: Shaped
  } | null = null

  /** What a paragraph is set of, whatever the width. */
  private shaped(
    setting: Setting,
    node: Node,
    label: string | null,
    look: Look,
    shown: string,
    pictures: PictureRoom | null,
    again: boolean,
    before: Before | null,
  ): Shaped {
    const known = this.goingOn
    if (
      again &&
      pictures === null &&
      known?.node === node &&
      known.look === look &&
      known.label === label &&
      known.shown === shown &&
      known.setting.styles === setting.styles &&
      known.setting.typesetting === setting.typesetting
    )
      return known.shaped
    const shaped = this.shape(setting, node, label, look, pictures, before)
    if (again && pictures === null) this.goingOn = { node, look, label, shown, setting, shaped }
    return shaped
  }

  private shape(
    { styles, typesetting, values }: Setting,
    node: Node,
    label: string | null,
    look: Look,
    pictures: PictureRoom | null,
    before: Before | null,
  ): Shaped {
    const { fonts } = this
    const { letters } = paragraphAttrs(node)
    const own = textOf(node)
    const base: RunLook = letters && own === "" ? { ...look.letters, ...letters } : look.letters
    const unfolding = unfold(styles, node, base, values)
    const text = unfolding?.text ?? own
    // A field breaks from its neighbours as a word would.
    const breaks = lineBreaks(
      pictures ? withPictures(node, text) : text.includes("\ufffc") ? text.replaceAll("\ufffc", "x") : text,
      before && { breaks: before.set.breaks, change: before.change },
    )
    const levels =
      breaks.beyond || look.paragraph.direction === "rtl" ? bidiLevels(text, look.paragraph.direction) : null
    const runs = shapeParagraph(fonts, styles, node, base, levels, values, unfolding, pictures, before)
    return {
      unfolding,
      floats: floatsOf(node, pictures),
      source: {
        fonts,
        text,
        runs,
        breaks,
        format: look.paragraph,
        typesetting,
        base,
        width: 0,
        levels,
        label:
          look.level && label !== null
            ? {
                runs: this.labelRuns(label, { ...base, underline: "none", ...look.level.letters }, look.paragraph),
                level: look.level,
              }
            : null,
        cap: null,
        begun: noLines,
        insets: noInsets,
        divide: look.paragraph.hyphenate ? this.divider(text, runs, typesetting) : null,
      },
    }
  }

  private set(
    shaped: Shaped,
    node: Node,
    width: number,
    label: string | null,
    look: Look,
    outline: number | null,
    begun: readonly Line[],
    insets: Insets,
    taken: TakenOver | null,
  ): ParagraphLayout {
    const { unfolding, floats } = shaped
    const source: LineSource = { ...shaped.source, width, begun, insets }
    const { lines: set, label: labelled } =
      look.paragraph.dropCap && source.text !== ""
        ? this.withCap(source, look.paragraph.dropCap)
        : setLines(source, taken)
    const lines = unfolding ? folded(unfolding, set) : set
    const layout = packParagraph({
      id: ++ids,
      text: textOf(node),
      style: paragraphAttrs(node).style,
      format: look.paragraph,
      outline,
      anchors: anchorsOf(node),
      label: label === null ? null : { runs: labelled, text: label, check: look.level?.kind === "check" },
      lines,
      height: bottomOf(lines, 0, lines.length),
      floats,
    })
    if (unfolding) unfoldedLines.set(layout, set)
    return layout
  }

  /** The mark or number of a list item, in runs of one face and direction. */
  private labelRuns(label: string, look: RunLook, { direction }: ParagraphFormat): ShapedRun[] {
    const { fonts } = this
    const levels = bidiLevels(label, direction)
    const runs: ShapedRun[] = []
    let from = 0
    const same = (a: number, b: number) =>
      fonts.faceFor(label.charCodeAt(a), look) === fonts.faceFor(label.charCodeAt(b), look) &&
      levels?.[a] === levels?.[b]
    for (let at = 1; at <= label.length; at++) {
      if (at < label.length && same(from, at)) continue
      runs.push({ ...shapeShown(fonts, label.slice(from, at), 0, 0, look, levels?.[from] ?? 0) })
      from = at
    }
    return runs
  }

  /** Sets the first letter as high as several lines. A paragraph with fewer lines gets a lower cap. */
  private withCap(source: LineSource, { lines: wanted, distance, family }: DropCap): SetParagraph {
    const { fonts, text, base, format } = source
    const opening = /^[\p{Pi}\p{Ps}"']?/u.exec(text)?.[0].length ?? 0
    const to = opening + (graphemeEnds(text.slice(opening, opening + 20))[0] ?? 0)
    const first = source.runs.find((run) => run.from < to)
    if (!first || text.slice(0, to).includes("\t") || text.slice(0, to).includes("\n")) return setLines(source)
    const { natural } = lineMetrics(fonts, base)
    const lineHeight = spacedHeight(natural, format.lineSpacing)
    const capHeight = (look: RunLook) => {
      const { metrics } = fonts.font(fonts.wish(look))
      return metrics.capHeight / metrics.upem
    }
    for (let lines = wanted; lines > 1; lines--) {
      const look: RunLook = { ...first.look, ...(family ? { family } : {}) }
      if (family) delete look.own
      const wish = (lines - 1) * lineHeight + capHeight(base) * base.size
      const face = fonts.faceFor(text.codePointAt(opening) ?? 0x20, look)
      // Signs that are no letters, such as emoji, fill the height of their face and hang below its baseline.
      const { ascender, descender, upem } = fonts.font(face).metrics
      const isLetter = /[\p{L}\p{N}\p{P}]/u.test(text.slice(opening, to))
      const high = isLetter ? capHeight(look) : (ascender - descender) / upem
      const size = Math.round((2 * wish) / high) / 2
      const drop = isLetter ? 0 : (-descender / upem) * size
      const run = shapeRun(
        fonts,
        text,
        0,
        to,
        face,
        { ...look, size: Math.min(999, size), script: "none", raise: 0, highlight: null, underline: "none" },
        { level: first.level, upper: first.upper },
      )
      const sunk: ShapedRun = { ...run, rise: drop - (lines - 1) * lineHeight, cap: true }
      const cap: Cap = { to, distance, lines, inset: runWidth(run) + distance }
      const set = setLines({ ...source, cap, runs: [sunk, ...cutBefore(fonts, source, to)] })
      if (set.lines.length >= lines) return set
    }
    return setLines(source)
  }

  /** Finds where the words of a stretch may be divided, by the language of each and the limits of the document. */
  private divider(text: string, runs: readonly ShapedRun[], { hyphenation }: Typesetting): LineSource["divide"] {
    const { hyphenator } = this
    if (!hyphenator) return null
    const languageAt = (offset: number) => {
      const run = runAt(runs, offset)
      return run && run.from <= offset ? run.look.language : undefined
    }
    return (from, to) => {
      const points: number[] = []
      for (const match of text.slice(from, to).matchAll(/[\p{L}\p{M}\u00ad]+/gu)) {
        const [word] = match
        const start = from + match.index
        const language = languageAt(start)
        // A word with soft hyphens says itself where it may be divided.
        if (
          !language ||
          word.length < hyphenation.word ||
          word.includes("\u00ad") ||
          (!hyphenation.capitals && /^\p{Lu}/u.test(word))
        )
          continue
        for (const point of hyphenator.points(word, language))
          if (point >= hyphenation.before && word.length - point >= hyphenation.after) points.push(start + point)
      }
      return points
    }
  }
}

const noInsets: Insets = []
const noLines: readonly Line[] = []

function pictureRoom(
  { paragraph }: Look,
  width: number,
  { tallest = Infinity, flow }: Setting,
  floats: boolean,
): PictureRoom {
  const { indentLeft, indentRight, indentFirst } = paragraph
  const room = Math.max(8, width - Math.max(0, indentLeft + Math.max(0, indentFirst)) - Math.max(0, indentRight))
  return { room: { width: room, height: tallest }, floats: floats && flow !== true }
}

function samePictures(a: PictureRoom | null, b: PictureRoom | null): boolean {
  return (
    a === b ||
    (a !== null &&
      b !== null &&
      a.floats === b.floats &&
      a.room.width === b.room.width &&
      a.room.height === b.room.height)
  )
}

/** The text in which lines may be broken: beside pictures, as beside any object (UAX 14, class CB); a field breaks as a word would. */
function withPictures(node: Node, text: string): string {
  let at = -1
  const atoms = node.children.filter((child) => !child.isText && child.type.name !== "lineBreak")
  return text.replaceAll("\ufffc", () => (atoms[++at]?.type.name === "picture" ? "\ufffc" : "x"))
}

/** What the fields of a paragraph show, one after another. */
function shownBy(values: FieldValues, styles: StyleSheet, base: RunLook, node: Node): string {
  return node.children
    .map((child) =>
      child.type.name === "field" || child.type.name === "anchor"
        ? values(child, letterLook(styles, base, child.marks).language)
        : "",
    )
    .join("\n")
}

/** The first of the runs, which are in the order of the text, that ends behind an offset. */
function runAt(runs: readonly ShapedRun[], offset: number): ShapedRun | undefined {
  let low = 0
  let high = runs.length
  while (low < high) {
    const middle = (low + high) >> 1
    if ((runs[middle] as ShapedRun).to <= offset) low = middle + 1
    else high = middle
  }
  return runs[low]
}

/** Runs from an offset on, the one that it divides shaped anew. */
function cutBefore(fonts: FontLibrary, { runs, text }: LineSource, to: number): ShapedRun[] {
  return runs.flatMap((run) =>
    run.to <= to
      ? []
      : run.from >= to
        ? [run]
        : [shapeRun(fonts, text, to, run.to, run.face, run.look, { level: run.level, upper: run.upper })],
  )
}

/** Whether the look of letters may change with the style sheet although the look of their paragraph does not. */
function asksStyles(node: Node): boolean {
  return node.children.some((child) =>
    child.marks.some(({ type }) => type.name === "letterStyle" || type.name === "family"),
  )
}

/** Whether a run that is no part of the text shows words of a field that go on on the next line. */
export function isFieldPart({ from, to, part }: ShapedRun): boolean {
  return from === to && part !== undefined
}

/** What a field shows at an offset, in its order; null where none is. */
export function shownAt({ lines }: ParagraphLayout, offset: number): string | null {
  const runs = lines
    .flatMap((line) => line.runs.map(({ run }) => run))
    .filter((run) => run.from === offset && run.shows !== null && (run.to > run.from || isFieldPart(run)))
  return runs.length === 0
    ? null
    : runs
        .sort((a, b) => (a.part ?? 0) - (b.part ?? 0))
        .map((run) => run.shows)
        .join("")
}

/** A paragraph's text with what its fields show. */
export function shownText(paragraph: ParagraphLayout): string {
  const { text } = paragraph
  if (!text.includes("\ufffc")) return text
  return text
    .split("")
    .map((unit, i) => (unit === "\ufffc" ? (shownAt(paragraph, i) ?? "") : unit))
    .join("")
}
