/** What was begun for a document before the program was here: each part is taken once, by the document it was begun for. */
import type { LayoutSpec } from "@biblon/core/layout"
import type { FromLayout } from "../workers/protocol"

/** A layout worker that reads a document and lays it out. */
export interface BegunLayout {
  worker: Worker
  spec: LayoutSpec
  /** What it has said so far. */
  said: FromLayout[]
}

export interface Begun {
  id: string
  /** The answer with the newest content. */
  response: Promise<Response> | null
  layout: BegunLayout | null
  /** A worker that opens the dictionary of its first words. */
  speller: Worker | null
  /** Takes away what shows its first sheets. */
  endSight(): void
}

declare global {
  var begun: Begun | undefined
  /** Begins a document while another page is open; where there is such a script. @param desk goes there: of a new document there is nothing to be seen before */
  var beginDesk: ((id: string, isNew: boolean, desk: () => void) => void) | undefined
}

export function begunContent(id: string): Promise<Response> | null {
  const { begun } = globalThis
  if (begun?.id !== id) return null
  const { response } = begun
  begun.response = null
  return response
}

export function begunLayout(id: string): BegunLayout | null {
  const { begun } = globalThis
  if (!begun?.layout) return null
  const { layout } = begun
  begun.layout = null
  if (begun.id === id) return layout
  layout.worker.terminate()
  return null
}

export function begunSpeller(): Worker | null {
  const { begun } = globalThis
  if (!begun?.speller) return null
  const { speller } = begun
  begun.speller = null
  return speller
}

/** The program shows the sheets itself from now on, or what else there is to say. */
export function endSight(): void {
  globalThis.begun?.endSight()
}
