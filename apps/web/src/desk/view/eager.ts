/**
 * Shows a letter at once, on the page, while the worker lays out the document. As long as the number of lines of its paragraph stays
 * the same, nothing else on the sheets moves, and that paragraph is set in its place; else the sheets that it changes are composed
 * of those at hand. What is shown is what the worker will report a few milliseconds later. Where it cannot be sure, it leaves the
 * matter to the worker.
 */
import {
  anchorsIn,
  valuesNow,
  valuesOf,
  withName,
  changedLeaves,
  documentAttrs,
  labelsOf,
  computedOf,
  leavesOf,
  tableLetters,
  unknownPages,
} from "@biblon/core/document"
import {
  FontLibrary,
  HarfBuzz,
  Hyphenator,
  MissingFaceError,
  Typesetter,
  composeAhead,
  floatsOn,
  fragmentsOf,
  isOwnText,
  movesText,
  withParagraphs,
  type Fragment,
  type LayoutSpec,
  type ParagraphLayout,
  type PlacedSheet,
  type SheetsAtHand,
} from "@biblon/core/layout"
import { faceAddress } from "@biblon/core/layout/catalogue"
import type { Node } from "prosemirror-model"
import { addressOf } from "../../workers/addresses"
import type { LayoutMirror } from "../../workers/layoutMirror"

class NotYetLoaded extends Error {}

export class EagerTypesetter {
  private typesetter: Typesetter | null = null
  private readonly faces = new Map<string, Uint8Array<ArrayBuffer> | "coming" | "missing">()

  /** Loads what it needs when the page has nothing better to do. */
  async warm(mirror: LayoutMirror): Promise<void> {
    const wasm = await WebAssembly.compileStreaming(fetch(addressOf("harfbuzz.wasm")))
    const typesetter = new Typesetter(
      new FontLibrary(new HarfBuzz(wasm), (id) => this.face(id)),
      new Hyphenator((name) => this.face(name, `/hyphenation/${name}.wasm`)),
      valuesNow,
    )
    const used = new Set<string>()
    for (let i = 0; i < mirror.count; i++) {
      const placed = mirror.placed(i)
      for (const { paragraph } of placed ? fragmentsOf(placed) : [])
        for (const line of paragraph.lines) for (const { run } of line.runs) used.add(run.face)
    }
    await Promise.all([...used].map((id) => this.load(id)))
    for (const id of used) typesetter.fonts.font(id)
    this.typesetter = typesetter
  }

  /** A face, or the hyphenation of a language. */
  private async load(id: string, address = faceAddress(id)): Promise<void> {
    if (this.faces.has(id)) return
    this.faces.set(id, "coming")
    const response = await fetch(address)
    if (response.ok) this.faces.set(id, new Uint8Array(await response.arrayBuffer()))
    else if (response.status === 404) this.faces.set(id, "missing")
    else this.faces.delete(id)
  }

  private face(id: string, address = faceAddress(id)): Uint8Array<ArrayBuffer> {
    const face = this.faces.get(id)
    if (face instanceof Uint8Array) return face
    if (face === "missing") throw new MissingFaceError(id)
    void this.load(id, address).catch(() => this.faces.delete(id))
    throw new NotYetLoaded(id)
  }

