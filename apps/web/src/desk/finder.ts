/** Find and replace at the desk: what is searched for, where one is, and how many there are. */
import { createStore } from "zustand/vanilla"
import { leavesOf, textOf } from "@biblon/core/document"
import { noQuery, replaceHits, Search, type Command, type PlacedHit, type Query } from "@biblon/core/editing"
import type { EditorState } from "prosemirror-state"
import type { Mappable } from "prosemirror-transform"
import { inSlices, nextTask } from "../ui/slices"
import { PatternFinder } from "../workers/findClient"
import type { Mark, Place } from "./view/source"

export interface FinderState {
  query: Query
  replacement: string
  /** null while they are still being counted. */
  count: number | null
  /** Number of the hit one is at, from 1; null between hits. */
  current: number | null
  /** Why nothing can be searched. */
  problem: string | null
}

export interface FinderTarget {
  editor(): EditorState | null
  select(from: number, to: Place): void
  run(command: Command): boolean
  repaint(): void
}

/** Milliseconds of rest after a change before the count is made anew. */
const rest = 120
/** Paragraphs sent to the pattern's worker at once. */
const batch = 400

export class Finder {
  readonly store = createStore<FinderState>(() => ({
    query: noQuery,
    replacement: "",
    count: 0,
    current: null,
    problem: null,
  }))
  private search: Search | null = null
  private at: { from: number; to: number } | null = null
  /** What was selected before the search went anywhere. */
  private origin: { from: number; to: number } | null = null
  private round = 0
  private recount: ReturnType<typeof setTimeout> | undefined
  private readonly patterns = new PatternFinder()

  constructor(private readonly target: FinderTarget) {}

  close(): void {
    this.patterns.close()
    this.set(noQuery)
  }

  /** Searches for something else; goes to the first hit from where one is. */
  set(query: Query): void {
    this.store.setState({ query, problem: null, current: null })
    this.at = null
    try {
      const search = new Search(query)
      this.search = search.empty ? null : search
    } catch (error) {
      this.search = null
      this.store.setState({ problem: (error as Error).message })
    }
    void this.count(true)
  }

  /** What a person has selected, as against the place at which the search is. */
  get selected(): { from: number; to: number } | null {
    const selection = this.at ? null : this.target.editor()?.selection
    const range = selection ?? this.origin
    return range && range.from < range.to ? { from: range.from, to: range.to } : null
  }

  /** To be called when the document or the selection has changed. */
  changed(docChanged: boolean, mapping: Mappable): void {
    if (docChanged) {
      if (this.origin) this.origin = { from: mapping.map(this.origin.from, -1), to: mapping.map(this.origin.to, 1) }
      const { query } = this.store.getState()
      if (query.within) {
        const within = { from: mapping.map(query.within.from, -1), to: mapping.map(query.within.to, 1) }
        this.search = this.search?.between(within) ?? null
        this.store.setState({ query: { ...query, within } })
      }
    }
    if (!this.search) return
    const editor = this.target.editor()
    if (docChanged) {
      clearTimeout(this.recount)
      this.recount = setTimeout(() => void this.count(false), rest)
    } else if (editor && this.at && (editor.selection.from !== this.at.from || editor.selection.to !== this.at.to)) {
      this.at = null
      this.store.setState({ current: null })
    }
  }

  /** Counts the hits in slices; the marks in sight are there at once. */
  private async count(go: boolean): Promise<void> {
    const round = ++this.round
    // What this counts need not be counted once more, which would end it before it went to its hit.
    clearTimeout(this.recount)
    const { search } = this
    const editor = this.target.editor()
    this.target.repaint()
    if (!search || !editor) return this.store.setState({ count: 0 })
    if (search.query.pattern && search.expression && !(await this.learn(search, editor, round))) return
    if (go) this.go(1, editor.selection.from)
    const count = await inSlices(
      search.counting(editor.doc),
      () => round === this.round,
      () => {
        this.store.setState({ count: null })
        return nextTask()
      },
    )
    if (count === null || round !== this.round) return
    this.store.setState({ count })
    this.showCurrent()
    this.target.repaint()
  }

  /** Has a pattern's places found in the worker. False if it was stopped or something else is searched for by now. */
  private async learn(search: Search, editor: EditorState, round: number): Promise<boolean> {
    const unknown = leavesOf(editor.doc).nodes.filter((leaf) => !search.knows(leaf))
    for (let i = 0; i < unknown.length; i += batch) {
      const some = unknown.slice(i, i + batch)
      const hits = await this.patterns.find(search.expression as RegExp, some.map(textOf))
      if (round !== this.round) return false
      if (hits === null) {
        this.search = null
        this.store.setState({ problem: "This pattern takes too long and was stopped. Try a simpler one.", count: 0 })
        return false
      }
      some.forEach((leaf, n) => search.learn(leaf, hits[n] ?? []))
    }
    return true
  }

  next(direction: -1 | 1): void {
    const editor = this.target.editor()
    if (editor)
      this.go(direction, direction > 0 ? (this.at ? this.at.to : editor.selection.from) : editor.selection.from)
  }

  private go(direction: -1 | 1, pos: number): void {
    const editor = this.target.editor()
    const hit = editor && this.search?.next(editor.doc, pos, direction)
    if (!editor || !hit) return
    const { from, to } = this.positions(editor, hit)
    if (!this.at) this.origin = { from: editor.selection.from, to: editor.selection.to }
    this.at = { from, to }
    this.target.select(from, { pos: to, bias: -1 })
    this.showCurrent()
    this.target.repaint()
  }

  private positions(editor: EditorState, hit: PlacedHit): { from: number; to: number } {
    const start = leavesOf(editor.doc).start(hit.leaf)
    return { from: start + hit.from, to: start + hit.to }
  }

  /** The number of the hit one is at. */
  private showCurrent(): void {
    const editor = this.target.editor()
    const { at, search } = this
    if (!editor || !at || !search) return this.store.setState({ current: null })
    let number = 0
    const leaves = leavesOf(editor.doc)
    for (let leaf = 0; leaf < leaves.count && leaves.before(leaf) < at.to; leaf++)
      for (const hit of search.hits(editor.doc, leaf)) if (leaves.start(leaf) + hit.from <= at.from) number++
    this.store.setState({ current: number || null })
  }

  replaceOne(): void {
    const editor = this.target.editor()
    const { at, search } = this
    if (!editor || !search) return
    const hit = at && search.all(editor.doc).find((h) => this.positions(editor, h).from === at.from)
    if (!hit) return this.next(1)
    this.target.run(replaceHits(search, [hit], this.store.getState().replacement))
    this.at = null
    void this.count(true)
  }

  /** Returns how many were replaced. */
  replaceAll(): number {
    const editor = this.target.editor()
    if (!editor || !this.search) return 0
    const hits = this.search.all(editor.doc)
    this.at = null
    this.target.run(replaceHits(this.search, hits, this.store.getState().replacement))
    return hits.length
  }

  /** The marks of a leaf in sight. */
  marks(leaf: number): Mark[] {
    const editor = this.target.editor()
    const { search } = this
    if (
      !editor ||
      !search ||
      (search.query.pattern && search.expression && !search.knows(leavesOf(editor.doc).node(leaf)))
    )
      return []
    return search.hits(editor.doc, leaf).map((hit) => {
      const { from, to } = this.positions(editor, { leaf, ...hit })
      return { kind: this.at?.from === from && this.at.to === to ? "found-now" : "found", ...hit }
    })
  }
}
