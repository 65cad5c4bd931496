/** Documents and changes that come from outside: checked before they are let in. */
import { Mark, Node } from "prosemirror-model"
import { z } from "zod"
import { limits } from "./bounds"
import { contentsLooks } from "./contents"
import {
  defaultLetters,
  defaultChecks,
  defaultNotes,
  defaultParagraph,
  defaultProperties,
  defaultSetup,
  defaultSources,
  defaultTypesetting,
} from "./defaults"
import { documentFormat } from "./format"
import { fieldKinds } from "./fields"
import { entryOf } from "./keyed"
import { schema, storyKinds } from "./schema"
import {
  Asset,
  Brief,
  CellFormat,
  LetterFormat,
  Link,
  Checks,
  CommentKey,
  Comments,
  Kept,
  NoteSettings,
  PageSetup,
  ParagraphFormat,
  PartName,
  PictureFormat,
  PlaceName,
  Properties,
  RowFormat,
  Sources,
  StyleSheet,
  TableFormat,
  Typesetting,
} from "./shapes"

/** What is wrong with something that was to be read, in words for people. */
export class ReadingError extends Error {
  override name = "ReadingError"
}

const DocAttrs = z.strictObject({
  styles: StyleSheet,
  setup: PageSetup,
  typesetting: Typesetting,
  properties: Properties,
  notes: NoteSettings,
  checks: Checks,
  brief: Brief.nullable(),
  sources: Sources,
  part: PartName.nullable(),
  comments: Comments,
  kept: Kept,
})
const ParagraphAttrs = z.strictObject({
  style: z.string().min(1).max(80),
  format: ParagraphFormat.partial().nullable(),
  letters: LetterFormat.partial().nullable(),
})

function checkShape(shape: z.ZodType, value: unknown, what: string): void {
  const result = shape.safeParse(value)
  if (result.success) return
  const first = result.error.issues[0]
  throw new ReadingError(
    `${what} is not right${first ? ` at ${first.path.join(".") || "the top"}: ${first.message}` : ""}`,
  )
}

// Attributes are immutable values shared by many nodes: each is checked once.
const checkedAttrs = new WeakSet<object>()
const checkedMarks = new WeakSet<Mark>()

const SectionAttrs = z.strictObject({ setup: PageSetup, part: PartName.nullable() })
const ContentsAttrs = z.strictObject({
  levels: z.number().int().min(1).max(9),
  look: z.enum(contentsLooks),
  of: z.string().max(limits.name),
})
const StoryKey = z.string().min(1).max(80)
const StoryAttrs = z.strictObject({ key: StoryKey, kind: z.enum(storyKinds) })
const AnchorAttrs = z.strictObject({ story: StoryKey })
const TableAttrs = z.strictObject({ format: TableFormat.partial().nullable() })
const RowAttrs = z.strictObject({ format: RowFormat.partial().nullable() })
const CellAttrs = z.strictObject({
  colspan: z.number().int().min(1).max(limits.table.columns),
  rowspan: z.number().int().min(1).max(limits.table.rows),
  format: CellFormat.partial().nullable(),
})
const pixels = z.number().int().min(limits.picture.pixels[0]).max(limits.picture.pixels[1])
const PictureAttrs = z.strictObject({
  asset: Asset,
  source: Asset.nullable(),
  pixels: z.tuple([pixels, pixels]),
  format: PictureFormat.partial().nullable(),
})
const FieldAttrs = z.strictObject({ kind: z.enum(fieldKinds), format: z.string().max(limits.citation) })

/** What the attributes of a node have to be, and what they are called where they are not. */
const attrShapes: Readonly<Record<string, { shape: z.ZodType; what: string }>> = {
  doc: { shape: DocAttrs, what: "The document's settings" },
  paragraph: { shape: ParagraphAttrs, what: "A paragraph's format" },
  field: { shape: FieldAttrs, what: "A field" },
  sectionBreak: { shape: SectionAttrs, what: "The setup of a section" },
  contents: { shape: ContentsAttrs, what: "A list of contents" },
  story: { shape: StoryAttrs, what: "A text beside the body" },
  anchor: { shape: AnchorAttrs, what: "The anchor of a text beside the body" },
  table: { shape: TableAttrs, what: "A table" },
  row: { shape: RowAttrs, what: "A row of a table" },
  picture: { shape: PictureAttrs, what: "A picture" },
  cell: { shape: CellAttrs, what: "A cell of a table" },
}

