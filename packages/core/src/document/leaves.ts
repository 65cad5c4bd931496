/**
 * Leaves: the paragraphs of a document wherever they stand (in the body, in a cell, in a story beside the
 * body), numbered in the order of the document. A leaf's number is the one address of text for layout,
 * view, find, marks, trail and outline. Everything here is made once for a document and remembered by node.
 */
import type { Node } from "prosemirror-model"
import { childrenThat, ofChildren } from "./children"
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
  /** The leaves in order: made when somebody asks for all of them. */
  readonly nodes: readonly Node[]
  /** The leaves from one number up to another. */
  between(from: number, to: number): readonly Node[]
  /** A leaf, or null where there is none of that number. */
  find(leaf: number): Node | null
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

/** Leaves with their places, in the order of the document. */
interface Inside {
  nodes: Node[]
  /** Positions before the leaves. */
  before: Float64Array
  flows: (Flow | null)[]
}

const room = (count: number): Inside => ({
  nodes: new Array<Node>(count),
  before: new Float64Array(count),
  flows: new Array<Flow | null>(count),
})

/** What flow a node begins for its children; null for one whose children stand in that of their parent, or have no paragraphs for children. */
function flowOf(node: Node): Flow | null {
  const { name } = node.type
  if (name === "body" || name === "cell") return { kind: name, node, story: null }
  return name === "story" ? { kind: node.attrs.kind as StoryKind, node, story: node.attrs.key as string } : null
}

/**
 * Writes the leaves of a node into a list, from an index on. What is inside its children is remembered by child, but that of tables,
 * which may be as long as a document, only by row.
 * @param pos of the node's content
 * @returns the index behind them
 */
function gather(parent: Node, pos: number, flow: Flow | null, into: Inside, from: number): number {
  let index = from
  let at = pos
  const { children } = parent
  for (let i = 0; i < children.length; i++) {
    const child = children[i] as Node
    if (isLeaf(child)) {
      into.nodes[index] = child
      into.before[index] = at
      into.flows[index++] = flow
    } else if (child.type.name === "table") index = gather(child, at + 1, flow, into, index)
    else {
      const { nodes, before, flows } = insideOf(child)
      for (let n = 0; n < nodes.length; n++) {
        const inner = flows[n] ?? flow
        into.nodes[index] = nodes[n] as Node
        into.before[index] = at + (before[n] as number)
        into.flows[index++] = inner && flow?.story ? { ...inner, story: flow.story } : inner
      }
    }
    at += child.nodeSize
  }
  return index
}

const insides = new WeakMap<Node, Inside>()

/** The leaves inside a node, with their places counted from the position before it. */
function insideOf(node: Node): Inside {
  let inside = insides.get(node)
  if (!inside) {
    inside = room(countIn(node))
    gather(node, 1, flowOf(node), inside, 0)
    insides.set(node, inside)
  }
  return inside
}

const counts = new WeakMap<Node, number>()

function countIn(node: Node): number {
  let count = counts.get(node)
  if (count === undefined) {
    count = spreadOf(node).leaves[node.childCount] as number
    counts.set(node, count)
  }
  return count
}

/** How many leaves, and positions, stand before each child of a body or table; and of the one behind the last. */
interface Spread {
  leaves: Float64Array
  positions: Float64Array
}

const spreadOf = ofChildren<Spread>((children, known) => {
  const spread = { leaves: new Float64Array(children.length + 1), positions: new Float64Array(children.length + 1) }
  const { from, oldTo, newTo, result } = known ?? { from: 0, oldTo: 0, newTo: children.length, result: null }
  for (const key of ["leaves", "positions"] as const) {
    const own = spread[key]
    if (result) own.set(result[key].subarray(0, from + 1))
    for (let i = from; i < newTo; i++) {
      const child = children[i] as Node
      own[i + 1] = (own[i] as number) + (key === "leaves" ? leavesIn(child) : child.nodeSize)
    }
    if (!result) continue
    const shift = (own[newTo] as number) - (result[key][oldTo] as number)
    own.set(result[key].subarray(oldTo + 1), newTo + 1)
    if (shift !== 0) for (let i = newTo + 1; i < own.length; i++) own[i] = (own[i] as number) + shift
  }
  return spread
})

