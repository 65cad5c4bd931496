/** What copied text needs of its document's style sheet, so that it looks the same in another. */
import { Node, type Slice } from "prosemirror-model"
import type { Transaction } from "prosemirror-state"
import {
  chainIds,
  documentAttrs,
  entryOf,
  paragraphAttrs,
  schema,
  setEntries,
  storiesOf,
  type Brought,
  type ListPlace,
} from "../document"

function pick<T>(from: Readonly<Record<string, T>>, keys: Iterable<string>): Record<string, T> {
  return Object.fromEntries(
    [...new Set(keys)].flatMap((key) => (Object.hasOwn(from, key) ? [[key, from[key] as T]] : [])),
  )
}

/** The styles, lists and typefaces of its own that a slice of a document uses, and the stories whose anchors stand in it. */
export function broughtBy(slice: Slice, doc: Node): Brought {
  const sheet = documentAttrs(doc).styles
  const styles = new Set<string>()
  const lists = new Set<string>()
  const fonts = new Set<string>()
  const useStyle = (key: string) => {
    for (const own of chainIds(sheet, key)) {
      styles.add(own)
      const { paragraph, letters } = entryOf(sheet.styles, own) ?? {}
      if (paragraph?.list) lists.add(paragraph.list.definition)
      if (letters?.family) fonts.add(letters.family)
    }
  }
  const placed = doc.childCount > 1 ? storiesOf(doc) : null
  const stories: Record<string, unknown> = {}
  const look = (node: Node): boolean => {
    const story = node.type.name === "anchor" ? placed?.get(node.attrs.story as string) : undefined
    if (story && !Object.hasOwn(stories, node.attrs.story as string)) {
      stories[node.attrs.story as string] = story.node.toJSON()
      story.node.descendants(look)
    }
    if (node.isTextblock) {
      const { style, format } = paragraphAttrs(node)
      useStyle(style)
      const list: ListPlace | null | undefined = format?.list
      if (list) lists.add(list.definition)
    }
    for (const mark of node.marks) {
      if (mark.type.name === "letterStyle") useStyle(mark.attrs.value as string)
      if (mark.type.name === "family") fonts.add(mark.attrs.value as string)
    }
    return true
  }
  slice.content.descendants(look)
  const own = { styles: pick(sheet.styles, styles), lists: pick(sheet.lists, lists), fonts: pick(sheet.fonts, fonts) }
  return Object.keys(stories).length > 0 ? { ...own, stories } : own
}

/** Gives a document what it lacks; what it has under the same key stays as it is. */
export function bring(tr: Transaction, brought: Brought): Transaction {
  const known = storiesOf(tr.doc)
  const stories = Object.entries(brought.stories ?? {}).flatMap(([key, json]) =>
    known.has(key) ? [] : [Node.fromJSON(schema, json)],
  )
  if (stories.length > 0) tr.insert(tr.doc.content.size, stories)
  const sheet = documentAttrs(tr.doc).styles
  const next = {
    ...sheet,
    styles: { ...brought.styles, ...sheet.styles },
    lists: { ...brought.lists, ...sheet.lists },
    fonts: { ...brought.fonts, ...sheet.fonts },
  }
  const size = (own: Brought) =>
    Object.keys(own.styles).length + Object.keys(own.lists).length + Object.keys(own.fonts).length
  if (size(next) === size(sheet)) return tr
  // The order in which styles are offered stays, with the new ones behind.
  const styles = {
    ...sheet.styles,
    ...Object.fromEntries(Object.entries(brought.styles).filter(([key]) => !Object.hasOwn(sheet.styles, key))),
  }
  return setEntries(tr, null, "styles", { ...next, styles })
}