const markShapes = {
  ...LetterFormat.shape,
  letterStyle: z.string().min(1).max(80),
  link: Link,
  place: PlaceName,
  sample: z.literal(true),
  comment: CommentKey,
}

function checkMark(mark: Mark): void {
  if (checkedMarks.has(mark)) return
  const shape = markShapes[mark.type.name as keyof typeof markShapes]
  checkShape(shape, mark.attrs.value, `The value of "${mark.type.name}"`)
  checkedMarks.add(mark)
}

/** Letters have one mark of each kind, but for what was said of them. */
const mostMarks = Object.keys(markShapes).length + limits.commentsOnOne
const sameKind = (a: Mark, b: Mark) => a.type === b.type && (a.type.excludes(b.type) || a.eq(b))

/** Formats of paragraphs that passed, with the styles that they stood beside: readers of files share those that are alike. */
const checkedFormats = new WeakMap<object, Set<string>>()
const noFormat = {}

/** Whether a paragraph is like one that passed. Of a node no other attributes can be told than those that its kind has. */
function isKnown({ type, attrs }: Node): boolean {
  if (type !== schema.nodes.paragraph || attrs.letters !== null) return false
  const { style, format } = attrs as { style: unknown; format: object | null }
  if (typeof style !== "string" || (format !== null && typeof format !== "object")) return false
  return checkedFormats.get(format ?? noFormat)?.has(style) ?? false
}

function know({ type, attrs }: Node): void {
  if (type !== schema.nodes.paragraph || attrs.letters !== null) return
  const { style, format } = attrs as { style: string; format: object | null }
  const styles = checkedFormats.get(format ?? noFormat)
  if (!styles) checkedFormats.set(format ?? noFormat, new Set([style]))
  else if (styles.size < mostStyles) styles.add(style)
}

/** So many styles are remembered beside a format. */
const mostStyles = 200

/** Sets of marks that passed: words that look alike often share one. */
const checkedSets = new WeakSet<readonly Mark[]>()

function checkMarks({ type, marks }: Node): void {
  if (marks.length === 0 || checkedSets.has(marks)) return
  if (marks.length === 1) return checkMark(marks[0] as Mark)
  if (
    !Mark.sameSet(Mark.setFrom([...marks]), marks) ||
    marks.length > mostMarks ||
    marks.some((mark, i) => marks.findIndex((other) => sameKind(other, mark)) !== i)
  )
    throw new ReadingError(`A ${type.name} has a mark twice, or marks out of order`)
  marks.forEach(checkMark)
  checkedSets.add(marks)
}

/** Nodes that passed, and how many stand inside one another there. */
const heights = new WeakMap<Node, number>()

/** So many blocks may stand inside one another: tables in tables, as many as anybody could read. */
const deepest = 60

/** Positions in the largest document: forty times the longest novels. */
export const largestDocument = 40_000_000

/**
 * Checks the content and every attribute of a document and returns it.
 * Nodes that passed before are not looked at again, so checking after a step costs what changed.
 * @throws ReadingError
 */