  /**
   * @param seen the number of the first sheet behind those in sight
   * @returns sheets that a change of the document makes other ones, by their numbers, as far as they are seen; null where that is not sure
   */
  set(
    before: Node,
    after: Node,
    mirror: LayoutMirror,
    spec: LayoutSpec,
    seen: number,
  ): ReadonlyMap<number, PlacedSheet> | null {
    const change = changedLeaves(before, after)
    const setting = documentAttrs(after)
    const labels = labelsOf(after)
    const { typesetter } = this
    if (
      !typesetter ||
      !change ||
      change.newTo !== change.from + 1 ||
      change.oldTo !== change.newTo ||
      labels !== labelsOf(before)
    )
      return null
    if (setting.styles !== documentAttrs(before).styles || setting.typesetting !== documentAttrs(before).typesetting)
      return null
    const leaf = change.from
    // Heads and feet hang on the number of their sheet, and what notes say on that of their mark.
    if (leavesOf(after).flow(leaf).story !== null) return null
    // What marks of notes show may hang on their sheet.
    const node = leavesOf(after).node(leaf)
    const marked = anchorsIn(node).length > 0
    if (setting.notes.foot.restart === "sheet" && marked) return null
    // What fields show that is computed from the document, the worker knows.
    const holdsFields = node.children.some(({ type }) => type.name === "field")
    if (holdsFields && computedOf(after, unknownPages).has(leaf)) return null
    const shown = shownLeaf(mirror, leaf)
    if (!shown) return null
    try {
      const paragraph = typesetter.paragraph(
        { flow: spec.mode === "flow", values: valuesOf(after, withName(valuesNow, spec.name ?? "")), ...setting },
        node,
        shown.width,
        labels[leaf] ?? null,
        { letters: tableLetters(setting.styles, after, leaf) },
      )
      // A note goes to the sheet on which its mark comes to stand.
      const stays = replaces(paragraph, shown.paragraph, shown.isDivided) && (shown.sheets.length === 1 || !marked)
      if (stays) return new Map(shown.sheets.map((index) => [index, withLeaf(mirror.placed(index)!, leaf, paragraph)]))
      return composeAhead(typesetter, atHand(before, mirror, shown.sheets[0]!), after, spec, leaf, seen)
    } catch (error) {
      if (error instanceof NotYetLoaded) return null
      throw error
    }
  }
}

/** The sheets at hand round one of them. */
function atHand(doc: Node, mirror: LayoutMirror, index: number): SheetsAtHand {
  let from = index
  while (mirror.placed(from - 1)) from--
  const sheets: PlacedSheet[] = []
  for (let placed = mirror.placed(from); placed; placed = mirror.placed(from + sheets.length)) sheets.push(placed)
  return { doc, sheets, from, count: mirror.count, pages: mirror.pages }
}

/** A sheet on which a leaf is set anew. */
function withLeaf(placed: PlacedSheet, leaf: number, paragraph: ParagraphLayout): PlacedSheet {
  const at = new Set(
    fragmentsOf(placed).flatMap(({ part, leaf: own }, i) => (part === "text" && own === leaf ? [i] : [])),
  )
  let n = 0
  return { ...placed, sheet: withParagraphs(placed.sheet, (own) => (at.has(n++) ? paragraph : own)) }
}

/** Whether one layout of a paragraph can stand in another's place without anything else moving. @param divided whether its lines stand in several places */
function replaces(a: ParagraphLayout, b: ParagraphLayout, divided: boolean): boolean {
  // Formats from the worker are copies, so they are compared by what they say.
  return (
    a.lines.length === b.lines.length &&
    Math.abs(a.height - b.height) < 1e-6 &&
    (!divided || a.lines.every((line, i) => Math.abs(line.height - b.lines[i]!.height) < 1e-6)) &&
    a.outline === b.outline &&
    JSON.stringify(a.format) === JSON.stringify(b.format)
  )
}

/** A leaf as it is shown, in columns of one width. */
interface Shown extends Pick<Fragment, "paragraph" | "width"> {
  sheets: readonly number[]
  /** Whether its lines stand in several places. */
  isDivided: boolean
}

/** How a leaf is shown; null where not all of it is here, or where it may hang on more than its width. */
function shownLeaf(mirror: LayoutMirror, leaf: number): Shown | null {
  const { first, last } = mirror.sheetsOfLeaf(leaf)
  const parts: Fragment[] = []
  const sheets: number[] = []
  for (let index = Math.max(0, first - 1); index <= last; index++) {
    const placed = mirror.placed(index)
    const here = placed ? fragmentsOf(placed).filter((own) => own.leaf === leaf && isOwnText(own)) : []
    // What takes room from lines is not known here.
    if (placed && here.length > 0 && floatsOn(placed).some(movesText)) return null
    parts.push(...here)
    if (here.length > 0) sheets.push(index)
  }
  const [start] = parts
  if (!start) return null
  const { paragraph, width } = start
  const isWhole = parts.reduce<number>((line, { from, to }) => (from === line ? to : -1), 0) === paragraph.lines.length
  // Where lines rise or fall, rows are as high as they are long.
  const isPlain = parts.every((own) => own.paragraph === paragraph && own.width === width && own.turn === null)
  return isWhole && isPlain ? { paragraph, width, sheets, isDivided: parts.length > 1 } : null
}
