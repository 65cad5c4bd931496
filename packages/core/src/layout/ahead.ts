/**
 * Composes the sheets that a letter changes where only some sheets of a layout are at hand, as on the page, while another thread
 * composes the whole. What comes out is what that will come to; where it may hang on more than is at hand, nothing does.
 */
import type { Node } from "prosemirror-model"
import {
  citationsOf,
  computedOf,
  documentAttrs,
  firstLeafOf,
  formulasOf,
  hasContents,
  labelsOf,
  leavesOf,
  leavesOfBody,
  listedIn,
  listsSources,
  noteLabels,
  notesOf,
} from "../document"
import { floatsOn, fragmentsOf, isBeginning, sameBreak, tablesOf } from "./boxes"
import { movesText } from "./floats"
import type { SetBefore } from "./flow"
import { furnitureOfNotes } from "./furniture"
import { headingsOn } from "./headings"
import { sameOwed } from "./notes"
import type { Typesetter } from "./paragraph"
import { SheetComposer, type SheetPlace } from "./sheets"
import type { Layout, LayoutSpec, PlacedSheet, Sheet } from "./types"

/** Sheets of a layout that lie one behind the other, with what stands at their heads and feet. */
export interface SheetsAtHand {
  doc: Node
  sheets: readonly PlacedSheet[]
  /** The number of the first of them among all, of which there are so many. */
  from: number
  count: number
  /** See Layout. */
  pages: Layout["pages"]
}

/** Whether a sheet can be composed of what is at hand: what stands beside its lines is not, and tables are long. */
function isPlain(placed: PlacedSheet): boolean {
  return tablesOf(placed).length === 0 && !floatsOn(placed).some(movesText)
}

/** Makes known how the paragraphs of a sheet were set. Those with fields, which may show another time by now, are set anew. */
function remember(before: SetBefore, doc: Node, placed: PlacedSheet, marks: ReadonlyMap<string, string>): void {
  const leaves = leavesOf(doc)
  const labels = labelsOf(doc)
  for (const { part, leaf, paragraph, from, width } of fragmentsOf(placed)) {
    if ((part !== "text" && part !== "note") || from > 0) continue
    const node = leaves.node(leaf)
    if (node.children.some(({ type }) => type.name === "field" || type.name === "picture")) continue
    const { story } = leaves.flow(leaf)
    const isNote = story !== null && firstLeafOf(doc, story) === leaf
    const label = (isNote ? marks.get(story) : labels[leaf]) ?? null
    before.set(node, { width, label, letters: null, floats: null, isNote: isNote && label !== null, paragraph })
  }
}

/** A sheet with the head and foot of the one in whose place it stands; null where these may say something else on it. */
function furnished(doc: Node, sheet: Sheet, leaf: number, before: PlacedSheet): PlacedSheet | null {
  const own = (before.furniture ?? []).filter(({ part }) => part !== "note")
  const said = (headed: Sheet) => JSON.stringify(headingsOn(headed).map(({ level, text }) => [level, text]))
  if (own.some(({ part }) => part !== "watermark") && said(sheet) !== said(before.sheet)) return null
  const notes = furnitureOfNotes(doc, sheet.notes)
  const behind = own.filter(({ part }) => part === "watermark")
  const furniture = [...behind, ...notes, ...own.filter((one) => !behind.includes(one))]
  return furniture.length > 0 ? { sheet, leaf, furniture } : { sheet, leaf }
}

/**
 * Finds what `composeAhead` asks of a whole document. Done now and then, when there is time, what has changed since is all that has to be
 * looked at.
 */
export function lookOver(doc: Node): void {
  listedIn(doc)
  citationsOf(doc)
  formulasOf(doc)
}

/**
 * @param leaf the one leaf, of the body, in which the document is not as that of the sheets at hand; its numbers and labels are
 * @param seen the number of the first sheet that is out of sight: from there on they may stay as they were
 * @returns the sheets that are other ones, by their numbers; null where that cannot be said
 */
export function composeAhead(
  typesetter: Typesetter,
  { doc: older, sheets, from, count, pages }: SheetsAtHand,
  doc: Node,
  spec: LayoutSpec,
  leaf: number,
  seen: number,
): ReadonlyMap<number, PlacedSheet> | null {
  const first = sheets.findIndex((own) => own.leaf + own.sheet.lookedAt >= leaf)
  const start = sheets[first]
  if (!start || (first === 0 && from > 0)) return null
  // Marks that are counted on each sheet hang on all before it, sources on a program, and what is computed on the whole document.
  if (documentAttrs(doc).notes.foot.restart === "sheet" && notesOf(doc).length > 0) return null
  if (listsSources(doc)) return null
  // Contents, which may stand anywhere before it, say what it says.
  if (hasContents(doc) && listedIn(doc) !== listedIn(older)) return null
  const computed = [...computedOf(doc, pages).keys()]
  if (computed.some((own) => own >= leavesOfBody(doc))) return null

  const marks = noteLabels(doc)
  const before: SetBefore = new WeakMap()
  const composer = new SheetComposer(typesetter, doc, spec, { pages, marks }, before)
  let place: SheetPlace = {
    leaf: start.leaf,
    at: start.sheet.start.at,
    // Of its number all that matters is the side.
    number: start.sheet.start.left ? 2 : 1,
    owed: start.sheet.start.owed,
  }
  const beginsThere = (own: PlacedSheet) => {
    const { at, owed, left, blank } = own.sheet.start
    const begun = composer.startAt(place)
    return (
      own.leaf === place.leaf &&
      sameBreak(at, place.at) &&
      sameOwed(owed, place.owed) &&
      left === begun.left &&
      blank === begun.blank
    )
  }
  if (!beginsThere(start)) return null
  // A strip of the flow view also depends on the leaf before it, and ends where the next one begins that does not.
  const behind = spec.mode === "flow" ? leaf + 2 : leaf + 1
  const following = sheets.find((own) => own.leaf >= behind)
  const stripEnd = following && isBeginning(following.sheet.start.at) ? following.leaf : null

  const know = (own: PlacedSheet | undefined) => own && remember(before, older, own, marks)
  sheets.slice(Math.max(0, first - 1), first + 1).forEach(know)
  const composed = new Map<number, PlacedSheet>()
  for (let n = first; ; n++) {
    const own = sheets[n]
    if (composed.size > 0) {
      if (composer.isEnd(place)) return from + n === count ? composed : null
      if (own && own.leaf >= behind && beginsThere(own)) return composed
      if (from + n >= seen && place.leaf > leaf) return composed
    }
    if (!own || !isPlain(own)) return null
    know(sheets[n + 1])
    const sheet = composer.compose(place, stripEnd)
    const placed = furnished(doc, sheet, place.leaf, own)
    const hangs = computed.some((leaf) => leaf >= place.leaf && leaf <= place.leaf + sheet.lookedAt)
    if (!placed || !isPlain(placed) || hangs) return null
    composed.set(from + n, placed)
    place = composer.placeBehind(placed, place.number)
  }
}
