/**
 * Everything that was done, as a log of steps from which any change can be taken back.
 *
 * The log holds every step that led from the document as it was opened to the document now, other
 * people's too. An entry of the undo list is a set of log items. To take an entry back, its steps are
 * inverted, last first, and each is mapped over all that came after it; the inverse and what it undoes
 * are mirrors of each other, so that positions which one deletes and the other restores are found
 * again (prosemirror-transform, Mapping). Undo takes back the newest entry, redo takes back the undoing,
 * and taking back one earlier change is an entry of its own, which can be undone like any other.
 */
import { Mapping, type Step, type StepMap } from "prosemirror-transform"
import { Plugin, PluginKey, TextSelection, type EditorState, type Selection, type Transaction } from "prosemirror-state"
import type { Node } from "prosemirror-model"
import { changedLeaves, leavesOf, textChange, textOf } from "../document"
import type { Command } from "./command"
import { chained, Grown, lastOf, Mirrors, type Chain } from "./growing"

interface Log {
  /** For each step that was made, the step that undoes it: all that is needed of it. */
  items: Grown<Step>
  /** For an item the next one that undoes it, or does again what it had undone. */
  mirrors: Mirrors
  /** Items made here, without those that were moved over other people's changes and made anew. */
  own: Chain<number>
}

export interface Change {
  id: number
  /** What was done, in words for people. */
  name: string
  /** Milliseconds since 1970. */
  time: number
  /** Log items through which the change is now in the document or, once it is undone, out of it. */
  items: readonly number[]
  /** The change that this one takes back. */
  takesBack: number | null
  /** Where the caret or selection was before. */
  before: { anchor: number; head: number }
}

interface HistoryState {
  log: Log
  /** Oldest first. */
  done: readonly Change[]
  /** What can be done again, next first. */
  undone: readonly Change[]
  /** What is typed goes on with the newest change while this holds. */
  open: { kind: string; end: number; time: number; before: Node } | null
}

const key = new PluginKey<HistoryState>("history")
const empty: HistoryState = {
  log: { items: Grown.empty, mirrors: Mirrors.none, own: null },
  done: [],
  undone: [],
  open: null,
}

/** A pause, in milliseconds, after which typing is a change of its own. */
const pause = 700

let ids = 0

/** Gives a transaction its name in the undo list. */
export function named(tr: Transaction, name: string): Transaction {
  return tr.setMeta("changeName", name)
}

/** Marks typing, deleting and composing: what follows closely joins one change; so do the parts of a long paste. */
export function joining(
  tr: Transaction,
  kind: "typed" | "deleted" | "composed" | "pasteBegins" | "pasted",
): Transaction {
  return tr.setMeta("joins", kind)
}

/** The map of the step that an item undoes. */
const mapOf = (item: Step): StepMap => item.getMap().invert()

/** Maps positions over the log's end; what an item deletes and its mirror restores is found again. */
class LogMapping extends Mapping {
  constructor(
    maps: readonly StepMap[],
    private readonly next: { get(item: number): number | undefined },
    /** Number in the log of the first of these maps, and of the first to map over. */
    private readonly start: number,
    from: number,
  ) {
    super([...maps], [], from - start, maps.length)
  }
  override getMirror(n: number): number | undefined {
    const next = this.next.get(n + this.start)
    return next === undefined ? undefined : next - this.start
  }
}

type Acted = { kind: "undo" | "redo" | "takeBack"; changes: number[] }

function logged(log: Log, tr: Transaction): Log {
  const items = tr.steps.map((step, i) => step.invert(tr.docs[i] as Node))
  return { ...log, items: log.items.with(items), mirrors: log.mirrors.with([], log.items.length + items.length) }
}

const range = (from: number, to: number) => Array.from({ length: Math.max(0, to - from) }, (_, i) => from + i)

