/** What of a file that was brought in is not there, or is there otherwise, and where. */
import type { Node } from "prosemirror-model"
import { leavesOf } from "@biblon/core/document"
import { leftOutWords } from "@biblon/core/formats/format"
import type { Brought } from "../firstWords"

export interface BroughtIn {
  file: string
  left: readonly { what: string; count: number; places: readonly BroughtPlace[] }[]
}

/** A paragraph in which something was left out, as it was when it was brought in. */
export interface BroughtPlace {
  leaf: number
  node: Node
}

/** What the desk shows of it. */
export function broughtIn(
  { file, left }: Brought,
  doc: Node,
): { trouble: string; more: { of: string; tray: "brought" }; brought: BroughtIn } {
  const leaves = leavesOf(doc)
  const words = `${file} is here. Left out, or taken in otherwise: ${leftOutWords(left)}.`
  return {
    trouble: words,
    more: { of: words, tray: "brought" },
    brought: {
      file,
      left: left.map(({ what, count, leaves: own }) => ({
        what,
        count,
        places: own.flatMap((leaf) => ((node) => (node ? [{ leaf, node }] : []))(leaves.find(leaf))),
      })),
    },
  }
}

/** Where such a paragraph is now: itself if it was not changed, else one near where it stood. */
export function leafOf(doc: Node, { leaf, node }: BroughtPlace): number {
  const leaves = leavesOf(doc)
  if (leaves.find(leaf) === node) return leaf
  const moved = leaves.nodes.indexOf(node)
  return moved >= 0 ? moved : Math.min(leaf, leaves.count - 1)
}