/** Leaves of a table or body before a row or block of it; for the number of these, all of them. */
export function leavesBefore(parent: Node, child: number): number {
  return spreadOf(parent).leaves[child] ?? 0
}

interface Found {
  node: Node
  /** The position before it. */
  before: number
  flow: Flow | null
}

/** A leaf of a body or table by its number in it. @param pos of the content */
function leafIn(parent: Node, leaf: number, pos: number, flow: Flow | null): Found {
  const { leaves, positions } = spreadOf(parent)
  const index = lastUpTo(leaves, parent.childCount - 1, leaf)
  const child = parent.child(index)
  const at = pos + (positions[index] as number)
  if (isLeaf(child)) return { node: child, before: at, flow }
  const inner = leaf - (leaves[index] as number)
  if (child.type.name === "table") return leafIn(child, inner, at + 1, flow)
  const { nodes, before, flows } = insideOf(child)
  return { node: nodes[inner] as Node, before: at + (before[inner] as number), flow: flows[inner] ?? flow }
}

/** How many leaves of a body or table begin at a position in it or before it. */
function begunIn(parent: Node, pos: number): number {
  const { leaves, positions } = spreadOf(parent)
  if (pos < 0 || parent.childCount === 0) return 0
  const index = lastUpTo(positions, parent.childCount - 1, pos)
  const child = parent.child(index)
  const before = leaves[index] as number
  if (isLeaf(child)) return before + 1
  const inner = pos - (positions[index] as number)
  if (child.type.name === "table") return before + begunIn(child, inner - 1)
  return before + upTo(insideOf(child).before, inner)
}

/** How many of ascending numbers are not above a value. */
function upTo(numbers: Float64Array, value: number): number {
  const last = lastUpTo(numbers, numbers.length - 1, value)
  return (numbers[last] ?? Infinity) <= value ? last + 1 : 0
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
  const ofDocument = new WeakMap<readonly Node[], T>()
  const without = make([])
  const find = (first: Node, children: readonly Node[]): T => {
    const known = made.get(first)
    if (known && sameFrom(1, children, known.children)) return known.result
    let pos = 0
    const result = make(children.slice(1).map((node) => ({ node, pos: (pos += node.nodeSize) - node.nodeSize })))
    made.set(first, { children, result })
    return result
  }
  return ({ children }) => {
    const first = children[1]
    if (!first) return without
    let result = ofDocument.get(children)
    if (result === undefined) ofDocument.set(children, (result = find(first, children)))
    return result
  }
}

/** The leaves of the stories, with their places counted from the end of the body. */
const besideOf = ofStories((stories): Inside => {
  const beside = room(stories.reduce((sum, { node }) => sum + countIn(node), 0))
  let index = 0
  for (const { node, pos } of stories) index = gather(node, pos + 1, flowOf(node), beside, index)
  return beside
})

/** Where every leaf is a child of the body. */
class FlatLeaves implements Leaves {
  readonly nodes: readonly Node[]
  /** Positions before the leaves, and last the one behind them all. */
  private readonly places: Float64Array
  private readonly body: Flow

  constructor(body: Node) {
    this.body = { kind: "body", node: body, story: null }
    const { children } = body
    this.nodes = children
    this.places = new Float64Array(children.length + 1)
    let pos = 1
    for (let i = 0; i < children.length; i++) {
      this.places[i] = pos
      pos += (children[i] as Node).nodeSize
    }
    this.places[children.length] = pos
  }

  get count(): number {
    return this.nodes.length
  }

