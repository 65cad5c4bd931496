/**
 * The text field at the caret. It holds the text around the caret, so that input methods, dictation,
 * predictive keyboards and screen readers have something to work with; what they change in it becomes
 * an edit of the document.
 */
import { commonEnd, commonStart, textOf } from "@biblon/core/document"
import { backspace, deleteForward, enter, insertText, type Command } from "@biblon/core/editing"
import type { EditorState, Transaction } from "prosemirror-state"

export interface FieldTarget {
  editor(): EditorState
  run(command: Command, joins?: "typed" | "composed"): void
  composing(range: { from: number; to: number } | null): void
  /** Backspace where the field has nothing left to delete. */
  deleteBack(command: Command): void
  undo(): void
  redo(): void
}

/** A sign before and after the text, so that deleting at the edge of a paragraph is seen. */
const edge = "\n"
/** Stands for a selection over several paragraphs. */
const manyParagraphs = "\u2026"
/** A long paragraph is shown in part. */
const reach = 2000

interface Window {
  value: string
  selectionStart: number
  selectionEnd: number
  /** Position in the document of the first character behind the edge. */
  start: number
  /** Set for a selection over several paragraphs: its end. */
  end: number | null
}

function windowOf({ selection }: EditorState): Window {
  const { $from, $to, from, to } = selection
  if (!$from.sameParent($to))
    return { value: edge + manyParagraphs + edge, selectionStart: 1, selectionEnd: 2, start: from, end: to }
  const text = textOf($from.parent)
  const cut = Math.max(0, $from.parentOffset - reach)
  const value = edge + text.slice(cut, $to.parentOffset + reach) + edge
  const start = $from.start() + cut
  return { value, selectionStart: 1 + from - start, selectionEnd: 1 + to - start, start, end: null }
}

export class TextField {
  readonly element = document.createElement("textarea")
  private window: Window = { value: "", selectionStart: 0, selectionEnd: 0, start: 0, end: null }
  private isComposing = false
  private composedFrom = 0

  constructor(private readonly target: FieldTarget) {
    const { element } = this
    element.className = "field"
    element.setAttribute("aria-label", "Text of the document")
    element.setAttribute("autocapitalize", "sentences")
    element.autocomplete = "off"
    element.spellcheck = false
    element.addEventListener("input", this.onInput)
    element.addEventListener("beforeinput", this.onBeforeInput)
    element.addEventListener("compositionstart", this.onCompositionStart)
    element.addEventListener("compositionend", this.onCompositionEnd)
    this.sync()
  }

  get composing(): boolean {
    return this.isComposing
  }

  /** Brings the field's text and selection in line with the editor. Never during composition: that would end it. */
  sync(): void {
    if (this.isComposing) return
    this.window = windowOf(this.target.editor())
    const { value, selectionStart, selectionEnd } = this.window
    if (this.element.value !== value) this.element.value = value
    if (this.element.selectionStart !== selectionStart || this.element.selectionEnd !== selectionEnd)
      this.element.setSelectionRange(selectionStart, selectionEnd)
  }

  /** Keeps the window in its place when the document changes under a composition. */
  map(tr: Transaction): void {
    if (this.isComposing)
      this.window = {
        ...this.window,
        start: tr.mapping.map(this.window.start, -1),
        end: this.window.end === null ? null : tr.mapping.map(this.window.end),
      }
  }

  private readonly onBeforeInput = (event: InputEvent): void => {
    switch (event.inputType) {
      case "insertParagraph":
      case "insertLineBreak":
        event.preventDefault()
        return this.target.run(enter)
      case "historyUndo":
        event.preventDefault()
        return this.target.undo()
      case "historyRedo":
        event.preventDefault()
        return this.target.redo()
    }
  }

  private readonly onCompositionStart = (): void => {
    this.isComposing = true
    this.composedFrom = this.target.editor().selection.from
  }

  private readonly onCompositionEnd = (): void => {
    this.readChange()
    this.isComposing = false
    this.target.composing(null)
    this.sync()
  }

  private readonly onInput = (): void => {
    this.readChange()
    if (this.isComposing) this.target.composing({ from: this.composedFrom, to: this.target.editor().selection.head })
    else this.sync()
  }

  /** Finds what differs between the field and what it was given, and makes an edit of it. */
  private readChange(): void {
    const { element, window } = this
    const before = window.value
    const after = element.value
    if (after === before) return
    // What stands behind the caret is as before, unless a correction reached beyond it.
    let tail = after.length - element.selectionEnd
    if (tail > before.length || before.slice(before.length - tail) !== after.slice(after.length - tail))
      tail = commonEnd(before, after)
    const head = Math.min(commonStart(before, after), before.length - tail, after.length - tail)
    const removedTo = before.length - tail
    const inserted = after.slice(head, after.length - tail)

    if (window.end === null && inserted === "" && head === 0) this.target.deleteBack(backspace)
    else if (window.end === null && inserted === "" && removedTo === before.length) this.target.run(deleteForward)
    else {
      const position = (at: number) =>
        window.end === null
          ? window.start + Math.max(0, Math.min(at - 1, before.length - 2))
          : at <= 1
            ? window.start
            : window.end
      const text = inserted.replaceAll(edge, "")
      this.target.run(insertText(text, position(head), position(removedTo)), this.isComposing ? "composed" : "typed")
    }
    if (!this.isComposing) return
    // The window now shows what the input method made of it.
    const { $head } = this.target.editor().selection
    this.window = {
      value: after,
      selectionStart: element.selectionStart,
      selectionEnd: element.selectionEnd,
      start: window.end === null ? window.start : $head.start(),
      end: null,
    }
    if (window.end !== null) this.window.start = this.target.editor().selection.head - (element.selectionEnd - 1)
  }

  focus(): void {
    this.element.focus({ preventScroll: true })
    this.sync()
  }
}