export function checkDocument(doc: Node): Node {
  /** @returns how many nodes stand inside one another, down from this one */
  const visit = (node: Node): number => {
    const known = heights.get(node)
    if (known !== undefined) return known
    checkMarks(node)
    if (node.isText) return 1
    if (!node.type.validContent(node.content)) throw new ReadingError(`A ${node.type.name} holds what it cannot hold`)
    if (!checkedAttrs.has(node.attrs) && !isKnown(node)) {
      const shape = entryOf(attrShapes, node.type.name)
      if (shape) checkShape(shape.shape, node.attrs, shape.what)
      checkedAttrs.add(node.attrs)
      know(node)
    }
    let height = 1
    node.forEach((child) => (height = Math.max(height, visit(child) + 1)))
    if (height > deepest) throw new ReadingError(`A document holds at most ${deepest} blocks inside one another`)
    heights.set(node, height)
    return height
  }
  if (doc.nodeSize > largestDocument)
    throw new ReadingError(`A document holds up to ${largestDocument / 1e6} million characters`)
  if (doc.type !== schema.nodes.doc) throw new ReadingError("This is a part of a document, not a whole one")
  visit(doc)
  return doc
}

const Older = z.looseObject({
  attrs: z.looseObject({
    styles: z.looseObject({ defaults: z.looseObject({ paragraph: z.looseObject({}), letters: z.looseObject({}) }) }),
    properties: z.looseObject({}).optional(),
    checks: z.looseObject({}).optional(),
  }),
})

/** A document that was written before some of its settings and properties existed gets what a new one has. */
function completed(json: unknown): unknown {
  const older = Older.safeParse(json)
  if (!older.success) return json
  const { attrs } = older.data
  const { paragraph, letters } = attrs.styles.defaults
  const defaults = { paragraph: { ...defaultParagraph, ...paragraph }, letters: { ...defaultLetters, ...letters } }
  return {
    ...older.data,
    attrs: {
      typesetting: defaultTypesetting,
      notes: defaultNotes,
      brief: null,
      sources: defaultSources,
      ...attrs,
      styles: { fonts: {}, lists: {}, ...attrs.styles, defaults },
      properties: { ...defaultProperties, ...attrs.properties },
      checks: { ...defaultChecks, ...attrs.checks },
    },
  }
}

interface AnyNode {
  type?: unknown
  attrs?: Record<string, unknown>
  content?: unknown
}

/** Setups of a time when they had less, such as paper and margins alone: the document's, and those of its sections, which stand in the body itself. */
function withWholeSetups(json: unknown): unknown {
  const whole = (node: AnyNode): AnyNode => {
    const setup = node.attrs?.setup
    if (typeof setup !== "object" || setup === null) return node
    const { columns } = setup as { columns?: object }
    const completed = { ...defaultSetup, ...setup, columns: { ...defaultSetup.columns, ...columns } }
    return { ...node, attrs: { ...node.attrs, setup: completed } }
  }
  const isNode = (node: unknown): node is AnyNode => typeof node === "object" && node !== null
  const inside = (node: AnyNode, change: (child: AnyNode) => AnyNode): AnyNode =>
    Array.isArray(node.content)
      ? { ...node, content: (node.content as unknown[]).map((child) => (isNode(child) ? change(child) : child)) }
      : node
  const section = (node: AnyNode) => (node.type === "sectionBreak" ? whole(node) : node)
  return isNode(json) ? inside(whole(json), (part) => (part.type === "body" ? inside(part, section) : part)) : json
}

/** Where what came is missing by nature, nothing has to be done. */
const same = (json: unknown) => json

/** What brings a document of format n to n + 1, from the first one on. */
const upgrades: readonly ((json: unknown) => unknown)[] = [
  completed,
  withWholeSetups,
  (json) => withWholeSetups(completed(json)),
  completed,
  completed,
  same,
  same,
  completed,
]

/**
 * A document from its JSON.
 * @param format the number it was written with: see documentFormat
 * @throws ReadingError
 */
export function readDocument(json: unknown, format = documentFormat): Node {
  if (!(format >= 1 && format <= documentFormat))
    throw new ReadingError(
      `This document was written by a newer Biblon (format ${format}, this one reads up to ${documentFormat})`,
    )
  let doc: Node
  try {
    doc = Node.fromJSON(
      schema,
      upgrades.slice(format - 1).reduce((older, upgrade) => upgrade(older), json),
    )
  } catch (error) {
    throw new ReadingError(`This is not a Biblon document: ${error instanceof Error ? error.message : String(error)}`)
  }
  return checkDocument(doc)
}
