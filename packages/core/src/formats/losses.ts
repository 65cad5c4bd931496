/** What a document has and a format does not carry: said before a file is written. A test writes and reads back each of them in each format. */
import type { Node } from "prosemirror-model"
import {
  bodyOf,
  cellFormat,
  documentAttrs,
  edgeNames,
  edgeVariants,
  fieldAttrs,
  leavesOf,
  namedParts,
  paragraphAttrs,
  paragraphLook,
  pictureFormat,
  sectionsOf,
  textOf,
  type PageSetup,
  type StyleSheet,
} from "../document"
import type { KindId } from "./kinds"

type Carrier = Extract<KindId, "docx" | "odt" | "rtf" | "html" | "epub" | "commonmark" | "text">

interface Feature {
  /** In words, for one and for several. */
  what: readonly [one: string, several: string]
  /** The formats that carry it, to be read again. */
  in: readonly Carrier[]
}

const offices = ["docx", "odt", "rtf"] as const
const pages = ["html", "epub"] as const

/** In the order in which they are said. */
const features = {
  watermark: { what: ["the watermark", "watermarks"], in: offices },
  frame: { what: ["the line round the sheets", "lines round the sheets"], in: offices },
  paper: { what: ["the colour of the paper", "colours of the paper"], in: ["docx", "odt"] },
  columns: { what: ["columns", "columns"], in: offices },
  edges: { what: ["heads and feet", "heads and feet"], in: offices },
  parts: { what: ["the names of the parts", "the names of the parts"], in: ["docx", "odt"] },
  comments: { what: ["a comment", "comments"], in: offices },
  enclosures: { what: ["an enclosed file", "enclosed files"], in: ["docx", "odt"] },
  formulas: { what: ["a formula, but for its value", "formulas, but for their values"], in: [] },
  citations: { what: ["the source of a citation", "the sources of citations"], in: ["docx", "odt"] },
  contents: { what: ["contents that follow the text", "contents that follow the text"], in: offices },
  notes: { what: ["a note as such", "notes as such"], in: [...offices, ...pages, "commonmark"] },
  tables: { what: ["the table as such", "tables as such"], in: [...offices, ...pages, "commonmark"] },
  turned: {
    what: ["lines of cells that rise or fall", "lines of cells that rise or fall"],
    in: [...offices, ...pages],
  },
  pictures: { what: ["a picture", "pictures"], in: [...offices, ...pages, "commonmark"] },
  floats: {
    what: ["the place of a picture beside the text", "the places of pictures beside the text"],
    in: offices,
  },
  outlines: { what: ["the outline of a picture", "the outlines of pictures"], in: ["docx"] },
  dropCaps: { what: ["a drop cap", "drop caps"], in: offices },
  tabs: { what: ["tab stops", "tab stops"], in: offices },
} as const satisfies Record<string, Feature>

export type FeatureId = keyof typeof features
export const featureIds = Object.keys(features) as FeatureId[]

export const isCarried = (id: FeatureId, kind: Carrier): boolean =>
  (features[id].in as readonly Carrier[]).includes(kind)

const inSetup: Partial<Record<FeatureId, (setup: PageSetup) => boolean>> = {
  watermark: ({ watermark }) => watermark !== null,
  frame: ({ frame }) => frame !== null,
  paper: ({ colour }) => colour !== null,
  columns: ({ columns }) => columns.count > 1,
  edges: (setup) => edgeNames.some((edge) => edgeVariants.some((variant) => setup[edge][variant] !== null)),
}

const fieldFeatures: ReadonlyMap<string, FeatureId> = new Map([
  ["enclosure", "enclosures"],
  ["formula", "formulas"],
  ["citation", "citations"],
])

const plain: readonly FeatureId[] = []
const inLeaves = new WeakMap<Node, readonly FeatureId[]>()

/** What stands in a paragraph. */
function inLeaf(leaf: Node): readonly FeatureId[] {
  let found = inLeaves.get(leaf)
  if (!found) {
    const own: FeatureId[] = []
    for (const child of leaf.children) {
      const field = child.type.name === "field" ? fieldFeatures.get(fieldAttrs(child).kind) : undefined
      if (field) own.push(field)
      else if (child.type.name === "anchor") own.push("notes")
      else if (child.type.name === "picture") {
        own.push("pictures")
        const { wrap, shape } = pictureFormat(child)
        if (wrap !== "line") own.push("floats")
        if (shape !== "plain") own.push("outlines")
      }
    }
    inLeaves.set(leaf, (found = own.length > 0 ? own : plain))
  }
  return found
}

/** Which of its looks are had in a paragraph. */
function looksOf(styles: StyleSheet, leaf: Node): FeatureId[] {
  const { format, style } = paragraphAttrs(leaf)
  const asked = format !== null || styles.styles[style]?.paragraph !== undefined
  if (!asked) return []
  const { dropCap, tabs } = paragraphLook(styles, leaf).paragraph
  return [
    ...(dropCap ? (["dropCaps"] as const) : []),
    ...(tabs.length > 0 && textOf(leaf).includes("\t") ? (["tabs"] as const) : []),
  ]
}

function inTables(parent: Node, add: (id: FeatureId) => void): void {
  parent.forEach((node) => {
    if (node.isTextblock) return
    if (node.type.name === "table") add("tables")
    if (node.type.name === "contents") add("contents")
    if (node.type.name === "cell" && (cellFormat(node).reading ?? "across") !== "across") add("turned")
    inTables(node, add)
  })
}

/** How often a document has what not every format carries. */
export function featuresOf(doc: Node): ReadonlyMap<FeatureId, number> {
  const found = new Map<FeatureId, number>()
  const add = (id: FeatureId, count = 1) => void (count > 0 && found.set(id, (found.get(id) ?? 0) + count))
  const { styles, comments } = documentAttrs(doc)
  for (const { setup } of sectionsOf(doc))
    for (const [id, has] of Object.entries(inSetup)) if (has(setup)) add(id as FeatureId)
  add("comments", Object.keys(comments).length)
  add("parts", namedParts(doc).length)
  for (const leaf of leavesOf(doc).nodes) {
    for (const id of inLeaf(leaf)) add(id)
    for (const id of looksOf(styles, leaf)) add(id)
  }
  inTables(bodyOf(doc), add)
  return found
}

const counted = new WeakMap<Node, ReadonlyMap<FeatureId, number>>()

/** What of a document a format does not carry, in words; none for those that carry everything, or nothing but the sheets. */
export function lossesIn(doc: Node, kind: KindId): string[] {
  if (kind === "pdf" || kind === "png" || kind === "json" || kind === "csv") return []
  let found = counted.get(doc)
  if (!found) counted.set(doc, (found = featuresOf(doc)))
  return featureIds.flatMap((id) => {
    const count = found?.get(id) ?? 0
    return count === 0 || isCarried(id, kind) ? [] : [features[id].what[count === 1 ? 0 : 1]]
  })
}
