/** One open document: its editor state, layout, connection and view, and everything that changes them. */
import type { Node } from "prosemirror-model"
import { EditorState, TextSelection, type Transaction } from "prosemirror-state"
import { bodyOf, directSpans, document, documentAttrs, leavesOf, type TrailEntry } from "@biblon/core/document"
import { documentEdge, editHistory, changes, correct, dragSelection, insertText, joining, linkAt, lostBetween, markPlace, placeOfLink, selectedText, undo, moveHorizontally, removeFormatHere, removeLetters, heldInPart, settleStories, touchedBy, toggleDone, type Command } from "@biblon/core/editing"
import { wordsIn } from "@biblon/core/checking"
import type { Box } from "@biblon/core/layout"
import { api, NotThere } from "../api"
import { earlyWorker } from "../live/early"
import { asideOf, asidesIn, asidesOf, joinedAside, keepAside, type Aside } from "../live/aside"
import { dropRecord } from "../live/pending"
import { Connection } from "../live/connection"
import { openDocument } from "../live/opening"
import { stepJson } from "../live/stepJson"
import { LayoutClient } from "../workers/layoutClient"
import { makePdf } from "../workers/pdf"
import { besideCharacter, besideLine, besidePage, caretX, lineEdge, reachesPage, runsBackwards, type Motion } from "./input/movement"
import { TextField } from "./input/field"
import { PointerInput } from "./input/pointer"
import { WaitingKeys } from "./input/waiting"
import { attachReading } from "./input/reading"
import { keyAction } from "../commands/keys"
import { toolNamed } from "../commands/registry"
import { Clipboard, transferred } from "./input/clipboard"
import { useCorrections } from "./corrections"
import { Finder } from "./finder"
import { LookLaying } from "./laying"
import { createDeskStore, type DeskState, type DeskStore, type TrayId } from "./store"
import { Trial } from "./trial"
import { declareFace } from "../ui/fontFaces"
import { EagerTypesetter } from "./view/eager"
import { SheetView, type Mark, type Place } from "./view/sheetView"
import { attachZooming } from "./view/zooming"
import { firstView, Viewing } from "./viewing"

/** Stands in until the document is here. */
const blank = EditorState.create({ doc: document([]) })

/** Positions from which on a change counts as long. */
const longChange = 20_000
/** Milliseconds after which bars and trays are shown what changed, if no frame came. */
const unseenDelay = 200

/** Whether a change is one of the whole document's look. */
function reachesAll(before: Node, after: Node): boolean {
  const [a, b] = [documentAttrs(before), documentAttrs(after)]
  return a.styles !== b.styles || a.typesetting !== b.typesetting
}

export class DeskSession {
  readonly store: DeskStore
  /** The state of the document now; the store shows it a frame later. */
  private state: EditorState | null = null
  private readonly eager = new EagerTypesetter()
  private unshown: Partial<DeskState> = {}
  private readonly layout: LayoutClient
  private connection: Connection | null = null
  private view: SheetView | null = null
  private field: TextField | null = null
  private pointer: PointerInput | null = null
  private bias: -1 | 1 = 1
  /** x that movement up and down holds on to, in points. */
  private goalX: number | null = null
  private composing: { from: number; to: number } | null = null
  private endSession: () => void = () => {}
  private closed = false
  private stopPdf: AbortController | null = null

  constructor(readonly id: string) {
    this.store = createDeskStore(firstView())
    this.viewing = new Viewing(id, this.store, {
      view: () => this.view,
      sheet: () => (this.state ?? blank).doc.attrs.setup as { width: number; height: number },
      setSpec: (spec) => this.layout.setSpec(spec),
      hasLayout: () => this.layout.mirror.count > 0,
      keepCaretSeen: () => {
        if (this.state && this.caretSeen) this.view?.reveal(this.head)
      },
      blur: () => this.blur(),
    })
    this.layout = new LayoutClient(
      earlyWorker(this.id),
      () => this.onReport(),
      (message) => this.store.setState({ trouble: `The sheets could not be laid out: ${message}. What you wrote is safe; reload the page.` }),
    )
    void this.open()
  }