/** Other people's changes came in under those that the server has not confirmed: these were taken out and put on top again. */
function rebased(state: HistoryState, tr: Transaction, unconfirmed: number): HistoryState {
  const base = state.log.items.length
  const { last: moved, before } = lastOf(state.log.own, unconfirmed)
  const log = logged(state.log, tr)
  const pairs: [number, number][] = []
  const mirror = (item: number, later: number) => void pairs.push([item, later])
  const anew = new Map<number, number>()
  moved.forEach((item, i) => {
    const inverse = unconfirmed - 1 - i
    mirror(item, base + inverse)
    const again = tr.mapping.getMirror(inverse)
    if (again !== undefined) {
      mirror(base + inverse, base + again)
      anew.set(item, base + again)
    }
  })
  for (const [item, a] of anew) {
    const later = state.log.mirrors.get(item)
    const b = later === undefined ? undefined : anew.get(later)
    if (b !== undefined) mirror(a, b)
  }
  const gone = new Set(moved)
  const renew = (changes: readonly Change[]) =>
    changes.map((change) =>
      change.items.some((item) => gone.has(item))
        ? { ...change, items: change.items.flatMap((item) => (gone.has(item) ? (anew.get(item) ?? []) : [item])) }
        : change,
    )
  const own = chained(
    before,
    [...anew.values()].sort((a, b) => a - b),
  )
  return {
    ...state,
    log: { items: log.items, mirrors: log.mirrors.with(pairs, log.items.length), own },
    done: renew(state.done),
    undone: renew(state.undone),
  }
}

/** What a change of a document comes to, in words: what was typed or deleted. */
function describe(before: Node, after: Node, kind: string | undefined): string {
  const change = changedLeaves(before, after)
  if (!change) return "Settings"
  const text = (doc: Node, to: number) =>
    range(change.from, to)
      .map((i) => textOf(leavesOf(doc).node(i)))
      .join("\n")
  const [a, b] = [text(before, change.oldTo), text(after, change.newTo)]
  const { from, oldTo, newTo } = textChange(a, b)
  const [removed, added] = [a.slice(from, oldTo), b.slice(from, newTo)]
  if (added.trim()) return `Typed ${quoted(added)}`
  if (removed.trim()) return `Deleted ${quoted(removed)}`
  if (added.includes("\n")) return "New paragraph"
  if (removed.includes("\n")) return "Joined paragraphs"
  return kind === "deleted" || removed ? "Deleted a space" : added ? "Typed a space" : "Changed the look"
}

const longestQuote = 28

/** A text in quotation marks, cut short. */
export function quoted(text: string): string {
  const line = text.replace(/\s+/g, " ").trim()
  return `“${line.length > longestQuote ? `${line.slice(0, longestQuote).trimEnd()}…` : line}”`
}

/** Whether what is done belongs to the change that is open. */
function goesOn(kind: string, open: NonNullable<HistoryState["open"]>, now: number, head: number): boolean {
  if (kind === "pasted") return open.kind === "pasteBegins" || open.kind === "pasted"
  if (kind !== open.kind || kind === "pasteBegins") return false
  return kind === "composed" || (now - open.time < pause && head === open.end)
}

