/** What a reader tells while it reads: what it leaves out or takes in otherwise, in which paragraphs, and how many these are. */
import type { Node } from "prosemirror-model"
import { leavesOf } from "../document"
import type { LeftOut, ReadOptions } from "./format"

/** So many places of one thing are told. */
const mostPlaces = 100

/** After so many paragraphs it is told how many were read. */
const toldAfter = 250

export class Leaving {
  private readonly counts = new Map<string, number>()
  private readonly places = new Map<string, Node[]>()
  /** What was met in the paragraph that is being read. */
  private here: string[] = []
  private paragraphs = 0

  constructor(private readonly progress?: ReadOptions["progress"]) {}

  /**
   * For what belongs to no paragraph.
   * @param what in words, such as "pictures"
   */
  add(what: string, count = 1): void {
    this.counts.set(what, (this.counts.get(what) ?? 0) + count)
  }

  /** For what is met while a paragraph is read. */
  addHere(what: string): void {
    this.add(what)
    this.here.push(what)
  }

  /** A paragraph was read: what was met since the one before it stands there. */
  ended(paragraph: Node): void {
    if (++this.paragraphs % toldAfter === 0) this.progress?.(this.paragraphs)
    for (const what of this.here) {
      const own = this.places.get(what)
      if (!own) this.places.set(what, [paragraph])
      else if (own.length < mostPlaces && own.at(-1) !== paragraph) own.push(paragraph)
    }
    this.here = []
  }

  /** Another paragraph stands in the place of one that was read. */
  became(before: Node, after: Node): void {
    for (const own of this.places.values()) {
      const at = own.lastIndexOf(before)
      if (at >= 0) own[at] = after
    }
  }

  get list(): LeftOut[] {
    return [...this.counts].map(([what, count]) => ({ what, count, leaves: [] }))
  }

  /** With the leaves of the document that was made of the paragraphs. */
  listIn(doc: Node): LeftOut[] {
    if (this.places.size === 0) return this.list
    const leaves = new Map(leavesOf(doc).nodes.map((node, leaf) => [node, leaf]))
    return this.list.map((left) => ({
      ...left,
      leaves: (this.places.get(left.what) ?? []).flatMap((node) => leaves.get(node) ?? []),
    }))
  }
}
