/**
 * The resolved look: defaults, then the style chain from the oldest parent down, then direct
 * formatting. Looks are interned: two paragraphs that look alike share one object, so that
 * `===` answers "does it look the same?" even after the style sheet was replaced.
 */
import type { Mark, Node } from "prosemirror-model"
import { bodyStyle } from "./defaults"
import { paragraphAttrs } from "./schema"
import type { LetterFormat, ParagraphFormat, Style, StyleSheet } from "./shapes"

export interface Look {
  readonly paragraph: ParagraphFormat
  readonly letters: LetterFormat
}

const interned = new Map<string, Look>()
function intern(look: Look): Look {
  const key = JSON.stringify(look)
  const known = interned.get(key)
  if (known) return known
  interned.set(key, look)
  return look
}

export function styleOf(sheet: StyleSheet, id: string): Style | undefined {
  return sheet.styles[id] ?? sheet.styles[bodyStyle]
}

/** The style and its parents, the style itself first. A parent that comes round again ends the chain. */
export function styleChain(sheet: StyleSheet, id: string): Style[] {
  const chain: Style[] = []
  let next: string | null = sheet.styles[id] ? id : bodyStyle
  while (next !== null) {
    const style: Style | undefined = sheet.styles[next]
    if (!style || chain.includes(style)) break
    chain.push(style)
    next = style.parent
  }
  return chain
}

const styleLooks = new WeakMap<StyleSheet, Map<string, Look>>()

/** The look of a paragraph of this style without direct formatting. */
export function styleLook(sheet: StyleSheet, id: string): Look {
  let looks = styleLooks.get(sheet)
  if (!looks) styleLooks.set(sheet, (looks = new Map()))
  let look = looks.get(id)
  if (!look) {
    const chain = styleChain(sheet, id).reverse()
    look = intern({
      paragraph: Object.assign({}, sheet.defaults.paragraph, ...chain.map((s) => s.paragraph)),
      letters: Object.assign({}, sheet.defaults.letters, ...chain.map((s) => s.letters)),
    })
    looks.set(id, look)
  }
  return look
}

/** The look of a paragraph and of its letters before their own marks. */
export function paragraphLook(sheet: StyleSheet, paragraph: Node): Look {
  const { style, format } = paragraphAttrs(paragraph)
  const base = styleLook(sheet, style)
  return format ? intern({ paragraph: { ...base.paragraph, ...format }, letters: base.letters }) : base
}

/** How letters look, and where they lead if they are a link. */
export interface RunLook extends LetterFormat {
  link?: string
}

/** What a link looks like where nothing else is said. */
const linkLook = { colour: "#1f4f7a", underline: "single" } as const

/** The look of letters with these marks, in a paragraph whose letters look like `base`. */
export function letterLook(base: LetterFormat, marks: readonly Mark[]): RunLook {
  if (marks.length === 0) return base
  const link = marks.find((mark) => mark.type.name === "link")
  const look: Record<string, unknown> = link ? { ...base, ...linkLook, link: link.attrs.value } : { ...base }
  for (const mark of marks) if (mark.type.name in base) look[mark.type.name] = mark.attrs.value
  return look as unknown as RunLook
}

/** The outline level of a heading, or null for other paragraphs. */
export function outlineLevel(sheet: StyleSheet, paragraph: Node): number | null {
  return styleOf(sheet, paragraphAttrs(paragraph).style)?.outline ?? null
}