  between(from: number, to: number): readonly Node[] {
    return this.nodes.slice(from, to)
  }

  find(leaf: number): Node | null {
    return this.nodes[leaf] ?? null
  }

  node(leaf: number): Node {
    return this.nodes[leaf] ?? missing(leaf)
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

  flow(): Flow {
    return this.body
  }
}

function missing(leaf: number): never {
  throw new RangeError(`The document has no paragraph of number ${leaf}`)
}

/** Leaves that stand in tables and stories too, each found when it is asked for: a table may have a hundred thousand. */
class DeepLeaves implements Leaves {
  readonly count: number
  private readonly body: Flow
  /** How many of them stand in the body, and the position behind it. */
  private readonly own: number
  private readonly edge: number
  private readonly beside: Inside
  private all: readonly Node[] | null = null

  constructor(doc: Node) {
    const body = doc.child(0)
    this.body = { kind: "body", node: body, story: null }
    this.own = countIn(body)
    this.edge = body.nodeSize
    this.beside = besideOf(doc)
    this.count = this.own + this.beside.nodes.length
  }

  get nodes(): readonly Node[] {
    if (!this.all) {
      const inside = room(this.own)
      gather(this.body.node, 1, this.body, inside, 0)
      this.all = this.beside.nodes.length > 0 ? inside.nodes.concat(this.beside.nodes) : inside.nodes
    }
    return this.all
  }

  between(from: number, to: number): readonly Node[] {
    if (this.all || to - from > 1000) return this.nodes.slice(from, to)
    return Array.from({ length: Math.max(0, Math.min(to, this.count) - from) }, (_, i) => this.node(from + i))
  }

  private found(leaf: number): Found | null {
    if (leaf >= 0 && leaf < this.own) return leafIn(this.body.node, leaf, 1, this.body)
    const i = leaf - this.own
    const node = this.beside.nodes[i]
    return node && i >= 0
      ? { node, before: this.edge + (this.beside.before[i] as number), flow: this.beside.flows[i] ?? null }
      : null
  }

  find(leaf: number): Node | null {
    return this.found(leaf)?.node ?? null
  }

  node(leaf: number): Node {
    return this.find(leaf) ?? missing(leaf)
  }

  before(leaf: number): number {
    if (leaf === this.count && leaf > 0) {
      const last = this.found(leaf - 1)
      return last ? last.before + last.node.nodeSize : 1
    }
    return this.found(leaf)?.before ?? 1
  }

  start(leaf: number): number {
    return this.before(leaf) + 1
  }

  end(leaf: number): number {
    const found = this.found(leaf)
    return found ? found.before + 1 + found.node.content.size : missing(leaf)
  }

  at(pos: number): number {
    const begun =
      pos < this.edge ? begunIn(this.body.node, pos - 1) : this.own + upTo(this.beside.before, pos - this.edge)
    return Math.max(0, begun - 1)
  }

