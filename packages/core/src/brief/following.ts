/** A document's brief: setting it, changing it, and making the document follow it. What is judged: index.ts. */
import type { Node } from "prosemirror-model"
import type { Transaction } from "prosemirror-state"
import {
  edgeNodes,
  edgeStory,
  bodyStyle,
  blocksOf,
  bodyOf,
  documentAttrs,
  entryOf,
  equal,
  fitParagraph,
  headingsOf,
  leavesOf,
  marks,
  paragraph,
  paragraphAttrs,
  schema,
  sectionsOf,
  setEntries,
  styleLook,
  textOf,
  type Brief,
  type EdgeVariant,
  type ParagraphFormat,
  type Properties,
  type Section,
  type Style,
  type StyleSheet,
} from "../document"
import { changeEdgeLine, ensureEdge, named, propertyField, putSetup, quoted, type Command } from "../editing"
import { titleBlockOf } from "./front"
import { paragraphsFor, unlike, type Asked, type BriefRule } from "./judging"
import { running, type BriefParagraph } from "./paragraphs"
import { beginsSheet, inOrder, longQuotations, referencesOf, turnedCaptions } from "./parts"
import { plainSections } from "./sheet"

/** Gives the document a brief, another one, or none. */
export function setBrief(brief: Brief | null): Command {
  return (state, dispatch) => {
    const tr = setEntries(state.tr, null, "brief", brief)
    if (!tr.docChanged) return false
    dispatch?.(named(tr, brief ? `Brief ${quoted(brief.name ?? "")}` : "No brief"))
    return true
  }
}

/** Changes rules of the brief; a rule that becomes undefined is asked for no longer. */
export function changeBrief(change: { readonly [R in keyof Brief]?: Brief[R] | undefined }): Command {
  return (state, dispatch) => {
    const next = Object.fromEntries(
      Object.entries({ ...documentAttrs(state.doc).brief, ...change }).filter(([, value]) => value !== undefined),
    )
    const tr = setEntries(state.tr, null, "brief", next)
    if (!tr.docChanged) return false
    dispatch?.(named(tr, "Changed the brief"))
    return true
  }
}

/** The style sheet with something else said by one of its styles. */
function withStyle(sheet: StyleSheet, id: string, change: (style: Style) => Style): StyleSheet {
  const own = entryOf(sheet.styles, id)
  return own ? { ...sheet, styles: { ...sheet.styles, [id]: change(own) } } : sheet
}

const without = <T extends object>(entries: T, key: keyof T): T => {
  const { [key]: _gone, ...rest } = entries
  return rest as T
}

/** Letters are as asked where nothing says otherwise: neither a style of such paragraphs nor the words themselves. */
function mendLetters<P extends "family" | "size">(
  tr: Transaction,
  property: P,
  value: string | number,
  which: (own: BriefParagraph) => boolean,
  /** The styles that are to say so; null for those of the paragraphs. */
  ids: readonly string[] | null,
): void {
  const { styles } = documentAttrs(tr.doc)
  const paragraphs = paragraphsFor(tr.doc).filter(which)
  const used = new Set([bodyStyle, ...(ids ?? paragraphs.map(({ node }) => paragraphAttrs(node).style))])
  const { letters } = styles.defaults
  let next: StyleSheet = { ...styles, defaults: { ...styles.defaults, letters: { ...letters, [property]: value } } }
  for (const id of used) {
    next = withStyle(next, id, (style) => ({ ...style, letters: without(style.letters, property) }))
    if (styleLook(next, id).letters[property] !== value)
      next = withStyle(next, id, (style) => ({ ...style, letters: { ...style.letters, [property]: value } }))
  }
  setEntries(tr, null, "styles", next)
  for (const own of paragraphsFor(tr.doc).filter(which))
    for (const { from, to } of unlike(own, next, (look) => look[property] === value))
      tr.removeMark(from, to, marks[property])
}

