/** Making, changing and ending lists. What is written before items is computed: see document/numbering.ts. */
import type { Node } from "prosemirror-model"
import type { EditorState, Transaction } from "prosemirror-state"
import {
  asName,
  documentAttrs,
  entryOf,
  fitLevel,
  itemNumber,
  labelsOf,
  leavesOf,
  levelOf,
  listNamed,
  listPlace,
  newRun,
  paragraphAttrs,
  readyLists,
  setEntries,
  textOf,
  typedItem,
  type ListDefinition,
  type ListLevel,
  type ListPlace,
  type StyleSheet,
} from "../document"
import type { Command } from "./command"
import { named } from "./history"
import { eachParagraph, formatParagraph, onParagraphs } from "./paragraphs"
import { stretchesOf } from "./tables/selection"

/** The list of all selected paragraphs: null where none is in one, undefined where they differ. */
export function listValue(state: EditorState): ListPlace | null | undefined {
  const { styles } = documentAttrs(state.doc)
  const places: (ListPlace | null)[] = []
  eachParagraph(state, (paragraph) => places.push(listPlace(styles, paragraph)))
  const [first = null] = places
  return places.every((place) => place?.definition === first?.definition) ? first : undefined
}

/** What stands before the item with the caret. */
export function labelValue(state: EditorState): string | null {
  return labelsOf(state.doc)[leavesOf(state.doc).at(state.selection.head)] ?? null
}

/** The number of the item with the caret among those of its level. */
export function numberValue(state: EditorState): number | null {
  return itemNumber(state.doc, leavesOf(state.doc).at(state.selection.head))
}

interface Item {
  leaf: number
  pos: number
  node: Node
  place: ListPlace | null
}

function itemAt(doc: Node, leaf: number): Item | null {
  const leaves = leavesOf(doc)
  const node = leaves.find(leaf)
  return node ? { leaf, pos: leaves.before(leaf), node, place: listPlace(documentAttrs(doc).styles, node) } : null
}

function selectedItems(state: Pick<EditorState, "doc" | "selection">): Item[] {
  const { doc } = state
  return stretchesOf(state).flatMap(({ from, to }) => {
    const [first, last] = [leavesOf(doc).at(from), leavesOf(doc).at(to)]
    return Array.from({ length: last - first + 1 }, (_, i) => itemAt(doc, first + i)).filter((item) => item !== null)
  })
}

const sameRun = (a: ListPlace | null | undefined, b: ListPlace) => a?.definition === b.definition && a.run === b.run

/** The items around one that follow each other without a gap in its list, as far as they are at its level or deeper. */
function siblings(doc: Node, item: Item): Item[] {
  const { place } = item
  if (!place) return [item]
  const belongs = (other: Item | null): other is Item => {
    const own = other?.place
    return (
      own !== undefined && own !== null && own.level >= place.level && (sameRun(own, place) || own.level > place.level)
    )
  }
  const found = [item]
  for (let leaf = item.leaf - 1, other = itemAt(doc, leaf); leaf >= 0 && belongs(other); other = itemAt(doc, --leaf))
    found.unshift(other)
  for (let leaf = item.leaf + 1, other = itemAt(doc, leaf); belongs(other); other = itemAt(doc, ++leaf))
    found.push(other)
  return found
}

function setPlace(tr: Transaction, { pos }: Item, place: ListPlace | null): void {
  formatParagraph(tr, pos, { list: place })
}

/**
 * Makes the selected paragraphs items of a list of this definition; they join a neighbouring list of the
 * same kind. Items that are in another list change their kind: at a caret all those beside them at their
 * level. Where all are of this kind already, they leave the list.
 */
export function toggleList(definition: string): Command {
  return (state, dispatch) => {
    const { styles } = documentAttrs(state.doc)
    if (!dispatch) return true
    const { tr, doc } = state
    const selected = selectedItems(state)
    const off = selected.every(({ place }) => place?.definition === definition)
    const name = listNamed(styles, definition).name
    if (off) for (const item of selected) setPlace(tr, item, null)
    else {
      const alone = selected.length === 1 && selected[0]?.place ? siblings(doc, selected[0] as Item) : selected
      const run = neighbourRun(doc, alone, definition) ?? newRun()
      for (const item of alone) {
        // Deeper items of another kind stay as they are.
        if (
          alone !== selected &&
          item.place &&
          item.place.level > (selected[0]?.place?.level ?? 0) &&
          !sameRun(item.place, selected[0]?.place as ListPlace)
        )
          continue
        const tasks = levelOf(styles, definition, 0).kind === "check"
        setPlace(tr, item, {
          definition,
          run,
          level: item.place?.level ?? 0,
          ...(tasks ? { done: item.place?.done ?? false } : {}),
        })
      }
    }
    dispatch(named(tr.setStoredMarks(state.storedMarks), `${off ? "No list" : name}${onParagraphs(state)}`))
    return true
  }
}