  flow(leaf: number): Flow {
    return this.found(leaf)?.flow ?? this.body
  }
}

/** The blocks of a flow in order, with the leaves that each begins with, counted from the flow's first. */
export interface Blocks {
  readonly nodes: readonly Node[]
  /** The numbers of those that are no leaves themselves: tables, contents, breaks. */
  readonly structures: readonly number[]
  /** Leaves of the flow before a block; for the number of blocks, all of them. */
  leaf(block: number): number
  /** The block that holds a leaf; for the number of leaves, the number of blocks. */
  at(leaf: number): number
}

const blocks = new WeakMap<Node, Blocks>()
const structuresIn = childrenThat((child) => !isLeaf(child))

/** The blocks of a body, a cell or a story. */
export function blocksOf(flow: Node): Blocks {
  let known = blocks.get(flow)
  if (known) return known
  const nodes = flow.children
  const structures = structuresIn(flow)
  if (structures.length === 0) known = { nodes, structures, leaf: (block) => block, at: (leaf) => leaf }
  else {
    const { leaves } = spreadOf(flow)
    // Of blocks without leaves and the one behind them, all of which begin at the same leaf, the last holds it.
    known = {
      nodes,
      structures,
      leaf: (block) => leaves[block] ?? 0,
      at: (leaf) => lastUpTo(leaves, nodes.length, leaf),
    }
  }
  blocks.set(flow, known)
  return known
}

/** The blocks of a flow that are of a type which is no leaf, by their numbers. */
export function structuresOf(flow: Node, type: string): readonly number[] {
  const { nodes, structures } = blocksOf(flow)
  return structures.filter((i) => nodes[i]?.type.name === type)
}

/** The positions before the blocks of a flow in its content, and the one behind the last. */
export function positionsOf(flow: Node): ArrayLike<number> {
  return spreadOf(flow).positions
}

/** The position before a block in the content of its flow. */
export function positionOf(flow: Node, block: number): number {
  return positionsOf(flow)[block] ?? 0
}

/** How many leaves the body of a document has. */
export function leavesOfBody(doc: Node): number {
  const own = blocksOf(doc.child(0))
  return own.leaf(own.nodes.length)
}

const known = new WeakMap<Node, Leaves>()

const isFlat = (doc: Node) => doc.childCount === 1 && blocksOf(doc.child(0)).structures.length === 0

/** The leaves of a document. Documents with the same body and stories have the same leaves. */
export function leavesOf(doc: Node): Leaves {
  // What hangs on the document alone, such as its styles, leaves the body as it was.
  const holder = doc.childCount === 1 ? doc.child(0) : doc
  let leaves = known.get(holder)
  if (!leaves) known.set(holder, (leaves = isFlat(doc) ? new FlatLeaves(doc.child(0)) : new DeepLeaves(doc)))
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
  return isLeaf(block) ? 1 : countIn(block)
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

function alikeAtStart(older: Node, newer: Node): number {
  const { children: a } = older
  const { children: b } = newer
  const shorter = Math.min(a.length, b.length)
  let i = 0
  while (i < shorter && a[i] === b[i]) i++
  const before = leavesBetween(older, 0, i)
  const [own, other] = [a[i], b[i]]
  return before + (own && other && alikeOutside(own, other) ? alikeAtStart(own, other) : 0)
}

function alikeAtEnd(older: Node, newer: Node): number {
  const { children: a } = older
  const { children: b } = newer
  const shorter = Math.min(a.length, b.length)
  let i = 0
  while (i < shorter && a[a.length - 1 - i] === b[b.length - 1 - i]) i++
  const behind = leavesBetween(older, a.length - i, a.length)
  const [own, other] = [a[a.length - 1 - i], b[b.length - 1 - i]]
  return behind + (own && other && alikeOutside(own, other) ? alikeAtEnd(own, other) : 0)
}

/** How many leaves some children of a node hold. */
function leavesBetween(parent: Node, from: number, to: number): number {
  const { name } = parent.type
  if (name === "table" || name === "body") return leavesBefore(parent, to) - leavesBefore(parent, from)
  // All stories: nearly always none of them has changed.
  if (name === "doc" && from === 1 && to === parent.childCount) return leavesOf(parent).count - leavesOfBody(parent)
  let leaves = 0
  for (let i = from; i < to; i++) leaves += leavesIn(parent.children[i] as Node)
  return leaves
}

/** Whether a leaf holds at most one run of text: then no field, mark or picture needs to be looked for in it. */
export const onlyText = ({ childCount, firstChild }: Node) =>
  childCount === 0 || (childCount === 1 && firstChild?.isText === true)

const texts = new WeakMap<Node, string>()

/** A leaf's text, one UTF-16 unit for each position inside it: what has no text of its own counts as U+FFFC. */
export function textOf(leaf: Node): string {
  if (leaf.childCount === 1 && leaf.firstChild?.isText) return leaf.firstChild.text ?? ""
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
