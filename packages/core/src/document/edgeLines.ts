/** Lines at the heads and feet of sheets: three parts that are divided by tabs. */
import { Fragment, type Node } from "prosemirror-model"
import { fieldAttrs, fieldKinds, type FieldKind } from "./fields"
import { nodes, schema } from "./schema"

/** Three parts stand on a line: left, in the middle, right. */
export type EdgePart = 0 | 1 | 2

/** The parts of a line. */
export function partsOfLine(line: Node): Node[][] {
  const parts: Node[][] = [[], [], []]
  let part = 0
  line.forEach((child) => {
    if (!child.isText) return void parts[part]?.push(child)
    ;(child.text ?? "").split("\t").forEach((text, i) => {
      if (i > 0) part = Math.min(2, part + 1)
      if (text) parts[part]?.push(schema.text(text, child.marks))
    })
  })
  return parts
}

/** A line of its parts. */
export function lineOf(parts: readonly Node[][]): Fragment {
  const last = parts.findLastIndex((part) => part.length > 0)
  return Fragment.from(parts.slice(0, last + 1).flatMap((part, i) => (i === 0 ? part : [schema.text("\t"), ...part])))
}

/** A part of a line as it is written out: fields by their kinds in braces, such as "Sheet {page} of {pages}". */
export function edgeNodes(text: string): Node[] {
  const isKind = (kind: string): kind is FieldKind => (fieldKinds as readonly string[]).includes(kind)
  return text
    .split(/(\{\w+\})/)
    .filter((piece) => piece !== "")
    .map((piece) => {
      const kind = piece.slice(1, -1)
      if (!piece.startsWith("{") || !isKind(kind)) return schema.text(piece)
      return nodes.field.create({ kind, format: kind === "date" ? "long" : kind === "heading" ? "1" : "" })
    })
}

/** The same the other way round. */
export function edgeText(part: readonly Node[]): string {
  return part
    .map((node) => (node.type === nodes.field ? `{${fieldAttrs(node).kind}}` : (node.text ?? "")))
    .join("")
    .trim()
}

/** A number that stands alone in its part of the line, or behind one word, as that of a sheet does. */
const sheetNumber = /(?:^|\t)(?:\p{L}{1,12}\.? |[-–] ?)?(\d{1,4})(?=(?: ?[-–])?(?:\t|$))/gu

/** Numbers that were typed in a head or foot as those of sheets, by their offsets in its text. */
export function typedSheetNumbers(text: string): { from: number; to: number; number: string }[] {
  return [...text.matchAll(sheetNumber)].map(({ 0: all, 1: number = "", index }) => {
    const to = index + all.length
    return { from: to - number.length, to, number }
  })
}
