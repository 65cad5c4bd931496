/** Blocks of the body by number, and their places in the document. */
import type { Node } from "prosemirror-model"
import { bodyOf } from "./schema"

/** Position of the first block of the body. */
const bodyStart = 1

const starts = new WeakMap<Node, Float64Array>()

/** For each block of the body the position before it, and last the position after the last block. */
export function blockStarts(doc: Node): Float64Array {
  const body = bodyOf(doc)
  let list = starts.get(body)
  if (!list) {
    list = new Float64Array(body.childCount + 1)
    let pos = bodyStart
    for (let i = 0; i < body.childCount; i++) {
      list[i] = pos
      pos += body.child(i).nodeSize
    }
    list[body.childCount] = pos
    starts.set(body, list)
  }
  return list
}

/** Number of the block that holds a position; the nearest one for positions outside all blocks. */
export function blockAt(doc: Node, pos: number): number {
  const list = blockStarts(doc)
  let low = 0
  let high = list.length - 2
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if ((list[middle] ?? 0) <= pos) low = middle
    else high = middle - 1
  }
  return low
}

/** Position of the start of a block's content. */
export function contentStart(doc: Node, block: number): number {
  return (blockStarts(doc)[block] ?? bodyStart) + 1
}

export interface BlockChange {
  /** First block that differs. */
  from: number
  /** End of the differing blocks in the older and in the newer body. */
  oldTo: number
  newTo: number
}

/** For each body the one that it was compared with last: several ask for the same pair after each change. */
const compared = new WeakMap<Node, { older: WeakRef<Node>; change: BlockChange | null }>()

/** The span of blocks in which two bodies differ, by identity; null if they are the same. */
export function changedBlocks(older: Node, newer: Node): BlockChange | null {
  if (older === newer) return null
  const known = compared.get(newer)
  if (known?.older.deref() === older) return known.change
  const change = compare(older, newer)
  compared.set(newer, { older: new WeakRef(older), change })
  return change
}

function compare(older: Node, newer: Node): BlockChange | null {
  const [a, b] = [older.children, newer.children]
  const shorter = Math.min(a.length, b.length)
  let from = 0
  while (from < shorter && a[from] === b[from]) from++
  if (from === a.length && from === b.length) return null
  let tail = 0
  while (tail < shorter - from && a[a.length - 1 - tail] === b[b.length - 1 - tail]) tail++
  return { from, oldTo: a.length - tail, newTo: b.length - tail }
}

/** Marked places by name, with the number of their block. */
export function placesOf(doc: Node): Map<string, number> {
  const places = new Map<string, number>()
  bodyOf(doc).forEach((block, _offset, number) => {
    block.forEach((child) => {
      for (const mark of child.marks) if (mark.type.name === "place" && !places.has(mark.attrs.value as string)) places.set(mark.attrs.value as string, number)
    })
  })
  return places
}

const texts = new WeakMap<Node, string>()

/** A paragraph's text, one UTF-16 unit for each position inside it: a leaf that has no text of its own counts as U+FFFC. */
export function blockText(block: Node): string {
  let text = texts.get(block)
  if (text === undefined) {
    text = block.textBetween(0, block.content.size, undefined, (leaf) => (leaf.type.name === "lineBreak" ? "\n" : "\ufffc"))
    texts.set(block, text)
  }
  return text
}