const clearFormat = (tr: Transaction, leaf: number, keys: readonly (keyof ParagraphFormat)[]) => {
  const pos = leavesOf(tr.doc).before(leaf)
  const format = keys.reduce(without, paragraphAttrs(leavesOf(tr.doc).node(leaf)).format ?? {})
  setEntries(tr, pos, "format", format)
}
const addFormat = (tr: Transaction, leaf: number, format: Partial<ParagraphFormat>) => {
  const node = leavesOf(tr.doc).node(leaf)
  setEntries(tr, leavesOf(tr.doc).before(leaf), "format", { ...paragraphAttrs(node).format, ...fitParagraph(format) })
}

/** Styles say what is asked of their paragraphs, and these nothing else. What else has such a style, as cells have, keeps its look. */
function mendParagraphs<P extends keyof ParagraphFormat>(
  tr: Transaction,
  property: P,
  value: ParagraphFormat[P],
  which: (own: BriefParagraph) => boolean,
  base = bodyStyle,
): void {
  const before = paragraphsFor(tr.doc)
  const put = (sheet: StyleSheet, id: string) =>
    withStyle(sheet, id, (style) => ({ ...style, paragraph: { ...style.paragraph, [property]: value } }))
  let styles = put(documentAttrs(tr.doc).styles, base)
  for (const { node } of before.filter(which)) {
    const id = entryOf(styles.styles, paragraphAttrs(node).style) ? paragraphAttrs(node).style : bodyStyle
    if (!equal(styleLook(styles, id).paragraph[property], value)) styles = put(styles, id)
  }
  setEntries(tr, null, "styles", styles)
  const own = paragraphsFor(tr.doc)
  own.forEach((now, i) => {
    const was = (before[i] as BriefParagraph).look.paragraph[property]
    if (which(now)) {
      if (!equal(now.look.paragraph[property], value)) clearFormat(tr, now.leaf, [property])
    } else if ((now.kind === "cell" || now.kind === "text") && !equal(now.look.paragraph[property], was))
      addFormat(tr, now.leaf, { [property]: was })
  })
}

/** One part of the heads or feet of all sheets shows what is asked for. */
function mendEdge(tr: Transaction, { edge, part, text, first }: Asked<"numbers">): void {
  const put = (section: number, variant: EdgeVariant, shows: boolean, own: boolean) => {
    const key = ensureEdge(tr, section, edge, variant, own)
    changeEdgeLine(tr, key, (parts) => parts.map((own, i) => (i === part ? (shows ? edgeNodes(text) : []) : own)))
  }
  const all = plainSections(tr.doc).map(({ number }) => number)
  const opening = all[0] ?? 0
  for (const section of all) {
    put(section, "all", true, false)
    if (sectionsOf(tr.doc)[section]?.setup.leftRight) put(section, "left", true, false)
  }
  const { setup } = sectionsOf(tr.doc)[opening] as Section
  if (!first && !setup.firstOwn) {
    putSetup(tr, sectionsOf(tr.doc)[opening] as Section, { ...setup, firstOwn: true })
    // What else stands at the heads and feet stands on the first sheet too.
    for (const other of ["head", "foot"] as const)
      if (edgeStory(sectionsOf(tr.doc), opening, other, "all") !== null) ensureEdge(tr, opening, other, "first", true)
  }
  if (sectionsOf(tr.doc)[opening]?.setup.firstOwn) put(opening, "first", first, true)
}

const styleOfLine = (name: keyof Properties) => (name === "title" || name === "subtitle" ? name : bodyStyle)

const isSubtitle = (node: Node | null) => node !== null && paragraphAttrs(node).style === "subtitle"