  private get editor(): EditorState {
    if (!this.state) throw new Error("The document is not open yet")
    return this.state
  }

  /**
   * Shows the bars and trays what changed, once the frame with the sheets is through: a letter that was
   * typed is on the sheet before any button hears of it.
   */
  private show(change: Partial<DeskState>): void {
    const first = Object.keys(this.unshown).length === 0
    Object.assign(this.unshown, change)
    if (!first) return
    const frame = requestAnimationFrame(() => setTimeout(act))
    // A tab out of sight gets no frames.
    const timer = setTimeout(() => act(), unseenDelay)
    const act = () => {
      cancelAnimationFrame(frame)
      clearTimeout(timer)
      const change = this.unshown
      this.unshown = {}
      if (Object.keys(change).length > 0) this.store.setState(change)
    }
  }

  private async open(): Promise<void> {
    const ended = new Promise<void>((resolve) => (this.endSession = resolve))
    let wait = 500
    for (;;) {
      try {
        const opened = await openDocument(this.id, [editHistory()], ended, ({ content, early }) => this.layout.open(content, early, this.viewing.currentSpec))
        if (this.closed) return
        this.state = opened.editor
        this.declareFonts()
        this.store.setState(({ aside }) => ({ editor: opened.editor, phase: { kind: "open" }, aside: asidesIn(aside, opened.aside) }))
        void asidesOf(this.id).then((kept) => this.store.setState(({ aside }) => ({ aside: asidesIn(kept, aside) })))
        this.connection = new Connection({
          id: this.id,
          client: opened.client,
          stamp: opened.stamp,
          state: () => this.editor,
          receive: (tr) => this.apply(tr),
          onSaving: (saving) => this.show({ saving }),
          onName: (name) => this.store.setState({ name }),
          onAside: (aside) => void this.setAside(aside),
          onUnfit: (reason) => void this.reopen(reason, opened.client),
        })
        if (opened.steps.length > 0) this.layout.change(opened.steps)
        // What was written here lies in IndexedDB under the name that this tab has taken over.
        this.connection.changed()
        this.field?.sync()
        this.beginWriting()
        return
      } catch (error) {
        if (this.closed) return
        if (error instanceof NotThere) return this.store.setState({ phase: { kind: "missing" }, aside: await asidesOf(this.id) })
        if (!this.state) this.store.setState({ phase: { kind: "waiting", message: "The server cannot be reached. Biblon tries again by itself." } })
        await new Promise((resolve) => setTimeout(resolve, wait))
        wait = Math.min(4000, wait * 1.5)
      }
    }
  }

  /** The copy that is here is none of the server's history: it is fetched anew, and what only this one had is set aside. */
  private async reopen(reason: string, client: string): Promise<void> {
    const before = this.editor.doc
    // The name is held until then, so that no other tab takes up what is being set aside.
    const endBefore = this.endSession
    this.connection = null
    this.trial.end()
    await this.open()
    const lost = this.state && this.store.getState().phase.kind === "open" ? lostBetween(before, this.state.doc) : null
    if (lost && lost.size > 0) await this.setAside(asideOf(this.id, "unfit", reason, lost))
    await dropRecord(client).catch(() => undefined)
    endBefore()
  }

  private async setAside(aside: Aside): Promise<void> {
    const { aside: before } = this.store.getState()
    const joined = joinedAside(before.at(-1), aside)
    this.store.setState({ aside: joined ? [...before.slice(0, -1), joined] : [...before, aside] })
    if (!(await keepAside(joined ?? aside))) this.store.setState({ trouble: "This device does not keep what was set aside: do not close the page before you have put it in again or copied it." })
  }

  close(): void {
    this.closed = true
    this.connection?.close()
    this.finder.close()
    this.clipboard.close()
    this.layout.close()
    this.detach()
    this.endSession()
  }

