/**
 * Leaves: the paragraphs of a document wherever they stand (in the body, in a cell, in a story beside the
 * body), numbered in the order of the document. A leaf's number is the one address of text for layout,
 * view, find, marks, trail and outline. Everything here is made once for a document and remembered by node.
 */
import type { Node } from "prosemirror-model"
import type { StoryKind } from "./schema"

export type FlowKind = "body" | "cell" | StoryKind

/** Blocks that are set under each other. */
export interface Flow {
  kind: FlowKind
  /** The node whose children they are. */
  node: Node
  /** Key of the story it is or stands in; null in the body. */
  story: string | null
}

export interface Leaves {
  readonly count: number
  /** The leaves in order. */
  readonly nodes: readonly Node[]
  /** @throws RangeError if there is no leaf of that number */
  node(leaf: number): Node
  /** Position before a leaf; for the number of leaves, the one behind the last. */
  before(leaf: number): number
  /** Position at which a leaf's content begins. */
  start(leaf: number): number
  /** Position at which a leaf's content ends. */
  end(leaf: number): number
  /** The leaf that holds a position; the nearest one before a position that is in none. */
  at(pos: number): number
  /** The stack of blocks that a leaf is set in. */
  flow(leaf: number): Flow
}

/** Whether a block is a leaf: one that holds text. */
export function isLeaf(node: Node): boolean {
  return node.inlineContent
}

/** Leaves inside a node, with their places counted from the position before it. */
interface Inside {
  nodes: readonly Node[]
  /** Positions before the leaves. */
  before: readonly number[]
  flows: readonly (Flow | null)[]
}

const insides = new WeakMap<Node, Inside>()

/** What flow a node begins for its children; null for one whose children stand in that of their parent, or have no paragraphs for children. */
function flowOf(node: Node): Flow | null {
  const { name } = node.type
  if (name === "body" || name === "cell") return { kind: name, node, story: null }
  return name === "story" ? { kind: node.attrs.kind as StoryKind, node, story: node.attrs.key as string } : null
}

function insideOf(node: Node): Inside {
  let inside = insides.get(node)
  if (inside) return inside
  const nodes: Node[] = []
  const before: number[] = []
  const flows: (Flow | null)[] = []
  const flow = flowOf(node)
  node.forEach((child, offset) => {
    if (isLeaf(child)) {
      nodes.push(child)
      before.push(offset + 1)
      flows.push(flow)
      return
    }
    const own = insideOf(child)
    own.nodes.forEach((leaf, i) => {
      nodes.push(leaf)
      before.push(offset + 1 + (own.before[i] as number))
      const inner = own.flows[i] ?? flow
      flows.push(inner && flow?.story ? { ...inner, story: flow.story } : inner)
    })
  })
  insides.set(node, (inside = { nodes, before, flows }))
  return inside
}

/** Index of the last of ascending numbers, up to index `high`, that is not above a value; 0 where all are. */
function lastUpTo(numbers: Float64Array, high: number, value: number): number {
  let low = 0
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if ((numbers[middle] ?? 0) <= value) low = middle
    else high = middle - 1
  }
  return low
}

/** Whether two lists are the same from an element on. */
export function sameFrom<T>(start: number, a: readonly T[], b: readonly T[]): boolean {
  if (a.length !== b.length) return false
  for (let i = start; i < a.length; i++) if (a[i] !== b[i]) return false
  return true
}

/**
 * What is made of the stories of a document, with the distance of each from the end of the body: made once, since it is the same
 * after any change of the body alone. It is found by the first story, and good if all the others are the same too.
 */
export function ofStories<T>(make: (stories: readonly { node: Node; pos: number }[]) => T): (doc: Node) => T {
  const made = new WeakMap<Node, { children: readonly Node[]; result: T }>()
  const without = make([])
  return ({ children }) => {
    const first = children[1]
    if (!first) return without
    const known = made.get(first)
    if (known && sameFrom(1, children, known.children)) return known.result
    let pos = 0
    const result = make(children.slice(1).map((node) => ({ node, pos: (pos += node.nodeSize) - node.nodeSize })))
    made.set(first, { children, result })
    return result
  }
}

/** The leaves of the stories, with their places counted from the end of the body. */
const besideOf = ofStories((stories): Inside => {
  const beside = { nodes: [] as Node[], before: [] as number[], flows: [] as (Flow | null)[] }
  for (const { node, pos } of stories) {
    const inside = insideOf(node)
    inside.nodes.forEach((leaf, i) => {
      beside.nodes.push(leaf)
      beside.before.push(pos + (inside.before[i] as number))
      beside.flows.push(inside.flows[i] ?? null)
    })
  }
  return beside
})

