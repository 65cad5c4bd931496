/** What comes from a clipboard, whoever wrote it: the best that can be understood, checked like any file. */
import { Fragment, Node, Slice } from "prosemirror-model"
import { defaultStyles, document, nodes, schema, type Brought } from "../document"
import { checkDocument } from "../document/reading"
import { tableOfValues, valuesByTabs } from "./csv"
import { clips, ownMedia, type Transferred } from "./clips"
import { readHtml } from "./html/reading"
import { kinds } from "./kinds"

export interface ReadClip {
  slice: Slice
  /** What it needs of the style sheet that it comes from. */
  brought: Brought | null
}

/** @throws ReadingError or what JSON and the schema say of content that is none */
function readOwn(text: string): ReadClip {
  const { slice: json, brought } = JSON.parse(text) as { slice: unknown; brought: Brought }
  const slice = Slice.fromJSON(schema, json)
  const { content, openStart, openEnd } = slice
  if (
    !content.content.every((node) => node.type === nodes.paragraph || node.type === nodes.table) ||
    openStart > (content.firstChild?.isTextblock ? 1 : 0) ||
    openEnd > (content.lastChild?.isTextblock ? 1 : 0) ||
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

/** What is read of each kind; plain text is put in as it is, without being read, unless it holds the cells of a table. */
const readers = new Map<string, (text: string) => ReadClip>([
  [ownMedia, readOwn],
  [
    kinds.html.media,
    (html) => {
      const slice = readHtml(html)
      if (slice.size > 0) checkDocument(document(slice.content.content))
      return { slice, brought: null }
    },
  ],
  [
    kinds.text.media,
    (text) => {
      const [table] = tableOfValues(valuesByTabs(text) ?? [])
      const slice = table ? new Slice(Fragment.from(table), 0, 0) : Slice.empty
      if (table) checkDocument(document([table]))
      return { slice, brought: null }
    },
  ],
])

/** The first that can be read: what is of another version, or made by somebody, gives way to what stands beside it. */
export function readClips(transferred: Transferred): ReadClip {
  for (const { media } of clips) {
    const [read, text] = [readers.get(media), transferred.get(media)]
    if (!read || !text) continue
    try {
      return read(text)
    } catch {
      // The next one may do.
    }
  }
  return { slice: Slice.empty, brought: null }
}