function mendTitleBlock(tr: Transaction, { ownSheet, align, size, lines }: Asked<"titleBlock">): void {
  lines.forEach((name, i) => {
    const all = titleBlockOf(tr.doc, { lines })
    if (all[i]?.leaf !== null) return
    const before = all.slice(0, i).findLast(({ leaf }) => leaf !== null)?.leaf ?? null
    const leaves = leavesOf(tr.doc)
    const next = all.slice(i).find(({ leaf }) => leaf !== null)?.leaf ?? null
    // A subtitle stays with its title.
    let last = before
    while (last !== null && isSubtitle(leaves.find(last + 1))) last++
    const at = last !== null ? leaves.end(last) + 1 : next !== null ? leaves.before(next) : 1
    tr.insert(at, paragraph(styleOfLine(name), [propertyField(name)], { align, indentFirst: 0 }))
  })
  const { styles } = documentAttrs(tr.doc)
  setEntries(
    tr,
    null,
    "styles",
    withStyle(styles, "title", (style) => ({ ...style, letters: { ...style.letters, size } })),
  )
  const all = titleBlockOf(tr.doc, { lines })
  for (const { leaf, name } of all) {
    if (leaf === null) continue
    addFormat(tr, leaf, { align, indentFirst: 0 })
    if (name !== "title") continue
    const leaves = leavesOf(tr.doc)
    tr.setNodeAttribute(leaves.before(leaf), "style", "title")
    tr.removeMark(leaves.start(leaf), leaves.end(leaf), marks.size)
  }
  const behind = Math.max(...all.map(({ leaf }) => leaf ?? 0)) + 1
  if (leavesOf(tr.doc).find(behind) && beginsSheet(tr.doc, behind) !== ownSheet)
    addFormat(tr, behind, { breakBefore: ownSheet })
}

function mendHeadings(tr: Transaction, asked: Asked<"headings">): void {
  const all = headingsOf(tr.doc)
  const ids = asked.map((_own, i) => [`heading${i + 1}`, i] as const)
  const used = all.map(({ leaf, level }) => [paragraphAttrs(leavesOf(tr.doc).node(leaf)).style, level - 1] as const)
  let { styles } = documentAttrs(tr.doc)
  for (const [id, level] of new Map([...ids, ...used])) {
    const own = asked[level]
    if (!own) continue
    const { align, ...letters } = own
    styles = withStyle(styles, id, (is) => ({
      ...is,
      paragraph: { ...is.paragraph, align },
      letters: { ...is.letters, ...letters },
    }))
  }
  setEntries(tr, null, "styles", styles)
  const leaves = leavesOf(tr.doc)
  for (const { leaf, level } of all) {
    if (!asked[level - 1]) continue
    clearFormat(tr, leaf, ["align"])
    for (const mark of [marks.bold, marks.italic, marks.size]) tr.removeMark(leaves.start(leaf), leaves.end(leaf), mark)
  }
}

function mendReferences(tr: Transaction, asked: Asked<"references">): void {
  const list = referencesOf(tr.doc, asked)
  if (!list) return
  const { leaf } = list.heading
  const [from, to] = [leavesOf(tr.doc).start(leaf), leavesOf(tr.doc).end(leaf)]
  if (list.heading.text.trim() !== asked.heading)
    tr.replaceWith(from, to, schema.text(asked.heading, tr.doc.resolve(from + 1).marks()))
  if (beginsSheet(tr.doc, leaf) !== asked.ownSheet) addFormat(tr, leaf, { breakBefore: asked.ownSheet })
  for (const own of list.leaves) tr.setNodeAttribute(leavesOf(tr.doc).before(own), "style", "reference")
  const inList = ({ leaf: own, look }: BriefParagraph) => list.leaves.includes(own) && look.level === null
  mendParagraphs(tr, "indentLeft", asked.hanging, inList, "reference")
  mendParagraphs(tr, "indentFirst", -asked.hanging, inList, "reference")
  const { styles } = documentAttrs(tr.doc)
  const [first, last] = [list.leaves[0], list.leaves.at(-1)]
  if (!asked.sorted || first === undefined || last === undefined || last - first + 1 !== list.leaves.length) return
  const leaves = leavesOf(tr.doc)
  const compare = inOrder(styles.defaults.letters.language)
  const all = leaves.between(first, last + 1)
  const sorted = [...all].sort((a, b) => compare(textOf(a), textOf(b)))
  if (sorted.some((own, i) => own !== all[i])) tr.replaceWith(leaves.before(first), leaves.end(last) + 1, sorted)
}