function apply(tr: Transaction, state: HistoryState, old: EditorState): HistoryState {
  const acted = tr.getMeta(key) as Acted | undefined
  if (tr.steps.length === 0 && !acted) return tr.selectionSet && state.open ? { ...state, open: null } : state
  const unconfirmed = tr.getMeta("rebased") as number | undefined
  if (unconfirmed !== undefined) return rebased(state, tr, unconfirmed)

  const base = state.log.items.length
  let log = logged(state.log, tr)
  const mine = range(base, log.items.length)
  if (tr.getMeta("addToHistory") === false) return { ...state, log: { ...log, own: chained(log.own, mine) } }
  log = {
    ...log,
    own: chained(log.own, mine),
    mirrors: log.mirrors.with((tr.getMeta("mirrors") as [number, number][] | undefined) ?? [], log.items.length),
  }

  if (acted && acted.kind !== "takeBack") {
    const itemsOf = tr.getMeta("itemsOf") as Map<number, number[]>
    const flip = (change: Change) => ({ ...change, items: itemsOf.get(change.id) ?? [] })
    const moved = new Set(acted.changes)
    if (acted.kind === "undo")
      return {
        log,
        open: null,
        done: state.done.filter((c) => !moved.has(c.id)),
        undone: [...state.done.filter((c) => moved.has(c.id)).map(flip), ...state.undone],
      }
    return {
      log,
      open: null,
      done: [...state.done, ...state.undone.filter((c) => moved.has(c.id)).map(flip)],
      undone: state.undone.filter((c) => !moved.has(c.id)),
    }
  }

  const kind = tr.getMeta("joins") as string | undefined
  const last = state.done.at(-1)
  const now = tr.time
  if (kind && last && state.open && goesOn(kind, state.open, now, old.selection.head)) {
    const { before } = state.open
    const grown = {
      ...last,
      items: [...last.items, ...mine],
      name: kind === "pasted" ? last.name : describe(before, tr.doc, kind),
    }
    return {
      log,
      done: [...state.done.slice(0, -1), grown],
      undone: [],
      open: { kind, end: tr.selection.head, time: now, before },
    }
  }
  const change: Change = {
    id: ++ids,
    name: (tr.getMeta("changeName") as string | undefined) ?? describe(old.doc, tr.doc, kind),
    time: now,
    items: mine,
    takesBack: acted?.kind === "takeBack" ? (acted.changes[0] ?? null) : null,
    before: { anchor: old.selection.anchor, head: old.selection.head },
  }
  return {
    log,
    done: [...state.done, change],
    undone: [],
    open: kind ? { kind, end: tr.selection.head, time: now, before: old.doc } : null,
  }
}

/** The plugin that keeps the undo list of a state. */
export function editHistory(): Plugin {
  return new Plugin<HistoryState>({
    key,
    state: { init: () => empty, apply: (tr, state, old) => apply(tr, state, old) },
  })
}

interface Reverting {
  tr: Transaction
  log: Log
  mirrors: [number, number][]
}

/** Adds to a transaction what undoes these items of the log. Returns the items that do so, fewer if some no longer can be undone. */
function revert(reverting: Reverting, items: readonly number[]): number[] {
  const { tr } = reverting
  const base = reverting.log.items.length
  const start = items.reduce((a, b) => Math.min(a, b), base) + 1
  const maps = [...reverting.log.items.slice(start).map(mapOf), ...tr.mapping.maps]
  const here = new Map(reverting.mirrors)
  const next = { get: (item: number) => here.get(item) ?? reverting.log.mirrors.get(item) }
  const made: number[] = []
  for (const item of [...items].reverse()) {
    const mapping = new LogMapping(maps, next, start, item + 1)
    const step = (reverting.log.items.at(item) as Step).map(mapping)
    if (!step || tr.maybeStep(step).failed) continue
    const index = base + tr.steps.length - 1
    maps.push(tr.mapping.maps.at(-1) as StepMap)
    here.set(item, index)
    reverting.mirrors.push([item, index])
    made.push(index)
  }
  return made
}

function act(
  state: EditorState,
  kind: "undo" | "redo",
  changes: readonly Change[],
  dispatch: ((tr: Transaction) => void) | undefined,
): boolean {
  const history = key.getState(state)
  if (!history || changes.length === 0) return false
  if (!dispatch) return true
  const reverting: Reverting = { tr: state.tr, log: history.log, mirrors: [] }
  const itemsOf = new Map<number, number[]>()
  let last: Change | null = null
  for (const change of changes) {
    // What other people have made impossible is passed over, so that older changes can still be undone.
    itemsOf.set(change.id, revert(reverting, change.items))
    last = change
  }
  const { tr } = reverting
  tr.setMeta(key, { kind, changes: changes.map((c) => c.id) } satisfies Acted)
  tr.setMeta("itemsOf", itemsOf).setMeta("mirrors", reverting.mirrors)
  if (last && kind === "undo") {
    const at = (pos: number) => tr.doc.resolve(Math.min(pos, tr.doc.content.size))
    tr.setSelection(TextSelection.between(at(last.before.anchor), at(last.before.head)))
  } else tr.setSelection(afterChange(tr))
  dispatch(tr.scrollIntoView())
  return true
}

/** The caret behind what the last step of a transaction put in. */
function afterChange(tr: Transaction): Selection {
  let end: number | null = null
  tr.mapping.maps.at(-1)?.forEach((_a, _b, _from, to) => (end = to))
  return end === null ? tr.selection : TextSelection.near(tr.doc.resolve(Math.min(end, tr.doc.content.size)), -1)
}