  // ---- changes

  private apply(tr: Transaction): void {
    this.trial.end()
    const before = this.editor.doc
    const { state, transactions } = this.editor.applyTransaction(tr)
    const steps = transactions.flatMap((t) => t.steps)
    this.field?.map(tr)
    if (this.composing) this.composing = { from: tr.mapping.map(this.composing.from, -1), to: tr.mapping.map(this.composing.to) }
    this.state = state
    if (documentAttrs(state.doc).styles.fonts !== documentAttrs(before).styles.fonts) this.declareFonts()
    if (steps.length > 0) {
      if (reachesAll(before, state.doc)) this.view?.hold()
      const ahead = this.layout.current ? this.eager.set(before, state.doc, this.layout.mirror, this.store.getState().mode === "flow") : null
      this.layout.change(steps.map(stepJson))
      if (ahead) {
        this.layout.anticipate(ahead.leaf, ahead.paragraph)
        this.view?.refresh()
      }
      this.showBusy()
    }
    this.field?.sync()
    this.previewed = []
    this.finder.changed(steps.length > 0, tr.mapping)
    if (steps.length > 0) this.clipboard.changed(tr.mapping)
    if (steps.length === 0) this.view?.paintSelection()
    this.show({ editor: state })
  }

  /** Makes the page know the faces that the document brings along. */
  private declareFonts(): void {
    for (const family of Object.values(documentAttrs(this.editor.doc).styles.fonts)) for (const asset of Object.values(family)) declareFace(`own-${asset}`)
  }

  /** The document now. */
  get now(): EditorState | null {
    return this.state
  }

  dispatch = (tr: Transaction): void => {
    this.bias = 1
    this.goalX = null
    this.apply(settleStories(tr))
    // A long change is handed on in a task of its own, so that none takes the page for long.
    if (tr.docChanged && Math.abs(tr.doc.content.size - tr.before.content.size) > longChange) setTimeout(() => this.connection?.changed())
    else if (tr.docChanged) this.connection?.changed()
    if (tr.scrolledIntoView) this.view?.reveal(this.head)
  }

  /** Runs a command; returns whether it applied. */
  run = (command: Command): boolean => {
    return this.state !== null && command(this.state, this.dispatch)
  }

  private get head(): Place {
    return { pos: this.editor.selection.head, bias: this.bias }
  }

  private select(anchor: number, head: Place): void {
    const { selection, doc } = this.editor
    if (selection.anchor === anchor && selection.head === head.pos && this.bias === head.bias) return
    this.bias = head.bias
    if (selection.anchor !== anchor || selection.head !== head.pos) this.apply(this.editor.tr.setSelection(TextSelection.create(doc, anchor, heldInPart(doc, anchor, head.pos))))
    else this.view?.paintSelection()
  }

  /** Says to assistive technology whether the sheets are behind what was typed. */
  private showBusy(): void {
    this.view?.host.setAttribute("aria-busy", String(!this.layout.current || this.waiting.any || this.view?.lacking === true))
  }

  // ---- movement

  /** Moves the caret, or with `extend` the end of the selection. Fetches the caret's sheet first if it is out of reach. */
  move(motion: Motion, extend: boolean): void {
    const { view } = this
    if (!view) return
    const needsSheet = motion !== "documentStart" && motion !== "documentEnd" && motion !== "left" && motion !== "right" && motion !== "wordLeft" && motion !== "wordRight"
    if (needsSheet && !view.holds(this.head)) {
      this.waiting.again(() => this.move(motion, extend))
      return view.reveal(this.head)
    }
    if ((motion === "pageUp" || motion === "pageDown") && !reachesPage(view, this.head, motion === "pageUp" ? -1 : 1)) {
      return this.waiting.again(() => this.move(motion, extend))
    }
    const goal = motion === "up" || motion === "down" || motion === "pageUp" || motion === "pageDown" ? (this.goalX ?? caretX(view, this.head)) : null
    const target = this.target(motion, extend, view, goal)
    if (target) {
      this.select(extend ? this.editor.selection.anchor : target.pos, target)
      view.reveal(target)
    }
    this.goalX = goal
  }

