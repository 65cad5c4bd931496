/** What a rule of tidiness is: it finds places, and can put them right. */
import type { Node } from "prosemirror-model"
import type { Transform } from "prosemirror-transform"

export interface Finding {
  /** The leaf in which it stands, or begins. */
  leaf: number
  /** Positions in the document. */
  from: number
  to: number
  /**
   * Puts it right in the document it was found in, or one that was changed behind its place alone; null where that takes a
   * person's words.
   */
  mend: ((tr: Transform) => void) | null
}

export interface Rule {
  id: string
  /** What is found, in the plural: "blank paragraphs as space". */
  name: string
  /** Why that is a trouble, in a sentence. */
  why: string
  /** What puts it right, as words on a button. */
  act: string
  /** In the order of the text; none overlaps another. */
  find(doc: Node): Finding[]
}
