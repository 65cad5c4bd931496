/** Parts: begun, named, moved and taken away. What a section shows at the head and foot of its sheets goes along with it. */
import { Fragment, type Node } from "prosemirror-model"
import { TextSelection, type Transaction } from "prosemirror-state"
import {
  asName,
  blocksBetween,
  bodyOf,
  documentAttrs,
  edgeNames,
  edgeStory,
  edgeVariants,
  headingsOf,
  namedParts,
  nodes,
  partBegun,
  sectionAt,
  sectionsOf,
  setEntries,
  storiesOf,
  type NamedPart,
  type PageSetup,
  type PartName,
  type Section,
} from "../document"
import type { Command } from "./command"
import { named, quoted } from "./history"
import { breakSection, breakSectionAt, putSetup, setupBehind } from "./setup"
import { newKey } from "./stories"

const unnamed = "Part without a name"

/** What a part is called where people read it. */
export function partTitle({ name }: PartName): string {
  return name || "Before the parts"
}

/** Names the part that begins at a position, which is that before a break, or null for the document. */
function putName(tr: Transaction, pos: number | null, part: PartName | null): void {
  const fit = part && { ...part, name: asName(part.name) || unnamed }
  setEntries(tr, pos, "part", fit)
}

/** What stood before the first part becomes one too: a document is in parts as a whole. */
function nameOpening(tr: Transaction): void {
  const [first] = sectionsOf(tr.doc)
  if (!first || partBegun(tr.doc, first)) return
  const title = documentAttrs(tr.doc).properties.title || headingsOf(tr.doc)[0]?.text || "Opening"
  putName(tr, null, { name: title, sign: null })
}

/** From the caret on, the text is a part of its own; where it begins a section already, that is it. Only in the body itself. */
export function startPart(part: PartName): Command {
  return (state, dispatch) => {
    const { $head } = state.selection
    if ($head.depth !== 2 || $head.node(1).type !== nodes.body) return false
    if (!dispatch) return true
    const { tr } = state
    const section = sectionAt(state.doc, $head.pos)
    const here = sectionsOf(state.doc)[section] as Section
    if ($head.parentOffset === 0 && $head.before() === blocksBetween(state.doc, section, section + 1).start)
      putName(tr, here.pos, part)
    else putName(tr, breakSectionAt(tr, $head, setupBehind(here.setup, "sheet")) - 1, part)
    nameOpening(tr)
    dispatch(named(tr, `Part ${quoted(asName(part.name))}`).scrollIntoView())
    return true
  }
}

/** A part without text behind all others, with the caret in it. */
export function addPart(part: PartName): Command {
  return (state, dispatch) => {
    if (!dispatch) return true
    const { tr } = state
    const last = sectionsOf(state.doc).at(-1) as Section
    const behind = breakSection(tr, bodyOf(state.doc).nodeSize - 1, setupBehind(last.setup, "sheet"))
    putName(tr, behind - 1, part)
    tr.insert(behind, nodes.paragraph.create())
    nameOpening(tr)
    tr.setSelection(TextSelection.near(tr.doc.resolve(behind + 1)))
    dispatch(named(tr, `Part ${quoted(asName(part.name))}`).scrollIntoView())
    return true
  }
}

/** Gives a part another name or sign. A name of nothing changes nothing. */
export function renamePart(index: number, change: Partial<PartName>): Command {
  return (state, dispatch) => {
    const part = namedParts(state.doc)[index]
    if (!part || (change.name !== undefined && asName(change.name) === "")) return false
    const { tr } = state
    putName(tr, part.pos, {
      name: change.name ?? partTitle(part),
      sign: change.sign === undefined ? part.sign : change.sign,
    })
    if (!tr.docChanged) return false
    dispatch?.(named(tr, "Name of the part"))
    return true
  }
}

/** A part is none any longer: its text goes on in the part before it, on the sheets that it has. The first one only where it is the only one. */
export function joinPart(index: number): Command {
  return (state, dispatch) => {
    const parts = namedParts(state.doc)
    const part = parts[index]
    if (!part || (index === 0 && parts.length > 1)) return false
    const { tr } = state
    putName(tr, part.pos, null)
    dispatch?.(named(tr, `Joined the part ${quoted(partTitle(part))}`))
    return true
  }
}

interface Shown {
  setup: PageSetup
  part: PartName | null
}

/**
 * What sections have once they stand in another order: each goes on showing the heads and feet that it showed. What the section before it
 * shows needs no telling; what two sections tell of is copied.
 */