  private target(motion: Motion, extend: boolean, view: SheetView, goal: number | null): Place | null {
    const { editor, head } = this
    const { selection } = editor
    const at = (pos: number): Place => ({ pos, bias: 1 })
    // Without shift, left and right first go to that end of the selection.
    if (!extend && !selection.empty && (motion === "left" || motion === "right")) return at(motion === "left" ? selection.from : selection.to)
    switch (motion) {
      case "left":
      case "right": {
        const direction = motion === "left" ? -1 : 1
        return besideCharacter(view, editor, head, direction) ?? at(moveHorizontally(editor, head.pos, direction, "character"))
      }
      case "wordLeft":
      case "wordRight": {
        const backwards = runsBackwards(view, head)
        return at(moveHorizontally(editor, head.pos, (motion === "wordLeft") === backwards ? 1 : -1, "word"))
      }
      case "up":
        return besideLine(view, this.layout.mirror, editor, head, -1, goal ?? 0) ?? (goal === null ? null : lineEdge(view, editor, head, -1))
      case "down":
        return besideLine(view, this.layout.mirror, editor, head, 1, goal ?? 0) ?? (goal === null ? null : lineEdge(view, editor, head, 1))
      case "lineStart":
        return lineEdge(view, editor, head, -1)
      case "lineEnd":
        return lineEdge(view, editor, head, 1)
      case "pageUp":
        return besidePage(view, head, -1)
      case "pageDown":
        return besidePage(view, head, 1)
      case "documentStart":
        return at(documentEdge(editor, -1))
      case "documentEnd":
        return at(documentEdge(editor, 1))
    }
  }

  private readonly waiting = new WaitingKeys(() => this.showBusy())

  /** What is typed until a promise is settled comes after what it leads to. */
  holdKeys<T>(promise: Promise<T>): Promise<T> {
    return this.waiting.hold(promise)
  }

  /** Runs a command of typing, which joins what was typed just before, and corrects what came of it. */
  private type(command: Command, joins?: "typed" | "composed"): void {
    const typing: Command = (state, dispatch) => command(state, dispatch && ((tr) => dispatch(joins ? joining(tr, joins) : tr)))
    if (this.run(typing) && joins === "typed") this.correctTyped()
  }

  private onKey(event: KeyboardEvent): void {
    const { key, ctrlKey, metaKey } = event
    // Tab belongs to the text; Escape leads out of it, so that the next Tab goes on to the bars.
    if (key === "Escape") {
      if (this.store.getState().laying) this.laying.putDown()
      else this.view?.host.focus()
      return
    }
    let act = keyAction(event)
    if (!act && this.waiting.any && key.length === 1 && !ctrlKey && !metaKey) act = () => this.type(insertText(key), "typed")
    if (!act) return
    event.preventDefault()
    if (this.waiting.any) this.waiting.push(() => act(this))
    else act(this)
  }

  // ---- the view

