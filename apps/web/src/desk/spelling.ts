/** Spelling at the desk: which words are wrong, marked in sight at once and counted in slices behind the typing. */
import { createStore } from "zustand/vanilla"
import type { Node } from "prosemirror-model"
import type { EditorState } from "prosemirror-state"
import { documentAttrs, leavesOf } from "@biblon/core/document"
import { isAmong, type DictionaryName, type Word } from "@biblon/core/checking"
import { isSpellingOn, keep } from "../kept"
import { resting } from "../ui/resting"
import { inSlices } from "../ui/slices"
import { MetWords } from "./metWords"
import { ownWords } from "./ownWords"
import type { Mark, Place } from "./view/source"

/** A wrong word where it stands. */
export interface WrongWord extends Word {
  /** Positions in the document. */
  start: number
  end: number
}

export interface SpellingState {
  /** Whether words are marked while one writes. */
  on: boolean
  /** Wrong words, each with how often it stands in the document; null while they are being looked up. */
  found: ReadonlyMap<string, number> | null
  /** Dictionaries that could not be had. */
  missing: readonly DictionaryName[]
}

export interface SpellingTarget {
  editor(): EditorState | null
  select(from: number, to: Place): void
  repaint(): void
}

/** Milliseconds after a change before all is gone through again. */
const after = 400
/** In longer paragraphs words are found behind the typing only, in characters. */
const long = 20_000

const none: readonly never[] = []

/** Of the words of a paragraph that no dictionary has, those of which nobody has said that they are right. */
interface Wrong {
  words: readonly Word[]
  marks: readonly Mark[]
}
const nothing: Wrong = { words: none, marks: none }

export class Spelling {
  readonly store = createStore<SpellingState>(() => ({
    on: isSpellingOn(),
    found: null,
    missing: [],
  }))
  private readonly words = new MetWords({
    missing: (missing) => this.store.setState({ missing }),
    again: () => this.again(),
    met: () => this.target.repaint(),
    resting,
  })
  /** By what no dictionary has, for the words that were right then in the document and for oneself. */
  private readonly wrong = new WeakMap<readonly Word[], Wrong & { known: object; own: object }>()
  private timer: ReturnType<typeof setTimeout> | undefined
  private round = 0
  /** A word is not marked as long as it is being typed. */
  private typing = false
  private readonly stopHearing = ownWords.subscribe(() => this.again())

  constructor(private readonly target: SpellingTarget) {}

  close(): void {
    clearTimeout(this.timer)
    this.round++
    this.stopHearing()
    this.words.close()
  }

  turn(on: boolean): void {
    keep("spelling", on)
    this.store.setState({ on })
    this.again()
  }

  /** To be called when the document has changed, and before it is painted. @param here whether it was changed here */
  changed(here: boolean): void {
    this.again()
    if (here) this.typing = true
  }

  /** To be called when something else is selected, and before it is painted. */
  moved(): void {
    this.typing = false
  }

  /** Goes through all words again, a little later; not put off by what comes meanwhile, since others may write without a pause. */
  again(): void {
    if (!this.store.getState().on) {
      clearTimeout(this.timer)
      this.timer = undefined
      this.store.setState({ found: null })
      return this.target.repaint()
    }
    this.timer ??= setTimeout(() => {
      this.timer = undefined
      void this.goThrough()
    }, after)
  }

  /** Whether nobody has said that a word is right. */
  private isWrong(known: Readonly<Record<string, true>>, word: string): boolean {
    const here = { has: (own: string) => Object.hasOwn(known, own) }
    return !isAmong(ownWords.getState().words, word) && !isAmong(here, word)
  }

  private async goThrough(): Promise<void> {
    const round = ++this.round
    const wanted = () => round === this.round
    await resting()
    const editor = this.target.editor()
    if (!editor || !wanted()) return
    if ((await inSlices(this.words.meeting(editor.doc), wanted, resting)) === null) return
    await this.words.answered()
    if (!wanted()) return
    const unlisted = await inSlices(this.words.counting(editor.doc), wanted, resting)
    if (!unlisted) return
    const { known } = documentAttrs(editor.doc).checks
    this.store.setState({ found: new Map([...unlisted].filter(([word]) => this.isWrong(known, word))) })
    this.target.repaint()
  }