/** The run of a list of this definition right before or after some items, or among them. */
function neighbourRun(doc: Node, items: readonly Item[], definition: string): string | null {
  const [first, last] = [items[0], items.at(-1)]
  if (!first || !last) return null
  const near = [itemAt(doc, first.leaf - 1), itemAt(doc, last.leaf + 1), ...items]
  return near.find((item) => item?.place?.definition === definition && item.place.run !== "")?.place?.run ?? null
}

/** The item at a level that one coming there follows: so bullets inside numbers become numbers again further up. */
function peerAbove(doc: Node, leaf: number, level: number): ListPlace | null {
  for (let above = leaf - 1; above >= 0; above--) {
    const place = itemAt(doc, above)?.place
    if (!place || place.level < level) return null
    if (place.level === level) return place
  }
  return null
}

/** Moves the selected items a level deeper or up. At their new level they go on with the list that is there. */
export function stepLevel(direction: -1 | 1): Command {
  return (state, dispatch) => {
    const items = selectedItems(state).filter(
      ({ place }) => place !== null && place.level + direction >= 0 && place.level + direction <= 8,
    )
    if (items.length === 0) return false
    if (!dispatch) return true
    const { tr } = state
    for (const item of items) {
      const { start: _start, ...place } = item.place as ListPlace
      const level = place.level + direction
      const { definition, run } = peerAbove(tr.doc, item.leaf, level) ?? place
      setPlace(tr, item, { ...place, definition, run, level })
    }
    dispatch(
      named(tr.setStoredMarks(state.storedMarks), `${direction > 0 ? "Deeper" : "Up a level"}${onParagraphs(state)}`),
    )
    return true
  }
}

/** Whether the caret or selection is at the start of items, where Tab moves them and does not come into the text. */
export function atItemStart({ doc, selection }: EditorState): boolean {
  const { styles } = documentAttrs(doc)
  if (listPlace(styles, selection.$from.parent) === null) return false
  return selection.empty ? selection.$from.parentOffset === 0 : !selection.$from.sameParent(selection.$to)
}

/** The selected paragraphs leave their lists. */
export const leaveList: Command = (state, dispatch) => {
  const items = selectedItems(state).filter(({ place }) => place !== null)
  if (items.length === 0) return false
  if (!dispatch) return true
  const { tr } = state
  for (const item of items) setPlace(tr, item, null)
  dispatch(named(tr.setStoredMarks(state.storedMarks), `No list${onParagraphs(state)}`))
  return true
}

/** Enter in an item without text: up a level, and out of the list from the first. */
export const endItem: Command = (state, dispatch) => {
  const { $from, empty } = state.selection
  const place = listPlace(documentAttrs(state.doc).styles, $from.parent)
  if (!empty || !place || $from.parent.content.size > 0) return false
  return place.level > 0 ? stepLevel(-1)(state, dispatch) : leaveList(state, dispatch)
}

/** Backspace before the text of an item takes its mark away. */
export const deleteMark: Command = (state, dispatch) => {
  const { $from, empty } = state.selection
  return empty && $from.parentOffset === 0 && leaveList(state, dispatch)
}

/** From the item with the caret on, the list is numbered by itself, beginning with `start`. */
export function restartList(start: number): Command {
  return (state, dispatch) => {
    const { doc, tr } = state
    const item = itemAt(doc, leavesOf(doc).at(state.selection.from))
    if (!item?.place) return false
    if (!dispatch) return true
    const run = newRun()
    const { place } = item
    const own = levelOf(documentAttrs(doc).styles, place.definition, place.level)
    leavesOf(doc).nodes.forEach((_, leaf) => {
      const other = leaf >= item.leaf ? itemAt(doc, leaf) : null
      if (!other?.place || !sameRun(other.place, place)) return
      const { start: _start, ...rest } = other.place
      setPlace(tr, other, { ...rest, run, ...(leaf === item.leaf && start !== own.start ? { start } : {}) })
    })
    dispatch(named(tr, `Numbered from ${start}`))
    return true
  }
}

/** The list with the caret goes on with the numbers of the one of its kind before it. */
export const continueList: Command = (state, dispatch) => {
  const { doc, tr } = state
  const item = itemAt(doc, leavesOf(doc).at(state.selection.from))
  const place = item?.place
  if (!item || !place) return false
  let before: ListPlace | null = null
  for (let leaf = item.leaf - 1; leaf >= 0 && !before; leaf--) {
    const other = itemAt(doc, leaf)?.place
    if (other?.definition === place.definition && other.run !== place.run) before = other
  }
  if (!before) return false
  if (!dispatch) return true
  const { run } = before
  leavesOf(doc).nodes.forEach((_, leaf) => {
    const other = itemAt(doc, leaf)
    if (!other?.place || !sameRun(other.place, place)) return
    const { start: _start, ...rest } = other.place
    setPlace(tr, other, { ...rest, run })
  })
  dispatch(named(tr, "Numbers go on"))
  return true
}

