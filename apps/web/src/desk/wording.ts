/** Wording at the desk: looked through behind the writing as long as somebody wants to see what there is to say of it. */
import { createStore } from "zustand/vanilla"
import type { Node } from "prosemirror-model"
import type { EditorState } from "prosemirror-state"
import {
  passageOf,
  remarkName,
  remarksOn,
  wordingKindNames,
  wordingKinds,
  type Passage,
  type Remark,
  type WordingKind,
} from "@biblon/core/checking"
import { documentAttrs, leavesOf, textOf, type StyleSheet } from "@biblon/core/document"
import { keep, readKept } from "../kept"
import { Asking } from "../workers/asking"
import type { WordingQuestion } from "../workers/wording.worker"
import type { Mark } from "./view/source"

/** A remark where it stands. */
export interface PlacedRemark extends Remark {
  /** Positions in the document. */
  start: number
  end: number
  /** What it is said of. */
  words: string
}

export interface WordingState {
  /** Which kinds are looked for. */
  on: Readonly<Record<WordingKind, boolean>>
  /** How much of the text has been looked through, from 0 to 1. */
  looked: number
  /** Whether what knows English could not be had. */
  failed: boolean
}

export interface WordingTarget {
  editor(): EditorState | null
  repaint(): void
}

/** Milliseconds of rest after a change before what changed is looked through. */
const rest = 500
/** So many characters are asked about at once. */
const batch = 3000

function keptKinds(): Record<WordingKind, boolean> {
  const kept = readKept("wording")
  const said = (name: WordingKind): unknown =>
    typeof kept === "object" && kept !== null && Object.hasOwn(kept, name)
      ? (kept as Record<string, unknown>)[name]
      : null
  return Object.fromEntries(
    wordingKindNames.map((name) => {
      const own = said(name)
      return [name, typeof own === "boolean" ? own : wordingKinds[name].on]
    }),
  ) as Record<WordingKind, boolean>
}

export class Wording {
  readonly store = createStore<WordingState>(() => ({ on: keptKinds(), looked: 0, failed: false }))
  private readonly asking = new Asking<WordingQuestion, Remark[][]>("wording.worker.js")
  private readonly known = new WeakMap<Node, { styles: StyleSheet; remarks: readonly Remark[] }>()
  private watched = false
  private round = 0
  private timer: ReturnType<typeof setTimeout> | undefined

  constructor(private readonly target: WordingTarget) {}

  close(): void {
    clearTimeout(this.timer)
    this.round++
    this.asking.close()
  }

  /** Whether somebody looks at what is said. */
  watch(watched: boolean): void {
    this.watched = watched
    if (watched) this.again(0)
    else this.round++
    this.target.repaint()
  }

  /** To be called when the document has changed. */
  changed(): void {
    if (this.watched) this.again(rest)
  }

  private again(wait: number): void {
    clearTimeout(this.timer)
    this.timer = setTimeout(() => void this.goThrough(), wait)
  }

  /** Asks anew for what could not be had. */
  retry(): void {
    this.store.setState({ failed: false })
    this.again(0)
  }

  turn(kind: WordingKind, on: boolean): void {
    const next = { ...this.store.getState().on, [kind]: on }
    keep("wording", next)
    this.store.setState({ on: next })
    this.target.repaint()
  }

  private async goThrough(): Promise<void> {
    const round = ++this.round
    const editor = this.target.editor()
    if (!editor) return
    const { styles } = documentAttrs(editor.doc)
    const { nodes } = leavesOf(editor.doc)
    const unknown = nodes.filter((leaf) => this.known.get(leaf)?.styles !== styles)
    this.store.setState({ looked: unknown.length === 0 ? 1 : 0 })
    for (let at = 0; at < unknown.length;) {
      const first = at
      const passages: (Passage | null)[] = []
      for (let size = 0; at < unknown.length && size < batch; at++) {
        const passage = passageOf(styles, unknown[at] as Node)
        passages.push(passage)
        size += passage?.text.length ?? 100
      }
      const asked = passages.filter((passage) => passage !== null)
      const answers = asked.length === 0 ? [] : await this.asking.ask({ passages: asked })
      if (answers === null) return this.store.setState({ failed: round === this.round })
      let answer = 0
      passages.forEach((passage, i) => {
        const leaf = unknown[first + i] as Node
        const said = passage ? (answers[answer++] ?? []) : []
        this.known.set(leaf, { styles, remarks: remarksOn(styles, leaf, said) })
      })
      // What was said holds whatever has changed meanwhile.
      if (round !== this.round) return
      this.store.setState({ looked: at / unknown.length, failed: false })
      this.target.repaint()
    }
  }

  private in(doc: Node, leaf: number): PlacedRemark[] {
    const leaves = leavesOf(doc)
    const node = leaves.find(leaf)
    const known = node && this.known.get(node)
    if (!node || !known || known.remarks.length === 0) return []
    const text = textOf(node)
    const { on } = this.store.getState()
    const { left } = documentAttrs(doc).checks
    const start = leaves.start(leaf)
    return known.remarks
      .map((remark) => ({
        start: start + remark.from,
        end: start + remark.to,
        words: text.slice(remark.from, remark.to),
        ...remark,
      }))
      .filter(({ kind, words }) => on[kind] && !Object.hasOwn(left, remarkName(kind, words)))
  }

  /** All that is said of a document, in its order. */
  remarks(doc: Node): PlacedRemark[] {
    return leavesOf(doc).nodes.flatMap((_leaf, n) => this.in(doc, n))
  }

  /** The marks of a leaf in sight, as long as somebody looks at what is said. */
  marks(leaf: number): Mark[] {
    const editor = this.watched ? this.target.editor() : null
    if (!editor) return []
    return this.in(editor.doc, leaf).map(({ from, to }) => ({ from, to, kind: "worded" }))
  }

  /** The remark at a position; null where there is none, or nobody looks. */
  at(pos: number): PlacedRemark | null {
    const editor = this.watched ? this.target.editor() : null
    if (!editor) return null
    const found = this.in(editor.doc, leavesOf(editor.doc).at(pos)).filter(
      ({ start, end }) => start <= pos && pos <= end,
    )
    // The shortest is meant: others reach over it.
    return found.sort((a, b) => a.end - a.start - (b.end - b.start))[0] ?? null
  }
}
