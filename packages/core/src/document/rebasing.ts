/**
 * Changes that were made on an older version, brought up to date. Page and server do it alike, batch for batch, and so
 * come to the same (prosemirror-collab, `rebaseSteps`: undo one's own, do what others did, do one's own again where it went).
 */
/// <reference path="./prosemirror-collab.d.ts" />
import type { Node } from "prosemirror-model"
import { rebaseSteps, type Rebaseable } from "prosemirror-collab"
import { Transform, type Step } from "prosemirror-transform"
import { readStep } from "./entries"

export interface Applied {
  own: Rebaseable[]
  doc: Node
  /** Why the first of those left out does not fit; null if all do. */
  refusal: string | null
}

/** Changes from their JSON on top of a document, up to the first that does not apply. */
export function applySteps(doc: Node, steps: readonly unknown[]): Applied {
  const origin = new Transform(doc)
  const own: Rebaseable[] = []
  let refusal: string | null = null
  try {
    for (const json of steps) {
      const step = readStep(json)
      const before = origin.doc
      const { failed } = origin.maybeStep(step)
      if (failed) {
        refusal = failed
        break
      }
      own.push({ step, inverted: step.invert(before), origin })
    }
  } catch (error) {
    refusal = error instanceof Error ? error.message : String(error)
  }
  return { own, doc: origin.doc, refusal }
}

/** Changes on top of `doc`, which has them, moved over those of others. */
export function broughtUpToDate(
  { own, doc }: Pick<Applied, "own" | "doc">,
  batches: readonly (readonly Step[])[],
): Rebaseable[] {
  for (const steps of batches) {
    if (own.length === 0) break
    const transform = new Transform(doc)
    own = rebaseSteps(own, steps, transform)
    doc = transform.doc
  }
  return own
}