  /** Hangs the sheets into an element of the page. */
  attach(host: HTMLElement): () => void {
    const view = (this.view = new SheetView(
      host,
      { layout: this.layout, editor: () => this.editor, bias: () => this.bias, composing: () => this.composing, marks: (leaf) => this.marks(leaf) },
      this.viewing.stackOptions(host),
      (summary) => {
        this.show({ view: summary })
        this.showBusy()
        this.placeField(summary.caret)
        const { caret } = summary
        this.caretSeen = caret !== null && caret.y + caret.height > host.scrollTop && caret.y < host.scrollTop + this.seenHeight
        const { writing } = this.store.getState()
        this.pointer?.placeHandles(summary.selection, this.editor.selection.empty, writing)
      },
    ))
    const field = (this.field = new TextField({
      editor: () => this.state ?? blank,
      run: (command, joins) => this.type(command, joins),
      composing: (range) => {
        this.composing = range
        this.view?.paintSelection()
      },
      deleteBack: (command) => this.deleteBack(command),
      undo: () => toolNamed("undo").run(this),
      redo: () => toolNamed("redo").run(this),
    }))
    view.canvas.append(field.element)
    this.store.setState({ canvas: view.canvas })
    this.clipboard.attach(field.element)
    field.element.addEventListener("keydown", (event) => {
      if (!field.composing && !event.isComposing) this.onKey(event)
    })
    field.element.addEventListener("focus", () => this.setWriting(true))
    field.element.addEventListener("blur", () => this.setWriting(false))
    this.pointer = new PointerInput(view, {
      editor: () => this.editor,
      drop: (place, copies) => void this.run(dragSelection(place.pos, copies)),
      dropCaret: (place) => this.view?.showDropCaret(place),
      reading: () => this.store.getState().mode === "reading",
      tick: (x, y) => {
        const leaf = view.checkAt(x, y)
        return leaf !== null && this.run(toggleDone(leaf))
      },
      selected: () => this.laying.selected(),
      follow: () => {
        const link = this.state && linkAt(this.state)
        if (link) this.openLink(link.href)
        return link !== null
      },
      select: (anchor, head) => {
        this.setLinking(false)
        this.goalX = null
        this.select(anchor, head)
      },
      focus: () => this.focus(),
    })
    host.addEventListener("pointerdown", (event) => this.store.setState({ touch: event.pointerType !== "mouse" }), true)
    host.addEventListener("dragover", (event) => {
      event.preventDefault()
      view.showDropCaret(view.atClient(event.clientX, event.clientY))
    })
    host.addEventListener("dragleave", () => view.showDropCaret(null))
    host.addEventListener("drop", (event) => {
      event.preventDefault()
      view.showDropCaret(null)
      const place = view.atClient(event.clientX, event.clientY)
      if (!place) return
      this.focus()
      this.select(place.pos, place)
      void this.clipboard.paste(transferred(event.dataTransfer))
    })
    attachReading(host, { reading: () => this.store.getState().mode === "reading", turn: (rows) => this.viewing.turn(rows), leave: () => this.viewing.leaveReading() })
    const endZooming = attachZooming(host, view.canvas, { zoomBy: (factor) => this.viewing.zoom(this.store.getState().scale * factor) })
    const arrange = () => {
      this.viewing.arrange()
      this.seenHeight = host.clientHeight
    }
    const resize = new ResizeObserver(arrange)
    resize.observe(host)
    arrange()
    if (this.layout.mirror.count > 0) {
      view.refresh()
      view.reveal(this.head)
    }
    if (this.store.getState().mode === "reading") host.focus()
    this.beginWriting()
    return () => {
      resize.disconnect()
      endZooming()
      this.detach()
    }
  }

  private detach(): void {
    this.view?.destroy()
    this.store.setState({ canvas: null })
    this.view = this.field = this.pointer = null
  }

  private setWriting(writing: boolean): void {
    this.store.setState({ writing })
    this.view?.host.classList.toggle("writing", writing)
    if (this.state) this.view?.paintSelection()
  }

  /** Lays steps out that are no part of the document. */
  private tryOut(steps: unknown[]): void {
    this.view?.hold()
    this.layout.change(steps)
  }

  /** Once text and view are here, one can type: at once where there are keys, on a touch screen only in what is still blank. */
  private beginWriting(): void {
    if (!this.state || !this.field || globalThis.document.activeElement !== globalThis.document.body) return
    const { childCount, content } = bodyOf(this.state.doc)
    const blank = childCount === 1 && content.firstChild?.content.size === 0
    if (blank || matchMedia("(pointer: fine)").matches) this.focus()
  }

  focus(): void {
    if (!this.field || this.store.getState().mode === "reading") return
    // With a tray open on a touch screen the keyboard would cover it: the text keeps the caret without one.
    const { tray, touch } = this.store.getState()
    this.field.element.inputMode = touch && tray !== null ? "none" : "text"
    this.field.focus()
  }