class DocumentLeaves implements Leaves {
  readonly nodes: readonly Node[]
  /** Positions before the leaves, and last the one behind them all. */
  private readonly places: Float64Array
  /** Flows by leaf; null where every leaf stands in the body itself. */
  private readonly flows: readonly (Flow | null)[] | null
  private readonly body: Flow

  constructor(doc: Node) {
    const body = doc.child(0)
    this.body = { kind: "body", node: body, story: null }
    const { children } = body
    if (doc.childCount === 1 && blocksOf(body).flat) {
      this.nodes = children
      this.flows = null
      this.places = new Float64Array(children.length + 1)
      let pos = 1
      for (let i = 0; i < children.length; i++) {
        this.places[i] = pos
        pos += (children[i] as Node).nodeSize
      }
      this.places[children.length] = pos
      return
    }
    const inside = insideOf(body)
    const beside = besideOf(doc)
    const own = inside.nodes.length
    const end = body.nodeSize
    this.nodes = beside.nodes.length > 0 ? inside.nodes.concat(beside.nodes) : inside.nodes
    this.flows = beside.flows.length > 0 ? inside.flows.concat(beside.flows) : inside.flows
    this.places = new Float64Array(this.nodes.length + 1)
    for (let i = 0; i < own; i++) this.places[i] = inside.before[i] as number
    for (let i = 0; i < beside.nodes.length; i++) this.places[own + i] = end + (beside.before[i] as number)
    const last = this.nodes.length - 1
    this.places[last + 1] = (this.places[last] ?? 0) + (this.nodes[last]?.nodeSize ?? 0)
  }

  get count(): number {
    return this.nodes.length
  }

  node(leaf: number): Node {
    const node = this.nodes[leaf]
    if (!node) throw new RangeError(`The document has no paragraph of number ${leaf}`)
    return node
  }

  before(leaf: number): number {
    return this.places[leaf] ?? 1
  }

  start(leaf: number): number {
    return this.before(leaf) + 1
  }

  end(leaf: number): number {
    return this.start(leaf) + this.node(leaf).content.size
  }

  at(pos: number): number {
    return lastUpTo(this.places, this.nodes.length - 1, pos)
  }

  flow(leaf: number): Flow {
    return this.flows?.[leaf] ?? this.body
  }
}

/** The blocks of a flow in order, with the leaves that each begins with, counted from the flow's first. */
export interface Blocks {
  readonly nodes: readonly Node[]
  /** Whether all of them are leaves themselves. */
  readonly flat: boolean
  /** Leaves of the flow before a block; for the number of blocks, all of them. */
  leaf(block: number): number
  /** The block that holds a leaf; for the number of leaves, the number of blocks. */
  at(leaf: number): number
}

const blocks = new WeakMap<Node, Blocks>()

/** The blocks of a body, a cell or a story. */
export function blocksOf(flow: Node): Blocks {
  let known = blocks.get(flow)
  if (known) return known
  const nodes = flow.children
  if (nodes.every(isLeaf)) known = { nodes, flat: true, leaf: (block) => block, at: (leaf) => leaf }
  else {
    const before = new Float64Array(nodes.length + 1)
    nodes.forEach((node, i) => (before[i + 1] = (before[i] as number) + leavesIn(node)))
    // Of blocks without leaves and the one behind them, all of which begin at the same leaf, the last holds it.
    known = {
      nodes,
      flat: false,
      leaf: (block) => before[block] ?? 0,
      at: (leaf) => lastUpTo(before, nodes.length, leaf),
    }
  }
  blocks.set(flow, known)
  return known
}

/** How many leaves the body of a document has. */
export function leavesOfBody(doc: Node): number {
  const own = blocksOf(doc.child(0))
  return own.leaf(own.nodes.length)
}

const known = new WeakMap<Node, Leaves>()

/** The leaves of a document. Documents with the same body and stories have the same leaves. */
export function leavesOf(doc: Node): Leaves {
  // What hangs on the document alone, such as its styles, leaves the body as it was.
  const holder = doc.childCount === 1 ? doc.child(0) : doc
  let leaves = known.get(holder)
  if (!leaves) known.set(holder, (leaves = new DocumentLeaves(doc)))
  return leaves
}

export interface LeafChange {
  /** First leaf that differs. */
  from: number
  /** End of the differing leaves in the older and in the newer document. */
  oldTo: number
  newTo: number
}

/** For each document the one that it was compared with last: several ask for the same pair after each change. */
const compared = new WeakMap<Node, { older: WeakRef<Node>; change: LeafChange | null }>()