/** Ticks a thing to do, or takes the tick away. */
export function toggleDone(leaf: number): Command {
  return (state, dispatch) => {
    const item = itemAt(state.doc, leaf)
    if (
      !item?.place ||
      levelOf(documentAttrs(state.doc).styles, item.place.definition, item.place.level).kind !== "check"
    )
      return false
    if (!dispatch) return true
    const done = !item.place.done
    const { tr } = state
    formatParagraph(tr, item.pos, { list: { ...item.place, done } })
    dispatch(named(tr.setStoredMarks(state.storedMarks), done ? "Done" : "Not done"))
    return true
  }
}

/** Ticks the thing to do with the caret. */
export const toggleDoneHere: Command = (state, dispatch) =>
  toggleDone(leavesOf(state.doc).at(state.selection.head))(state, dispatch)

/** Changes the definition of the list with the caret, for this document. One that ships is copied first, under a key of its own. */
export function defineList(change: (definition: ListDefinition) => ListDefinition): Command {
  return (state, dispatch) => {
    const place = listValue(state)
    if (!place) return false
    if (!dispatch) return true
    const { styles } = documentAttrs(state.doc)
    const changed = change(structuredClone(listNamed(styles, place.definition)))
    const definition: ListDefinition = { name: asName(changed.name) || "My list", levels: changed.levels.map(fitLevel) }
    const { tr } = state
    const own = Object.hasOwn(styles.lists, place.definition)
    const key = own ? place.definition : freeKey(styles.lists)
    setEntries(tr, null, "styles", { ...styles, lists: { ...styles.lists, [key]: definition } })
    if (!own)
      leavesOf(state.doc).nodes.forEach((_, leaf) => {
        const item = itemAt(state.doc, leaf)
        if (item?.place && sameRun(item.place, place)) setPlace(tr, item, { ...item.place, definition: key })
      })
    dispatch(named(tr, "Changed the list"))
    return true
  }
}

function freeKey(lists: StyleSheet["lists"]): string {
  let n = Object.keys(lists).length + 1
  while (Object.hasOwn(lists, `list${n}`)) n++
  return `list${n}`
}

/** Changes one level of the list with the caret. */
export function defineLevel(level: number, change: Partial<ListLevel>): Command {
  return defineList((definition) => ({
    name: definition.name.startsWith("My ") ? definition.name : "My list",
    levels: definition.levels.map((own, i) => (i === level ? { ...own, ...change } : own)),
  }))
}

/** Turns a mark or number that was just typed at the start of a paragraph into a list. */
export const listFromTyping: Command = (state, dispatch) => {
  const { $head, empty } = state.selection
  const { styles } = documentAttrs(state.doc)
  const before = textOf($head.parent).slice(0, $head.parentOffset)
  const typed = typedItem(before)
  if (!empty || !typed || typed.length !== before.length) return false
  const { tr, doc } = state
  const item = itemAt(doc, leavesOf(doc).at($head.pos)) as Item
  if (item.place) {
    const next = typedInItem(state, item, item.place, typed, before.trim())
    if (!next) return false
    tr.delete($head.start(), $head.pos)
    setPlace(tr, item, next)
    dispatch?.(
      named(tr, next === item.place ? "The mark was there already" : listNamed(styles, next.definition).name).setMeta(
        "correction",
        true,
      ),
    )
    return true
  }
  const above = itemAt(doc, item.leaf - 1)?.place
  // A number goes on with the list before it, if it is the next one there.
  const joins =
    above?.definition === typed.definition &&
    (typed.start === null || labelsOf(doc)[item.leaf - 1] === formatted(typed.definition, typed.start - 1))
  if (typed.start !== null && !joins && typed.start > 99) return false
  tr.delete($head.start(), $head.pos)
  setPlace(tr, item, {
    definition: typed.definition,
    run: joins && above ? above.run : newRun(),
    level: typed.level,
    ...(typed.start !== null && !joins ? { start: typed.start } : {}),
    ...(typed.definition === "tasks" ? { done: typed.done } : {}),
  })
  dispatch?.(named(tr, entryOf(readyLists, typed.definition)?.name ?? "List").setMeta("correction", true))
  return true
}

/** The place of an item whose mark was typed once more (the one it has), or one of another kind: bullets inside numbers. Null where the text is meant. */
function typedInItem(
  state: EditorState,
  item: Item,
  place: ListPlace,
  typed: { definition: string; done: boolean },
  mark: string,
): ListPlace | null {
  if (!paragraphAttrs(item.node).format?.list) return null
  const { styles } = documentAttrs(state.doc)
  const { kind } = levelOf(styles, place.definition, place.level)
  const wanted = levelOf(styles, typed.definition, place.level).kind
  if (kind === wanted) return kind !== "number" || labelsOf(state.doc)[item.leaf] === mark ? place : null
  const peer = peerAbove(state.doc, item.leaf, place.level)
  const { level } = place
  return {
    definition: typed.definition,
    run: peer?.definition === typed.definition ? peer.run : newRun(),
    level,
    ...(wanted === "check" ? { done: typed.done } : {}),
  }
}

function formatted(definition: string, n: number): string {
  return entryOf(readyLists, definition)?.levels[0]?.format.replace("%1", String(n)) ?? ""
}