  blur(): void {
    this.field?.element.blur()
  }

  private placeField(caret: Box | null): void {
    if (caret && this.field) this.field.element.style.transform = `translate(${caret.x}px, ${caret.y}px)`
  }

  /** Whether the caret was in sight, in the room that there was: it then stays so when a tray takes some of it. */
  private caretSeen = false
  private seenHeight = 0

  /** How the sheets are looked at. */
  readonly viewing: Viewing
  readonly trial = new Trial({ editor: () => this.state, layOut: (steps) => this.tryOut(steps) })
  readonly laying = new LookLaying(this)
  readonly clipboard = new Clipboard(this)
  readonly finder = new Finder({
    editor: () => this.state,
    select: (from, to) => {
      this.select(from, to)
      this.view?.reveal(to)
    },
    run: (command) => this.run(command),
    repaint: () => {
      if (this.state) this.view?.paintSelection()
    },
  })
  private previewed: { from: number; to: number }[] = []

  /** Marks in the text what a change of the undo list touched; null for none. */
  preview(change: number | null): void {
    this.previewed = change === null || !this.state ? [] : touchedBy(this.state, change)
    if (this.state) this.view?.paintSelection()
  }

  private marks(leaf: number): Mark[] {
    const marks = this.finder.marks(leaf)
    if (this.previewed.length === 0 || !this.state) return marks
    const start = leavesOf(this.state.doc).start(leaf)
    const end = start + leavesOf(this.state.doc).node(leaf).content.size
    const touched = this.previewed.filter(({ from, to }) => from <= end && to >= start)
    return [...marks, ...touched.map(({ from, to }) => ({ from: Math.max(0, from - start), to: Math.min(end, to) - start, kind: "touched" }))]
  }

  /** Opens the search, or brings one back to it, for what is selected. */
  find(): void {
    this.store.setState((state) => ({ tray: "find", findAsked: state.findAsked + 1 }))
  }

  /** Corrects what was just typed; Backspace straight after it takes that back. */
  private correctTyped(): void {
    if (this.run(correct(useCorrections.getState().settings)) && this.state) this.corrected = { change: changes(this.state).done[0]?.id ?? -1, head: this.state.selection.head }
  }
  /** The last correction, and where the caret was after it. */
  private corrected: { change: number; head: number } | null = null

  /** Backspace: the last correction if it was just made, else what is before the caret. */
  deleteBack(command: Command): void {
    const { state, corrected } = this
    const still = state && corrected && state.selection.empty && state.selection.head === corrected.head && changes(state).done[0]?.id === corrected.change
    this.corrected = null
    this.run(still ? undo : command)
  }

  /** Marks the selection as a place, under its own words. */
  markPlace(): void {
    const words = this.state ? selectedText(this.state).trim().slice(0, 60) : ""
    const text = words || (this.state?.selection.$from.parent.textContent.trim().slice(0, 60) ?? "")
    if (!this.run(markPlace(text.split("\n")[0] ?? ""))) this.store.setState({ trouble: "There is a place of that name already, or no text to mark." })
  }

  nameDocument(): void {
    this.store.setState({ naming: true })
  }

  /** Says how long the text is, or what is selected of it. */
  tellCount(): void {
    if (!this.state) return
    const { doc, selection } = this.state
    const words = wordsIn(doc)
    const selected = selection.empty ? "" : `; selected: ${wordsIn(doc, selection.from, selection.to)}`
    const letters = leavesOf(doc).nodes.reduce((sum, leaf) => sum + leaf.textContent.length, 0)
    this.store.setState({ trouble: `Words: ${words}${selected}. Characters: ${letters}. Paragraphs: ${leavesOf(doc).count}.` })
  }

  setLinking(linking: boolean): void {
    if (this.store.getState().linking !== linking) this.store.setState({ linking })
  }