export const undo: Command = (state, dispatch) =>
  act(state, "undo", (key.getState(state)?.done ?? []).slice(-1), dispatch)
export const redo: Command = (state, dispatch) =>
  act(state, "redo", (key.getState(state)?.undone ?? []).slice(0, 1), dispatch)

/** Undoes this change and all after it. */
export function undoBackTo(id: number): Command {
  return (state, dispatch) => {
    const done = key.getState(state)?.done ?? []
    const from = done.findIndex((change) => change.id === id)
    return from >= 0 && act(state, "undo", done.slice(from).reverse(), dispatch)
  }
}

/** Does this undone change again, and all that were done before it. */
export function redoUpTo(id: number): Command {
  return (state, dispatch) => {
    const undone = key.getState(state)?.undone ?? []
    return act(state, "redo", undone.slice(0, undone.findIndex((change) => change.id === id) + 1), dispatch)
  }
}

function isTakenBack(history: HistoryState, id: number): boolean {
  return history.done.some((change) => change.takesBack === id)
}

/** Takes back one earlier change and keeps the later ones. Does not apply where `whyNot` has an answer. */
export function takeBack(id: number): Command {
  return (state, dispatch) => {
    const history = key.getState(state)
    const change = history?.done.find((c) => c.id === id)
    if (!history || !change || isTakenBack(history, id)) return false
    const reverting: Reverting = { tr: state.tr, log: history.log, mirrors: [] }
    const made = revert(reverting, change.items)
    if (made.length < change.items.length || reverting.tr.doc.eq(state.doc)) return false
    if (dispatch)
      dispatch(
        named(reverting.tr, `Took back: ${change.name}`)
          .setMeta(key, { kind: "takeBack", changes: [id] } satisfies Acted)
          .setMeta("mirrors", reverting.mirrors)
          .scrollIntoView(),
      )
    return true
  }
}

/** Why a change can no longer be taken back by itself; null if it can. */
export function whyNot(state: EditorState, id: number): string | null {
  const history = key.getState(state)
  if (!history?.done.some((change) => change.id === id)) return "It is not in the list any more."
  if (isTakenBack(history, id)) return "It has been taken back already."
  return takeBack(id)(state) ? null : "What it changed has been changed or deleted since."
}

/** What was done, newest first, and what can be done again, next first. */
export function changes(state: EditorState): { done: Change[]; undone: readonly Change[] } {
  const history = key.getState(state) ?? empty
  return { done: [...history.done].reverse(), undone: history.undone }
}

/** The places of the document now that a change touched. */
export function touchedBy(state: EditorState, id: number): { from: number; to: number }[] {
  const history = key.getState(state)
  const change = history && [...history.done, ...history.undone].find((c) => c.id === id)
  if (!change) return []
  const start = change.items.reduce((a, b) => Math.min(a, b), history.log.items.length) + 1
  const maps = history.log.items.slice(start).map(mapOf)
  return change.items.flatMap((item) => {
    const step = history.log.items.at(item) as Step
    const mapping = new LogMapping(maps, history.log.mirrors, start, item + 1)
    const ranges: { from: number; to: number }[] = []
    mapOf(step).forEach((_from, _to, from, to) => ranges.push({ from, to }))
    // Steps that change looks have no ranges in their maps; they carry them.
    const { from, to, pos } = step as unknown as { from?: number; to?: number; pos?: number | null }
    if (ranges.length === 0 && from !== undefined && to !== undefined) ranges.push({ from, to })
    const places = ranges.map((r) => ({ from: mapping.map(r.from, 1), to: mapping.map(r.to, -1) }))
    // Those that change a paragraph as a whole name its start.
    const paragraph = typeof pos === "number" ? mapping.mapResult(pos, 1) : null
    const node = paragraph && !paragraph.deletedAfter ? state.doc.nodeAt(paragraph.pos) : null
    if (paragraph && node) places.push({ from: paragraph.pos + 1, to: paragraph.pos + 1 + node.content.size })
    return places.filter((r) => r.to > r.from)
  })
}
