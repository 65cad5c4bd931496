/** Rules of the parts of a paper: what stands before the text, headings, the list of references, long quotations, captions. */
import type { Node } from "prosemirror-model"
import {
  blocksOf,
  bodyOf,
  captionsOf,
  documentAttrs,
  headingsOf,
  leavesOf,
  nodes,
  paragraphLook,
  textOf,
  type Heading,
} from "../document"
import { countWords } from "../checking"
import { propertyWords, titleBlockOf } from "./front"
import { judged, near, paragraphsFor, type Asked, type BriefPlace, type Judge, type Judgement } from "./judging"

function placeOf(doc: Node, leaf: number): BriefPlace {
  const leaves = leavesOf(doc)
  return { leaf, from: leaves.start(leaf), to: leaves.end(leaf) }
}

/** Whether a leaf of the body begins a sheet, by a break before it or a section that does. */
export function beginsSheet(doc: Node, leaf: number): boolean {
  const blocks = blocksOf(bodyOf(doc))
  const block = blocks.at(leaf)
  const before = blocks.nodes[block - 1]
  if (block === 0) return true
  if (before?.type === nodes.sectionBreak) return (before.attrs.setup as { begins: string }).begins !== "continuous"
  return paragraphLook(documentAttrs(doc).styles, leavesOf(doc).node(leaf)).paragraph.breakBefore
}

export const judgeTitleBlock: Judge<"titleBlock"> = (doc, asked) => {
  const lines = titleBlockOf(doc, asked)
  const missing = lines.filter(({ leaf }) => leaf === null).map(({ name }) => propertyWords[name])
  if (missing.length > 0) return wrong(`without ${missing.join(", ")}`)
  const { properties, styles } = documentAttrs(doc)
  const leaves = leavesOf(doc)
  // A field shows what the document's properties say.
  const empty = lines.filter(
    ({ name, leaf }) =>
      properties[name] === "" &&
      textOf(leaves.node(leaf as number))
        .replace(/\ufffc/g, "")
        .trim() === "",
  )
  if (empty.length > 0)
    return { ...wrong(`${empty.map(({ name }) => propertyWords[name]).join(", ")} not filled in`), mends: false }
  const others = lines.filter(
    ({ leaf }) => paragraphLook(styles, leaves.node(leaf as number)).paragraph.align !== asked.align,
  )
  if (others.length > 0)
    return {
      ...wrong(`not all ${asked.align === "center" ? "in the middle" : "at the left"}`),
      places: others.map(({ leaf }) => placeOf(doc, leaf as number)),
    }
  const title = lines.find(({ name }) => name === "title")?.leaf
  const size = title === undefined || title === null ? null : paragraphLook(styles, leaves.node(title)).letters.size
  if (size !== null && size !== asked.size)
    return { ...wrong(`title of ${size} pt`), places: [placeOf(doc, title as number)] }
  const last = Math.max(...lines.map(({ leaf }) => leaf as number))
  const own = last + 1 >= leaves.count || beginsSheet(doc, last + 1)
  if (own !== asked.ownSheet)
    return {
      ...wrong(own ? "on a sheet of its own" : "not on a sheet of its own"),
      mends: !own || !bySection(doc, last + 1),
    }
  return { agrees: true, found: "", places: [], mends: true }
}

const wrong = (found: string): Judgement => ({ agrees: false, found, places: [], mends: true })

export const judgeHeadings: Judge<"headings"> = (doc, asked) => {
  const { styles } = documentAttrs(doc)
  const leaves = leavesOf(doc)
  const places: BriefPlace[] = []
  const values: string[] = []
  for (const { leaf, level } of headingsOf(doc)) {
    const own = asked[level - 1]
    if (!own) continue
    const { paragraph, letters } = paragraphLook(styles, leaves.node(leaf))
    if (
      paragraph.align === own.align &&
      letters.bold === own.bold &&
      letters.italic === own.italic &&
      letters.size === own.size
    )
      continue
    places.push(placeOf(doc, leaf))
    values.push(`level ${level}`)
  }
  return judged(places, values)
}

/** What lists of references are called. */
const listNames = /^(references?|works cited|bibliography|sources|literature|list of references|cited works)\.?$/i

/** The heading of the list of references, and the paragraphs in it. */
export function referencesOf(
  doc: Node,
  asked: Pick<Asked<"references">, "heading">,
): { heading: Heading; leaves: number[] } | null {
  const headings = headingsOf(doc)
  const heading =
    headings.findLast(({ text }) => text.trim() === asked.heading) ??
    headings.findLast(({ text }) => listNames.test(text.trim()))
  if (!heading) return null
  const next = headings.find(({ leaf }) => leaf > heading.leaf)?.leaf ?? heading.end
  const leaves = leavesOf(doc)
  const inside: number[] = []
  for (let leaf = heading.leaf + 1; leaf < Math.min(next, heading.end); leaf++)
    if (leaves.node(leaf).content.size > 0 && leaves.flow(leaf).kind === "body") inside.push(leaf)
  return { heading, leaves: inside }
}

/** Texts in the order in which a list of references has them. */
export function inOrder(language: string): (a: string, b: string) => number {
  const { compare } = new Intl.Collator(language, { ignorePunctuation: true })
  return compare
}

