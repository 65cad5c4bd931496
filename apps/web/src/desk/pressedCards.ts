/** The cards that a press on the sheets opens: of words, of what was said of them, of fields, and of where something begins. */
import { commentsAt, leavesOf } from "@biblon/core/document"
import type { Editing } from "./editing"
import { isBreakAt } from "./pressing"
import type { WrongWord } from "./spelling"
import type { DeskStore, SaidKind } from "./store"
import type { SeenText } from "./view/seenText"
import type { SheetView } from "./view/sheetView"
import type { PlacedRemark } from "./wording"

export interface PressedCardsTarget {
  seen: SeenText
  /** The word that looks wrong at a position. */
  wrongWord(pos: number): WrongWord | null
  /** What is said of the wording there. */
  remark(pos: number): PlacedRemark | null
}

export class PressedCards {
  constructor(
    private readonly editing: Editing,
    private readonly store: DeskStore,
    private readonly view: () => SheetView | null,
    private readonly target: PressedCardsTarget,
  ) {}

  /** A press on the text at a point of the window, after which the caret stands there or something is selected. */
  text(clientX: number, clientY: number): void {
    const { doc, selection } = this.editing.open
    const view = this.view()
    if (!selection.empty || !view) return
    const field = view.spots.fieldAt(...view.onCanvas(clientX, clientY))
    if (!field) {
      // Of marks a tap before this one has told.
      if (this.store.getState().touch) return this.comments(selection.head)
      return this.word(selection.head)
    }
    const { pos, sheet, box } = field
    if (leavesOf(doc).flow(leavesOf(doc).at(pos)).story !== null) view.places.writeOn(sheet)
    this.store.setState({ pressed: { kind: "field", pos, words: view.places.shownAt(pos) ?? "", box } })
  }

  /**
   * A tap on a mark shows its card, and leaves caret and keyboard as they are; a second one means the text. Beside a card that was
   * shown so, it puts that away. Returns false if the tap means the text, as it always does while a look is laid on what is tapped.
   */
  tap(clientX: number, clientY: number): boolean {
    const view = this.view()
    const { pressed, writing, laying } = this.store.getState()
    if (laying) return false
    const place = view?.pressed(clientX, clientY)
    const said = place ? this.saidAt(place.pos) : null
    const told = said !== null && pressed?.kind === said.kind && pressed.pos === said.start
    this.store.setState({ pressed: null })
    if (said && !told && view?.covers(said.start, said.end, clientX, clientY)) {
      this.show(said.kind, said.start, said.words)
      return true
    }
    return pressed !== null && !told && !writing
  }

  /** The word that looks wrong at a position, or of which something is said. */
  private saidAt(pos: number): { kind: SaidKind; start: number; end: number; words: string } | null {
    const wrong = this.target.wrongWord(pos)
    if (wrong) return { kind: "word", words: wrong.word, ...wrong }
    const remark = this.target.remark(pos)
    return remark && { ...remark, kind: "remark" }
  }

  /** A press in a word that looks wrong, or of which something is said, by people too. */
  private word(pos: number): void {
    const said = this.saidAt(pos)
    if (said) return this.show(said.kind, said.start, said.words)
    this.comments(pos)
  }

  wrongWord({ start, word }: WrongWord): void {
    this.show("word", start, word)
  }

  /** What was said of the words at a position, if something was. */
  comments(pos: number): void {
    const said = commentsAt(this.editing.open.doc, pos)
    if (said.length > 0) this.show("comment", pos, said.map(({ text }) => text).join("\n"))
  }

  /** The sign of a place where something begins, if by now it still does. */
  break(sign: HTMLElement): void {
    const canvas = this.view()?.canvas.getBoundingClientRect()
    const pos = this.target.seen.beginning(Number(sign.dataset.pos))
    if (!canvas || !isBreakAt(this.editing.open.doc, pos)) return
    const own = sign.getBoundingClientRect()
    const box = { x: own.left - canvas.left, y: own.top - canvas.top, width: own.width, height: own.height }
    this.store.setState({ pressed: { kind: "break", pos, words: sign.textContent, box } })
  }

  private show(kind: SaidKind, pos: number, words: string): void {
    const box = this.view()?.places.box({ pos, bias: 1 })
    if (box) this.store.setState({ pressed: { kind, pos, words, box } })
  }
}
