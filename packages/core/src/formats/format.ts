import type { Node } from "prosemirror-model"
import type { Kind } from "./kinds"

/** Gives the bytes of a file of a document by its SHA-256; undefined where it is not to be had. */
export type AssetSource = (sha256: string) => Uint8Array | undefined

export interface NamedDocument {
  name: string | null
  doc: Node
}

/** Something of a file that Biblon does not have, or has otherwise. */
export interface LeftOut {
  /** In words, such as "pictures". */
  what: string
  count: number
  /** Leaves of the document where it was met, as far as they are known. */
  leaves: readonly number[]
}

/** What was left out, in words, one after another. */
export function leftOutWords(left: readonly LeftOut[]): string {
  return left.map(({ what, count }) => `${what} (${count})`).join(", ")
}

export interface FileRead extends NamedDocument {
  /** Files that the document uses, by SHA-256. */
  assets: ReadonlyMap<string, Uint8Array>
  left: readonly LeftOut[]
}

export interface ReadOptions {
  /** In plain text, every line is a paragraph. Otherwise a blank line ends one, and lines in between are joined. */
  lines?: boolean
  /** What divides the values of a table; found by looking at them where it is not said. */
  divider?: string
  /** Told now and then how many paragraphs were read. */
  progress?(paragraphs: number): void
}

/** What the formats that are archives are written from, with the document. */
export interface WriteSources {
  name: string | null
  asset: AssetSource
  /** The numbers of sheets on which leaves begin, if they are known. */
  pages?: ReadonlyMap<number, string> | undefined
}

/** A kind of file, with what reads and writes it where that can be done. */
export interface Format extends Kind {
  /** @throws ReadingError */
  read?(bytes: Uint8Array, options: ReadOptions): FileRead
  write?(named: NamedDocument, assets?: AssetSource): Uint8Array
}
