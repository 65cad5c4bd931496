/**
 * Sets the paragraph that is being typed in at once, on the page, while the worker lays out the
 * document: as long as its number of lines stays the same, nothing else on the sheets moves, so that
 * what is shown is what the worker will report a few milliseconds later. Where it cannot be sure, it
 * leaves the matter to the worker.
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
  textOf,
} from "@biblon/core/document"
import {
  FontLibrary,
  HarfBuzz,
  Hyphenator,
  MissingFaceError,
  Typesetter,
  floatsOn,
  fragmentsOf,
  movesText,
  type Fragment,
  type LayoutSpec,
  type ParagraphLayout,
  isOwnText,
} from "@biblon/core/layout"
import { faceAddress } from "@biblon/core/layout/catalogue"
import type { Node } from "prosemirror-model"
import { addressOf } from "../../workers/addresses"
import type { LayoutMirror } from "../../workers/layoutMirror"

class NotYetLoaded extends Error {}

const unknownPages: ReadonlyMap<number, string> = new Map()

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

  /** The leaf that a change of the document touched, newly set, if nothing else can have moved; else null. */
  set(
    before: Node,
    after: Node,
    mirror: LayoutMirror,
    spec: LayoutSpec,
  ): { leaf: number; paragraph: ParagraphLayout } | null {
    const change = changedLeaves(before, after)
    const setting = documentAttrs(after)
    const labels = labelsOf(after)
    if (
      !this.typesetter ||
      !change ||
      change.newTo !== change.from + 1 ||
      change.oldTo !== change.newTo ||
      labels !== labelsOf(before)
    )
      return null
    if (setting.styles !== documentAttrs(before).styles || setting.typesetting !== documentAttrs(before).typesetting)
      return null
    const leaf = change.from
    // What marks of notes show may hang on their sheet.
    if (setting.notes.foot.restart === "sheet" && anchorsIn(leavesOf(after).node(leaf)).length > 0) return null
    // Heads and feet hang on the number of their sheet.
    if (leavesOf(after).flow(leaf).story !== null) return null
    // What fields show that is computed from the document, the worker knows.
    const node = leavesOf(after).node(leaf)
    if (textOf(node).includes("\ufffc") && computedOf(after, unknownPages).has(leaf)) return null
    const shown = shownLeaf(mirror, leaf)
    if (!shown) return null
    // A note goes to the sheet on which its mark comes to stand.
    if (shown.sheets > 1 && anchorsIn(node).length > 0) return null
    try {
      const paragraph = this.typesetter.paragraph(
        { flow: spec.mode === "flow", values: valuesOf(after, withName(valuesNow, spec.name ?? "")), ...setting },
        node,
        shown.width,
        labels[leaf] ?? null,
        { letters: tableLetters(setting.styles, after, leaf) },
      )
      return replaces(paragraph, shown.paragraph, shown.isDivided) ? { leaf, paragraph } : null
    } catch (error) {
      if (error instanceof NotYetLoaded) return null
      throw error
    }
  }
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
  sheets: number
  /** Whether its lines stand in several places. */
  isDivided: boolean
}

/** How a leaf is shown; null where not all of it is here, or where it may hang on more than its width. */
function shownLeaf(mirror: LayoutMirror, leaf: number): Shown | null {
  const { first, last } = mirror.sheetsOfLeaf(leaf)
  const parts: Fragment[] = []
  let sheets = 0
  for (let index = Math.max(0, first - 1); index <= last; index++) {
    const placed = mirror.placed(index)
    const here = placed ? fragmentsOf(placed).filter((own) => own.leaf === leaf && isOwnText(own)) : []
    // What takes room from lines is not known here.
    if (placed && here.length > 0 && floatsOn(placed).some(movesText)) return null
    parts.push(...here)
    if (here.length > 0) sheets++
  }
  const [start] = parts
  if (!start) return null
  const { paragraph, width } = start
  const isWhole = parts.reduce<number>((line, { from, to }) => (from === line ? to : -1), 0) === paragraph.lines.length
  // Where lines rise or fall, rows are as high as they are long.
  const isPlain = parts.every((own) => own.paragraph === paragraph && own.width === width && own.turn === null)
  return isWhole && isPlain ? { paragraph, width, sheets, isDivided: parts.length > 1 } : null
}