const alone = new WeakMap<Node, Node>()

/** A document without what stands beside its body. */
function bodyAlone(doc: Node): Node {
  const body = doc.child(0)
  if (doc.childCount === 1) return doc
  let own = alone.get(body)
  if (!own) alone.set(body, (own = doc.type.create(null, body)))
  return own
}

/**
 * The span of leaves in which two documents differ, by identity; null if their bodies and stories are the same. Where only
 * the blocks around leaves differ, the span holds the leaves inside these and beside them.
 */
export function changedLeaves(older: Node, newer: Node): LeafChange | null {
  if (older === newer) return null
  const before = compared.get(newer)
  if (before?.older.deref() === older) return before.change
  const change = compare(older, newer)
  compared.set(newer, { older: new WeakRef(older), change })
  return change
}

/** The span of leaves of the body in which two documents differ, by identity; null if their bodies are the same. */
export function changedInBody(older: Node, newer: Node): LeafChange | null {
  if (older.child(0) === newer.child(0)) return null
  // With the same stories, or none, the change lies in the body: most often it is known already.
  if (!sameFrom(1, older.children, newer.children)) return changedLeaves(bodyAlone(older), bodyAlone(newer))
  const change = changedLeaves(older, newer)
  return (
    change && {
      ...change,
      oldTo: Math.min(change.oldTo, leavesOfBody(older)),
      newTo: Math.min(change.newTo, leavesOfBody(newer)),
    }
  )
}

function compare(older: Node, newer: Node): LeafChange | null {
  if (sameInside(older, newer)) return null
  const [a, b] = [leavesOf(older).count, leavesOf(newer).count]
  const shorter = Math.min(a, b)
  const from = Math.min(shorter, alikeAtStart(older, newer))
  const tail = Math.min(shorter - from, alikeAtEnd(older, newer))
  const change = { from, oldTo: a - tail, newTo: b - tail }
  if (change.oldTo > from || change.newTo > from) return change
  return { from: Math.max(0, from - 1), oldTo: Math.min(a, change.oldTo + 1), newTo: Math.min(b, change.newTo + 1) }
}

/** How many leaves a block holds, itself included. */
export function leavesIn(block: Node): number {
  return isLeaf(block) ? 1 : insideOf(block).nodes.length
}

/** Whether two blocks that are not the same differ only in what is inside them. */
const alikeOutside = (a: Node, b: Node) => !isLeaf(a) && !isLeaf(b) && a.sameMarkup(b)

function sameInside({ children: a }: Node, { children: b }: Node): boolean {
  if (a.length !== b.length) return false
  for (let i = 0; i < a.length; i++) {
    const own = a[i] as Node
    const other = b[i] as Node
    if (own !== other && !(alikeOutside(own, other) && sameInside(own, other))) return false
  }
  return true
}

function alikeAtStart({ children: a }: Node, { children: b }: Node): number {
  const shorter = Math.min(a.length, b.length)
  let leaves = 0
  for (let i = 0; i < shorter; i++) {
    const own = a[i] as Node
    const other = b[i] as Node
    if (own !== other) return leaves + (alikeOutside(own, other) ? alikeAtStart(own, other) : 0)
    leaves += leavesIn(own)
  }
  return leaves
}

function alikeAtEnd({ children: a }: Node, { children: b }: Node): number {
  const shorter = Math.min(a.length, b.length)
  let leaves = 0
  for (let i = 1; i <= shorter; i++) {
    const own = a[a.length - i] as Node
    const other = b[b.length - i] as Node
    if (own !== other) return leaves + (alikeOutside(own, other) ? alikeAtEnd(own, other) : 0)
    leaves += leavesIn(own)
  }
  return leaves
}

const texts = new WeakMap<Node, string>()

/** A leaf's text, one UTF-16 unit for each position inside it: what has no text of its own counts as U+FFFC. */
export function textOf(leaf: Node): string {
  let text = texts.get(leaf)
  if (text === undefined) {
    text = leaf.textBetween(0, leaf.content.size, undefined, (inside) =>
      inside.type.name === "lineBreak" ? "\n" : "\ufffc",
    )
    texts.set(leaf, text)
  }
  return text
}

/** Marked places by name, with the number of their leaf. */
export function placesOf(doc: Node): Map<string, number> {
  const places = new Map<string, number>()
  leavesOf(doc).nodes.forEach((leaf, number) => {
    leaf.forEach((child) => {
      for (const mark of child.marks)
        if (mark.type.name === "place" && !places.has(mark.attrs.value as string))
          places.set(mark.attrs.value as string, number)
    })
  })
  return places
}
