/** What is written on a clipboard, the best first; clipReading.ts takes it in the same order. */
import type { Slice } from "prosemirror-model"
import type { Brought, StyleSheet } from "../document"
import { writeHtml } from "./html/writing"
import { kinds } from "./kinds"

export interface Copied {
  slice: Slice
  styles: StyleSheet
  brought: Brought
  /** As people read it. */
  text: string
}

export interface Clip {
  readonly media: string
  /** Whether browsers let a page put it on the clipboard without a key. */
  readonly byButton: boolean
  write(copied: Copied): string
}

/** Biblon's own content, which loses nothing. */
export const ownMedia = "application/x-biblon-slice"

export const clips: readonly Clip[] = [
  {
    media: ownMedia,
    byButton: false,
    write: ({ slice, brought }) => JSON.stringify({ slice: slice.toJSON() as unknown, brought }),
  },
  { media: kinds.html.media, byButton: true, write: ({ slice, styles }) => writeHtml(slice, styles) },
  { media: kinds.text.media, byButton: true, write: ({ text }) => text },
]

/** Whether text may hold the cells of a table, as calculating programs copy them: its first line has a tab, and it is not its only one. */
export function mayHoldCells(text: string): boolean {
  const end = text.indexOf("\n")
  return end > 0 && end < text.length - 1 && text.slice(0, end).includes("\t")
}

/** Texts by their media types. */
export type Transferred = ReadonlyMap<string, string>
