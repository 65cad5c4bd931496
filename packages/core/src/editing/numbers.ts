/** Numbers of the sheets at their heads and feet. */
import type { Node } from "prosemirror-model"
import type { EditorState } from "prosemirror-state"
import {
  edgeAt,
  edgeNames,
  edgeStory,
  fieldAttrs,
  nodes,
  partsOfLine,
  schema,
  sectionsOf,
  storiesOf,
  textOf,
  typedSheetNumbers,
  type EdgeName,
  type EdgePart,
  type EdgeVariant,
  type Section,
} from "../document"
import type { Command } from "./command"
import { changeEdgeLine, ensureEdge } from "./edges"
import { named } from "./history"
import { putSetup, sectionHere } from "./setup"

/** Where the number of a sheet stands: at which edge, and in which part of its line; or at the outer edge. */
export interface NumberPlace {
  edge: EdgeName
  part: EdgePart | "outer"
}

/** How it is written: `%1` stands for the number, `%2` for how many sheets there are. */
export const numberPatterns = ["%1", "– %1 –", "%1 of %2", "Sheet %1", "Sheet %1 of %2"] as const

const isNumber = (node: Node) => node.type === nodes.field && ["page", "pages"].includes(fieldAttrs(node).kind)

/** A part without a number that stood there, with the words that belong to that. */
function withoutNumber(part: readonly Node[]): Node[] {
  return part.some(isNumber)
    ? part.filter((node) => !isNumber(node) && !/^(– | –|Sheet | of )$/.test(node.text ?? ""))
    : [...part]
}

function numberIn(pattern: string): Node[] {
  return pattern
    .split(/(%1|%2)/)
    .filter((piece) => piece !== "")
    .map((piece) =>
      piece.startsWith("%")
        ? nodes.field.create({ kind: piece === "%1" ? "page" : "pages", format: "" })
        : schema.text(piece),
    )
}

/** The place of the number at the head or foot that sheets of the section with the caret show; null for none. */
export function numberPlace(state: EditorState): (NumberPlace & { pattern: string }) | null {
  const sections = sectionsOf(state.doc)
  const section = sectionHere(state)
  let pattern: string = numberPatterns[0]
  const at = (edge: EdgeName, variant: EdgeVariant): number => {
    const key = edgeStory(sections, section, edge, variant)
    const line = key === null ? undefined : storiesOf(state.doc).get(key)?.node.firstChild
    const parts = line ? partsOfLine(line) : []
    const own = parts.findIndex((part) => part.some(isNumber))
    const text = (parts[own] ?? [])
      .map((node) => (isNumber(node) ? (fieldAttrs(node).kind === "page" ? "%1" : "%2") : (node.text ?? "")))
      .join("")
    if (variant === "all")
      pattern = [...numberPatterns].reverse().find((one) => text.endsWith(one)) ?? numberPatterns[0]
    return own
  }
  for (const edge of edgeNames) {
    const part = at(edge, "all")
    if (part < 0) continue
    const outer = sections[section]?.setup.leftRight === true && part === 2 && at(edge, "left") === 0
    return { edge, part: outer ? "outer" : (part as EdgePart), pattern }
  }
  return null
}

/** Puts the numbers of the sheets in a place, and takes them away from any other; with null, takes them away. */
export function placeNumbers(place: NumberPlace | null, pattern: string): Command {
  return (state, dispatch) => {
    if (!dispatch) return true
    const { tr } = state
    const section = sectionHere(state)
    const current = () => sectionsOf(tr.doc)[section] as Section
    if (place?.part === "outer" && !current().setup.leftRight)
      putSetup(tr, current(), { ...current().setup, leftRight: true })
    const sides: EdgeVariant[] = current().setup.leftRight ? ["all", "left"] : ["all"]
    for (const edge of edgeNames)
      for (const variant of sides) {
        const here = place?.edge === edge
        const shown = edgeStory(sectionsOf(tr.doc), section, edge, variant)
        if (!here && shown === null) continue
        const key = here ? ensureEdge(tr, section, edge, variant, false) : (shown as string)
        changeEdgeLine(tr, key, (all) => {
          const parts = all.map(withoutNumber)
          if (!here) return parts
          const part = place.part === "outer" ? (variant === "left" ? 0 : 2) : place.part
          const own = parts[part] as Node[]
          parts[part] = [...own, ...(own.length > 0 ? [schema.text(" ")] : []), ...numberIn(pattern)]
          return parts
        })
      }
    if (!tr.docChanged) return false
    dispatch(named(tr, place ? "Numbers of the sheets" : "No numbers"))
    return true
  }
}

/** Writes the numbers of the sheets another way, wherever they stand when it comes to that. */
export function writeNumbers(pattern: string): Command {
  return (state, dispatch) => {
    const place = numberPlace(state)
    return place !== null && placeNumbers(place, pattern)(state, dispatch)
  }
}

/** A number that somebody typed at a head or foot as the number of the sheet, with its place: digits alone in their part of the line, or behind "Sheet", "Page" or a dash. */
export function typedNumber(state: EditorState): { from: number; to: number; number: string } | null {
  const { $head, empty } = state.selection
  if (!empty || !$head.parent.isTextblock || edgeAt(state.doc, $head.pos) === null) return null
  const typed = typedSheetNumbers(textOf($head.parent)).find(({ to }) => to === $head.parentOffset)
  return typed ? { from: $head.pos - typed.number.length, to: $head.pos, number: typed.number } : null
}

/** The number that somebody typed becomes the number of each sheet. */
export const typedToNumber: Command = (state, dispatch) => {
  const typed = typedNumber(state)
  if (!typed) return false
  const marks = state.doc.resolve(typed.to).marks()
  const field = nodes.field.create({ kind: "page", format: "" }, null, marks)
  dispatch?.(named(state.tr.replaceWith(typed.from, typed.to, field), "Number of the sheet"))
  return true
}