function rearranged(tr: Transaction, order: readonly number[]): Shown[] {
  const sections = sectionsOf(tr.doc)
  const taken = new Set<string>()
  const copies: Node[] = []
  const after: Section[] = []
  const shown = order.map((section): Shown => {
    const own = sections[section] as Section
    let { setup } = own
    for (const edge of edgeNames)
      for (const variant of edgeVariants) {
        const key = edgeStory(sections, section, edge, variant)
        const already = edgeStory(after, after.length - 1, edge, variant)
        let told = key === already ? null : key
        const story = key === null ? undefined : storiesOf(tr.doc).get(key)?.node
        // Where nothing was shown, nothing is to be shown behind one that shows something.
        if (key !== already && (key === null || (story && taken.has(key)))) {
          told = newKey(tr.doc, taken)
          const kind = edge === "head" ? "header" : "footer"
          copies.push(nodes.story.create({ key: told, kind }, story?.content ?? nodes.paragraph.create()))
        }
        if (told !== null) taken.add(told)
        if (setup[edge][variant] !== told) setup = { ...setup, [edge]: { ...setup[edge], [variant]: told } }
      }
    after.push({ ...own, setup })
    return { setup, part: partBegun(tr.doc, own) }
  })
  if (copies.length > 0) tr.insert(tr.doc.content.size, Fragment.from(copies))
  return shown
}

function putShown(tr: Transaction, shown: readonly Shown[]): void {
  shown.forEach(({ setup, part }, i) => {
    const section = sectionsOf(tr.doc)[i] as Section
    putSetup(tr, section, setup)
    putName(tr, section.pos, part)
  })
}

/** Takes some sections out of the body, with one of the breaks beside them. @returns their blocks */
function takeOut(tr: Transaction, from: number, to: number): Fragment {
  const { start, end } = blocksBetween(tr.doc, from, to)
  const blocks = bodyOf(tr.doc).slice(start - 1, end - 1).content
  if (from > 0) tr.delete(start - 1, end)
  else tr.delete(start, end + 1)
  return blocks
}

const numbersFrom = (from: number, to: number) => Array.from({ length: to - from }, (_, i) => from + i)

/** Moves a part, with all its sections, before another (the number of parts for the end). */
export function movePart(index: number, before: number): Command {
  return (state, dispatch) => {
    const parts = namedParts(state.doc)
    const part = parts[index]
    if (!part || before < 0 || before > parts.length || before === index || before === index + 1) return false
    if (!dispatch) return true
    const { tr } = state
    const count = sectionsOf(state.doc).length
    const others = [...numbersFrom(0, part.from), ...numbersFrom(part.to, count)]
    const target = parts[before]?.from ?? count
    // Among the sections that stay.
    const place = target > part.from ? target - (part.to - part.from) : target
    const order = [...others.slice(0, place), ...numbersFrom(part.from, part.to), ...others.slice(place)]
    const shown = rearranged(tr, order)
    const blocks = takeOut(tr, part.from, part.to)
    const setup = documentAttrs(tr.doc).setup
    const at = blocksBetween(tr.doc, Math.max(0, place - 1), Math.max(1, place))
    let start: number
    if (place === 0) {
      start = at.start
      tr.insert(start, blocks.addToEnd(nodes.sectionBreak.create({ setup })))
    } else {
      start = at.end + 1
      tr.insert(at.end, blocks.addToStart(nodes.sectionBreak.create({ setup })))
    }
    putShown(tr, shown)
    tr.setSelection(TextSelection.near(tr.doc.resolve(start)))
    dispatch(named(tr, `Moved the part ${quoted(partTitle(part))}`).scrollIntoView())
    return true
  }
}

/** Takes a part away with all its text; the last one stays. */
export function deletePart(index: number): Command {
  return (state, dispatch) => {
    const parts = namedParts(state.doc)
    const part: NamedPart | undefined = parts[index]
    if (!part || parts.length < 2) return false
    if (!dispatch) return true
    const { tr } = state
    const count = sectionsOf(state.doc).length
    const shown = rearranged(tr, [...numbersFrom(0, part.from), ...numbersFrom(part.to, count)])
    takeOut(tr, part.from, part.to)
    putShown(tr, shown)
    const next = namedParts(tr.doc)[Math.min(index, parts.length - 2)]
    tr.setSelection(TextSelection.near(tr.doc.resolve(next?.start ?? 1)))
    dispatch(named(tr, `Took away the part ${quoted(partTitle(part))}`).scrollIntoView())
    return true
  }
}
