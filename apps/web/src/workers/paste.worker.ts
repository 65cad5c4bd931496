/** Reads what is pasted away from the page, however long it is, and hands it over in parts. What comes as Biblon's own is checked like any file. */
import { Fragment, Node, Slice } from "prosemirror-model"
import { defaultStyles, document, nodes, schema } from "@biblon/core/document"
import { checkDocument } from "@biblon/core/document/reading"
import type { Brought } from "@biblon/core/editing"
import { readHtml } from "@biblon/core/formats/html"

export interface PasteRequest {
  id: number
  /** Biblon's own content as JSON text; empty for none. */
  own: string
  html: string
}
export type PasteReply =
  /** Blocks as JSON, in order. */
  | { id: number; kind: "part"; blocks: unknown[] }
  | { id: number; kind: "end"; openStart: number; openEnd: number; brought: Brought | null }

/** Blocks of a part: the page makes nodes of it in one task. */
const partBlocks = 150

/** @throws ReadingError or what JSON and the schema say of content that is none */
function readOwn(text: string): { slice: Slice; brought: Brought } {
  const { slice: json, brought } = JSON.parse(text) as { slice: unknown; brought: Brought }
  const slice = Slice.fromJSON(schema, json)
  const { content, openStart, openEnd } = slice
  if (
    !content.content.every((node) => node.type === nodes.paragraph) ||
    openStart > 1 ||
    openEnd > 1 ||
    content.childCount === 0
  )
    throw new RangeError("Blocks are expected")
  const { styles = {}, lists = {}, fonts = {}, stories = {} } = brought
  const beside = Object.values(stories).map((story) => Node.fromJSON(schema, story))
  checkDocument(
    document(
      content.content,
      { styles: { ...defaultStyles, styles: { ...styles, ...defaultStyles.styles }, lists, fonts } },
      beside,
    ),
  )
  return {
    slice,
    brought: {
      styles,
      lists,
      fonts,
      ...(beside.length > 0
        ? { stories: Object.fromEntries(beside.map((story) => [story.attrs.key as string, story.toJSON() as unknown])) }
        : {}),
    },
  }
}

function read({ own, html }: PasteRequest): { slice: Slice; brought: Brought | null } {
  if (own) {
    try {
      return readOwn(own)
    } catch {
      // Of another version, or made by somebody: the HTML beside it will do.
    }
  }
  return { slice: html ? checked(readHtml(html)) : Slice.empty, brought: null }
}

function checked(slice: Slice): Slice {
  if (slice.size > 0) checkDocument(document(slice.content.content))
  return slice
}

self.onmessage = ({ data }: MessageEvent<PasteRequest>) => {
  const { id } = data
  const post = (reply: PasteReply) => self.postMessage(reply)
  let found: ReturnType<typeof read>
  try {
    found = read(data)
  } catch {
    found = { slice: new Slice(Fragment.empty, 0, 0), brought: null }
  }
  const { slice, brought } = found
  for (let at = 0; at < slice.content.childCount; at += partBlocks)
    post({
      id,
      kind: "part",
      blocks: slice.content.content.slice(at, at + partBlocks).map((node) => node.toJSON() as unknown),
    })
  post({ id, kind: "end", openStart: slice.openStart, openEnd: slice.openEnd, brought })
}