function mendQuotations(tr: Transaction, { words, indent }: Asked<"quotations">): void {
  mendParagraphs(tr, "indentLeft", indent, ({ kind, look }) => kind === "quotation" && look.level === null, "quotation")
  for (const { from, leaf, whole } of longQuotations(tr.doc, words).reverse()) {
    if (!whole) continue
    // In a paragraph of its own it needs no marks.
    const end = textOf(leavesOf(tr.doc).node(leaf)).search(/[”"»’'](?=[\s.,]*(\([^()]*\)[.\s]*)?$)/u)
    if (end > 0) tr.delete(from + end, from + end + 1)
    tr.delete(from, from + 1)
    tr.setNodeAttribute(from - 1, "style", "quotation")
    clearFormat(tr, leaf, ["indentLeft", "indentFirst"])
  }
}

function mendCaptions(tr: Transaction, asked: Asked<"captions">): void {
  const { nodes: all } = blocksOf(bodyOf(tr.doc))
  const order = [...all]
  for (const { block, other } of turnedCaptions(tr.doc, asked)) {
    const [own, beside] = [order[block], order[other]]
    if (own && beside) [order[block], order[other]] = [beside, own]
  }
  const from = order.findIndex((node, i) => node !== all[i])
  if (from < 0) return
  const to = order.findLastIndex((node, i) => node !== all[i])
  const size = (some: readonly Node[]) => some.reduce((sum, node) => sum + node.nodeSize, 0)
  const start = 1 + size(all.slice(0, from))
  tr.replaceWith(start, start + size(all.slice(from, to + 1)), order.slice(from, to + 1))
}

const plain = ({ kind, look }: BriefParagraph) => kind === "text" && look.paragraph.align !== "center"
const isText = ({ kind }: BriefParagraph) => kind === "text"
const runs = ({ kind }: BriefParagraph) => running.has(kind)

/** What makes a document follow each rule; null where that takes a person's words. */
const mends: { readonly [R in BriefRule]: ((tr: Transaction, asked: Asked<R>) => void) | null } = {
  typeface(tr, asked) {
    const { styles } = documentAttrs(tr.doc).styles
    const all = Object.keys(styles).filter((id) => styles[id]?.kind !== "letters")
    mendLetters(tr, "family", asked, () => true, all)
  },
  size: (tr, asked) => mendLetters(tr, "size", asked, runs, null),
  lineSpacing: (tr, value) => mendParagraphs(tr, "lineSpacing", { rule: "multiple", value }, runs),
  spaceBetween: (tr, asked) => mendParagraphs(tr, "spaceAfter", asked, isText),
  indentFirst: (tr, asked) => mendParagraphs(tr, "indentFirst", asked, plain),
  align: (tr, asked) => mendParagraphs(tr, "align", asked, plain),
  language(tr, language) {
    const { styles } = documentAttrs(tr.doc)
    const { defaults } = styles
    setEntries(tr, null, "styles", { ...styles, defaults: { ...defaults, letters: { ...defaults.letters, language } } })
  },
  paper(tr, asked) {
    for (const { section } of plainSections(tr.doc)) {
      const lies = section.setup.width > section.setup.height
      putSetup(tr, section, { ...section.setup, ...(lies ? { width: asked.height, height: asked.width } : asked) })
    }
  },
  margins(tr, margins) {
    for (const { section } of plainSections(tr.doc)) putSetup(tr, section, { ...section.setup, margins })
  },
  titleBlock: mendTitleBlock,
  runningHead: mendEdge,
  numbers: mendEdge,
  headings: mendHeadings,
  references: mendReferences,
  quotations: mendQuotations,
  captions: mendCaptions,
  length: null,
}

/** Makes the document follow rules of its brief, in their order; one undo takes all back. */
export function followBrief(rules: readonly BriefRule[], name: string): Command {
  return (state, dispatch) => {
    const { brief } = documentAttrs(state.doc)
    const { tr } = state
    const follow = <R extends BriefRule>(rule: R) => {
      const asked = brief?.[rule]
      if (asked !== undefined) mends[rule]?.(tr, asked)
    }
    rules.forEach(follow)
    if (!tr.docChanged) return false
    dispatch?.(named(tr, name))
    return true
  }
}