export const judgeReferences: Judge<"references"> = (doc, asked) => {
  const list = referencesOf(doc, asked)
  if (!list) return { ...wrong("there is none"), mends: false }
  const { heading, leaves: inside } = list
  const { styles } = documentAttrs(doc)
  if (heading.text.trim() !== asked.heading)
    return { ...wrong(`called “${heading.text.trim()}”`), places: [placeOf(doc, heading.leaf)] }
  if (beginsSheet(doc, heading.leaf) !== asked.ownSheet)
    return { ...wrong(asked.ownSheet ? "not on a new sheet" : "on a new sheet"), places: [placeOf(doc, heading.leaf)] }
  const leaves = leavesOf(doc)
  const others = inside.filter((leaf) => {
    const { paragraph, level } = paragraphLook(styles, leaves.node(leaf))
    const { indentFirst, indentLeft } = paragraph
    if (level) return false
    return !near(indentLeft, asked.hanging) || !near(indentFirst, -asked.hanging)
  })
  if (others.length > 0) return { ...wrong("not hanging"), places: others.map((leaf) => placeOf(doc, leaf)) }
  const compare = inOrder(styles.defaults.letters.language)
  const texts = inside.map((leaf) => textOf(leaves.node(leaf)))
  const first = texts.findIndex((text, i) => i > 0 && compare(texts[i - 1] as string, text) > 0)
  if (asked.sorted && first > 0) return { ...wrong("not in order"), places: [placeOf(doc, inside[first] as number)] }
  return { agrees: true, found: "", places: [], mends: true }
}

/** Whether a leaf begins its sheet by a section, which a brief leaves as it is. */
const bySection = (doc: Node, leaf: number) => {
  const blocks = blocksOf(bodyOf(doc))
  return blocks.nodes[blocks.at(leaf) - 1]?.type === nodes.sectionBreak && beginsSheet(doc, leaf)
}

/** A paragraph that is one quotation, perhaps with where it is from behind it. */
const wholeQuotation = /^[“"«„‘']([^”"»’]+)[”"»’'][\s.,]*(\([^()]{1,120}\)[.\s]*)?$/u
const quotationWithin = /[“«„]([^“”«»„]+)[”»]/gu

/** Long quotations that stand in running text, and whether each is all of its paragraph. */
export function longQuotations(doc: Node, words: number): (BriefPlace & { whole: boolean; count: number })[] {
  return paragraphsFor(doc)
    .filter(({ kind }) => kind === "text")
    .flatMap(({ leaf, node, from, to }) => {
      const text = textOf(node)
      const whole = wholeQuotation.exec(text)
      const count = whole ? countWords(whole[1] ?? "") : 0
      if (whole && count >= words) return [{ leaf, from, to, whole: true, count }]
      return [...text.matchAll(quotationWithin)]
        .map((match) => ({
          leaf,
          from: from + match.index,
          to: from + match.index + match[0].length,
          whole: false,
          count: countWords(match[1] ?? ""),
        }))
        .filter((own) => own.count >= words)
    })
}

export const judgeQuotations: Judge<"quotations"> = (doc, asked, world) => {
  const long = longQuotations(doc, asked.words)
  if (long.length > 0)
    return {
      agrees: false,
      found: long.length === 1 ? `one of ${long[0]?.count} words in the text` : `${long.length} in the text`,
      places: long,
      mends: long.some(({ whole }) => whole),
    }
  const others = paragraphsFor(doc).filter(
    ({ kind, look }) => kind === "quotation" && look.level === null && !near(look.paragraph.indentLeft, asked.indent),
  )
  return judged(
    others,
    others.map(({ look }) => `${world.length(look.paragraph.indentLeft)} in`),
  )
}

/** What a caption may belong to: a table or a paragraph with a picture in its line. */
const isFigure = (block: Node | undefined) =>
  block?.isTextblock === true && block.children.some((child) => child.type === nodes.picture)
const isTable = (block: Node | undefined) => block?.type === nodes.table

/** Captions that stand on the other side of what they belong to, by the numbers of their blocks. */
export function turnedCaptions(doc: Node, asked: Asked<"captions">): { leaf: number; block: number; other: number }[] {
  const blocks = blocksOf(bodyOf(doc))
  return captionsOf(doc).flatMap(({ leaf }) => {
    const block = blocks.at(leaf)
    if (isFigure(blocks.nodes[block])) return []
    for (const [is, side] of [
      [isTable, asked.tables],
      [isFigure, asked.figures],
    ] as const) {
      const [above, below] = [is(blocks.nodes[block - 1]), is(blocks.nodes[block + 1])]
      if (above === below) continue
      // What is above has its caption below.
      return (side === "below") === above ? [] : [{ leaf, block, other: above ? block - 1 : block + 1 }]
    }
    return []
  })
}

export const judgeCaptions: Judge<"captions"> = (doc, asked) => {
  const turned = turnedCaptions(doc, asked)
  return judged(
    turned.map(({ leaf }) => placeOf(doc, leaf)),
    turned.map(() => (turned.length === 1 ? "one on the other side" : `${turned.length} on the other side`)),
  )
}