  /** @param typed offset at which a word is being typed; -1 for none */
  private wrongIn(doc: Node, node: Node, typed = -1): Wrong {
    const { styles, checks } = documentAttrs(doc)
    if (node.content.size > long && !this.words.isKnown(styles, node)) return nothing
    const unlisted = this.words.unlistedNow(styles, node, typed)
    if (unlisted.length === 0) return nothing
    const { words: own } = ownWords.getState()
    let wrong = this.wrong.get(unlisted)
    if (wrong?.known !== checks.known || wrong.own !== own) {
      const words = unlisted.filter(({ word }) => this.isWrong(checks.known, word))
      wrong = { known: checks.known, own, words, marks: words.map(({ from, to }) => ({ from, to, kind: "misspelt" })) }
      this.wrong.set(unlisted, wrong)
    }
    return wrong
  }

  /** The marks of a leaf in sight; the same ones for as long as nothing of them changes. */
  marks(leaf: number, node: Node): readonly Mark[] {
    const editor = this.target.editor()
    if (!editor || !this.store.getState().on) return none
    const { head, empty } = editor.selection
    const typed = this.typing && empty ? head - leavesOf(editor.doc).start(leaf) : -1
    const isTyped = ({ from, to }: Mark) => from <= typed && typed <= to
    const { marks } = this.wrongIn(editor.doc, node, typed)
    return marks.some(isTyped) ? marks.filter((own) => !isTyped(own)) : marks
  }

  /** The wrong word at a position; null where there is none. */
  at(pos: number): WrongWord | null {
    const editor = this.target.editor()
    if (!editor || !this.store.getState().on) return null
    const leaves = leavesOf(editor.doc)
    const leaf = leaves.at(pos)
    if (leaf >= leaves.count) return null
    const start = leaves.start(leaf)
    const found = this.wrongIn(editor.doc, leaves.node(leaf)).words.find(
      ({ from, to }) => start + from <= pos && pos <= start + to,
    )
    return found ? { start: start + found.from, end: start + found.to, ...found } : null
  }

  /** The wrong word with the caret, or the next one, which is gone to. */
  here(): WrongWord | null {
    const editor = this.target.editor()
    return editor && (this.at(editor.selection.head) ?? this.go(1))
  }

  /** All places of a word, or of all wrong words. */
  places(word: string | null): WrongWord[] {
    const editor = this.target.editor()
    if (!editor) return []
    const leaves = leavesOf(editor.doc)
    const { styles, checks } = documentAttrs(editor.doc)
    return leaves.nodes.flatMap((leaf, n) => {
      const wrong = this.words.unlisted(styles, leaf).filter((own) => this.isWrong(checks.known, own.word))
      const start = leaves.start(n)
      return wrong
        .filter((own) => word === null || own.word === word)
        .map((own) => ({ start: start + own.from, end: start + own.to, ...own }))
    })
  }

  /** Goes to the next wrong word from where one is, or the one before; round the end of the document. */
  go(direction: -1 | 1, word: string | null = null): WrongWord | null {
    const editor = this.target.editor()
    const places = this.places(word)
    if (!editor || places.length === 0) return null
    const { from, to } = editor.selection
    const next =
      direction > 0
        ? (places.find(({ start }) => start >= to && (start > from || to > from)) ?? places[0])
        : (places.findLast(({ end }) => end <= from) ?? places.at(-1))
    if (next) this.target.select(next.start, { pos: next.end, bias: -1 })
    return next ?? null
  }

  suggest({ dictionary, word }: Pick<Word, "dictionary" | "word">): Promise<string[]> {
    return this.words.suggest(dictionary, word)
  }
}
