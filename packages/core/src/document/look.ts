/**
 * The resolved look: defaults, then the style chain from the oldest parent down, then the level of the
 * list, then direct formatting. Looks are interned: two paragraphs that look alike share one object, so
 * that `===` answers "does it look the same?" even after the style sheet was replaced.
 */
import type { Mark, Node } from "prosemirror-model"
import { bodyStyle } from "./defaults"
import { entryOf } from "./keyed"
import { levelOf } from "./lists"
import { paragraphAttrs } from "./schema"
import type { LetterFormat, ListLevel, ListPlace, OwnFamily, ParagraphFormat, Style, StyleSheet } from "./shapes"

/** How letters look, and where they lead if they are a link. */
export interface RunLook extends LetterFormat {
  link?: string
  /** The faces of the family, if it is one that people brought in. */
  own?: OwnFamily
}

export interface Look {
  readonly paragraph: ParagraphFormat
  readonly letters: RunLook
  /** The level of the list that it is an item of. */
  readonly level: ListLevel | null
}

const mostInterned = 20_000
const interned = new Map<string, Look>()
function intern(look: Look): Look {
  const key = JSON.stringify(look)
  const known = interned.get(key)
  if (known) return known
  // What is forgotten is resolved once more when it is met again, and then laid out once more.
  if (interned.size >= mostInterned) interned.clear()
  interned.set(key, look)
  return look
}

export function styleOf(sheet: StyleSheet, id: string): Style | undefined {
  return entryOf(sheet.styles, id) ?? sheet.styles[bodyStyle]
}

/** The style and its parents, the style itself first. A parent that comes round again ends the chain. */
export function styleChain(sheet: StyleSheet, id: string): Style[] {
  return chainIds(sheet, entryOf(sheet.styles, id) ? id : bodyStyle).map((key) => sheet.styles[key] as Style)
}

/** The keys of a style and its parents. Empty for a key that is not there. */
export function chainIds(sheet: StyleSheet, id: string): string[] {
  const chain: string[] = []
  for (
    let next: string | null = id;
    next !== null && entryOf(sheet.styles, next) && !chain.includes(next);
    next = entryOf(sheet.styles, next)?.parent ?? null
  )
    chain.push(next)
  return chain
}

interface SheetLooks {
  styles: Map<string, Look>
  /** Of paragraphs with direct formatting, by style and by what the formatting says. */
  direct: Map<string, Look>
  letterStyles: Map<string, Partial<LetterFormat>>
}
const looksOf = new WeakMap<StyleSheet, SheetLooks>()
function remembered(sheet: StyleSheet): SheetLooks {
  let looks = looksOf.get(sheet)
  if (!looks) looksOf.set(sheet, (looks = { styles: new Map(), direct: new Map(), letterStyles: new Map() }))
  return looks
}

function withOwn(sheet: StyleSheet, letters: LetterFormat): RunLook {
  const own = entryOf(sheet.fonts, letters.family)
  return own ? { ...letters, own } : letters
}

/** The look of a paragraph of this style without direct formatting. */
export function styleLook(sheet: StyleSheet, id: string): Look {
  const looks = remembered(sheet).styles
  let look = looks.get(id)
  if (!look) {
    const letters: LetterFormat = Object.assign(
      {},
      sheet.defaults.letters,
      ...styleChain(sheet, id)
        .reverse()
        .map((s) => s.letters),
    )
    look = intern(withList(sheet, plainFormat(sheet, id), null, withOwn(sheet, letters)))
    looks.set(id, look)
  }
  return look
}

function withList(
  sheet: StyleSheet,
  base: ParagraphFormat,
  direct: Partial<ParagraphFormat> | null,
  letters: RunLook,
): Look {
  const list = direct?.list === undefined ? base.list : direct.list
  const level = list ? levelOf(sheet, list.definition, list.level) : null
  const indents = level
    ? { indentLeft: level.indent, indentFirst: -level.hanging, ...(level.tight ? { spaceAlike: false } : {}) }
    : {}
  return { paragraph: { ...base, ...indents, ...direct }, letters, level }
}

/** The look of a paragraph and of its letters before their own marks. */
export function paragraphLook(sheet: StyleSheet, paragraph: Node): Look {
  const { style, format } = paragraphAttrs(paragraph)
  if (!format) return styleLook(sheet, style)
  const looks = remembered(sheet).direct
  const key = `${style} ${JSON.stringify(format)}`
  let look = looks.get(key)
  if (!look) {
    look = intern(withList(sheet, plainFormat(sheet, style), format, styleLook(sheet, style).letters))
    looks.set(key, look)
  }
  return look
}

/** The format that a paragraph would have without its direct formatting, but in its list. */
export function undressedFormat(sheet: StyleSheet, paragraph: Node): ParagraphFormat {
  const { style, format } = paragraphAttrs(paragraph)
  if (!format?.list) return styleLook(sheet, style).paragraph
  return withList(sheet, plainFormat(sheet, style), { list: format.list }, sheet.defaults.letters).paragraph
}

/** What a style says of paragraphs, without the level of its list. */
function plainFormat(sheet: StyleSheet, style: string): ParagraphFormat {
  return Object.assign(
    {},
    sheet.defaults.paragraph,
    ...styleChain(sheet, style)
      .reverse()
      .map((s) => s.paragraph),
  ) as ParagraphFormat
}

/** The list item that a paragraph is, by its own format or its style's. */
export function listPlace(sheet: StyleSheet, paragraph: Node): ListPlace | null {
  const { style, format } = paragraphAttrs(paragraph)
  return format?.list !== undefined ? format.list : styleLook(sheet, style).paragraph.list
}

/** What a link looks like where nothing else is said. */
export const linkLook = { colour: "#1f4f7a", underline: "single" } as const

/** What a style of letters and its parents say. */
export function letterStyleFormat(sheet: StyleSheet, id: string): Partial<LetterFormat> {
  const known = remembered(sheet).letterStyles
  let format = known.get(id)
  if (!format) {
    format = Object.assign(
      {},
      ...chainIds(sheet, id)
        .reverse()
        .map((key) => entryOf(sheet.styles, key)?.letters),
    ) as Partial<LetterFormat>
    known.set(id, format)
  }
  return format
}

/** The look of letters with these marks, in a paragraph whose letters look like `base`. */
export function letterLook(sheet: StyleSheet, base: RunLook, marks: readonly Mark[]): RunLook {
  if (marks.length === 0) return base
  const look: Record<string, unknown> = { ...base }
  for (const mark of marks) if (mark.type.name === "link") Object.assign(look, linkLook, { link: mark.attrs.value })
  for (const mark of marks)
    if (mark.type.name === "letterStyle") Object.assign(look, letterStyleFormat(sheet, mark.attrs.value as string))
  for (const mark of marks) if (mark.type.name in base) look[mark.type.name] = mark.attrs.value
  if (look.family !== base.family) {
    delete look.own
    return withOwn(sheet, look as unknown as RunLook)
  }
  return look as unknown as RunLook
}

/** The outline level of a heading, or null for other paragraphs. */
export function outlineLevel(sheet: StyleSheet, paragraph: Node): number | null {
  return styleOf(sheet, paragraphAttrs(paragraph).style)?.outline ?? null
}
