/** What is set into a region, and what comes of it. */
import type { Blocks, LetterFormat } from "../document"
import type { FloatRoom } from "./floats"
import type { BlockPlace, Placed, SetFloat } from "./types"

/** A flow of a document that is to be set. */
export interface Flowing {
  blocks: Blocks
  /** Number of its first leaf in the document. */
  firstLeaf: number
  /** Whether sections end in it, as in the body. Elsewhere a break of sections, as what two people did at once may leave in a cell, is nothing. */
  hasSections?: boolean
  /** What stands before its first paragraph, as the number of a note. */
  lead?: string | null
  /** What the look of a table says of the letters of its cell. */
  letters?: Partial<LetterFormat> | null
}

export interface Region {
  width: number
  /** Room for text from its top on; Infinity for a region without a foot. */
  height: number
  /** Left free above the text. */
  top: number
  /** Whether a block that begins on a new sheet may stand first here. */
  fresh: boolean
  /** Whether what does not fit may go on in another width. */
  varies?: boolean
  /** Where pictures may stand beside its text: what lies round it. */
  floats?: FloatRoom
  /** Where there is no foot. */
  endless?: {
    /** Whether it ends before a block, at a height. */
    ends(y: number, block: number): boolean
    /** How high a part of one paragraph may be. */
    longest: number
  }
}

export interface Filled {
  inside: readonly Placed[]
  /** Where the text ends, from the top of the region. */
  height: number
  /** Wanted behind its last paragraph. */
  spaceAfter: number
  next: BlockPlace
  /** The last leaf that was looked at, counted from the flow's first. */
  lookedAt: number
  /** Whether all of the flow is set. */
  atEnd: boolean
  /** Pictures that stand beside, under or over the text; their leaves count like those of `inside`. */
  floats: readonly SetFloat[]
}