  /** Goes to a leaf: the caret to its start, its line near the top. */
  goTo(leaf: number): void {
    if (!this.state) return
    const pos = leavesOf(this.state.doc).start(leaf)
    this.select(pos, { pos, bias: 1 })
    this.view?.reveal({ pos, bias: 1 }, 80)
  }

  /** Selects a stretch of the document and brings it into sight. */
  selectRange(from: number, to: number): void {
    this.select(from, { pos: to, bias: -1 })
    this.view?.reveal({ pos: to, bias: -1 })
    this.focus()
  }

  /** Takes what was set by hand off the letters that are selected, or off the stretch at the caret that has it; or off the paragraph. */
  removeDirect(subject: TrailEntry): void {
    if (!this.state) return
    const { $from, from, to, empty } = this.state.selection
    if (subject.of === "paragraph") return void this.run(removeFormatHere(subject.property))
    const at = $from.parentOffset
    const span = directSpans($from.parent).find((own) => own.property === subject.property && own.from <= at && own.to >= at)
    const [a, b] = !empty ? [from, to] : span ? [$from.start() + span.from, $from.start() + span.to] : [from, to]
    this.run(removeLetters(subject.property, a, b))
  }

  /** Runs a tool of the registry by its name. */
  runTool(id: string): void {
    toolNamed(id).run(this)
  }

  /** Follows a link: to its place in the document, or in another tab. */
  openLink(href: string): void {
    if (!this.state) return
    const place = placeOfLink(this.state.doc, href)
    if (place !== null) {
      this.select(place, { pos: place, bias: 1 })
      this.view?.reveal({ pos: place, bias: 1 }, 80)
    } else if (/^(https?|mailto):/i.test(href)) window.open(href, "_blank", "noopener,noreferrer")
  }

  findTool(open: boolean): void {
    this.store.setState({ findingTool: open })
  }

  /** Opens a tray, at one of its pages, or with null puts the open one away. */
  openTray(tray: TrayId | null, page?: string): void {
    this.trial.end()
    this.store.setState(({ pages, scope }) => ({ tray, scope: tray === null ? null : scope, ...(tray && page ? { pages: { ...pages, [tray]: page } } : {}) }))
    const { writing } = this.store.getState()
    if (writing) this.focus()
  }

  private warmed = false

  private onReport(): void {
    this.view?.refresh()
    if (!this.warmed && this.layout.mirror.count > 0) {
      this.warmed = true
      // Without it every letter waits for the worker, which is no harm.
      requestIdleCallback(() => void this.eager.warm(this.layout.mirror).catch(() => undefined))
    }
    this.waiting.release()
  }

  // ---- the document as a whole

  /** The save shortcut: everything is saved as it is typed, so this only draws attention to the state. */
  confirmSaved(): void {
    this.store.setState((state) => ({ confirmed: state.confirmed + 1 }))
  }

  async rename(name: string | null): Promise<void> {
    const before = this.store.getState().name
    this.store.setState({ name })
    try {
      await api.rename(this.id, name)
    } catch (error) {
      this.store.setState({ name: before, trouble: `The name could not be changed: ${(error as Error).message}` })
    }
  }

  /** The finished document as a PDF file; null if it was stopped or failed. */
  async pdf(): Promise<Blob | null> {
    const stop = (this.stopPdf = new AbortController())
    this.store.setState({ delivering: { stage: "layout", done: 0, of: 0 } })
    try {
      const content = JSON.stringify(this.editor.doc.toJSON())
      return await makePdf({ content, name: this.store.getState().name ?? "" }, (delivering) => this.store.setState({ delivering }), stop.signal)
    } catch (error) {
      if (!(error instanceof DOMException)) this.store.setState({ trouble: `The PDF could not be made: ${(error as Error).message}. The document is not affected.` })
      return null
    } finally {
      this.store.setState({ delivering: null })
    }
  }

  stopDelivering(): void {
    this.stopPdf?.abort()
  }
}
