/** One open document: puts the parts of a desk together and lets them know of one another. */
import { documentAttrs } from "@biblon/core/document"
import type { Command } from "@biblon/core/editing"
import type { EditorState } from "prosemirror-state"
import { endSight } from "../early/begun"
import { Keeping } from "../live/keeping"
import { declareBrought } from "../ui/fontFaces"
import { AfterPaint } from "./afterPaint"
import { arrivals } from "./arrivals"
import { Checks } from "./checks"
import { Composing } from "./composing"
import { Delivery } from "./delivering"
import { blank, Editing, type Change } from "./editing"
import { Enclosing } from "./enclosing"
import { Going } from "./going"
import { Caret } from "./input/caret"
import { Clipboard, picturesOf, transferred } from "./input/clipboard"
import { Typing } from "./input/typing"
import { WaitingKeys } from "./input/waiting"
import { LookLaying } from "./laying"
import { Opening } from "./opening"
import { Picturing } from "./picturing"
import type { DeskPort } from "./ports"
import { Pressing } from "./pressing"
import { SavingShown } from "./savingShown"
import { Showing } from "./showing"
import { createDeskStore, type DeskStore } from "./store"
import { Surface } from "./surface"
import { Tabling } from "./tabling"
import { Trial } from "./trial"
import { firstView } from "./view/kept"
import { Viewing } from "./viewing"

/** What a key stands for on a desk; null for keys that mean nothing here, such as letters. */
export type KeyAction = (event: KeyboardEvent) => ((session: DeskSession) => void) | null

export class DeskSession implements DeskPort {
  readonly store: DeskStore = createDeskStore(firstView())
  private readonly afterPaint = new AfterPaint()
  private readonly showing = new Showing(this.store)
  private readonly savingShown = new SavingShown(this.store)
  private readonly waiting = new WaitingKeys(() => this.composing.showBusy())

  private readonly editing = new Editing({
    changing: () => this.trial.end(),
    changed: (change) => this.changed(change),
    made: (tr) => {
      this.caret.forgetGoal()
      const long = Math.abs(tr.doc.content.size - tr.before.content.size)
      if (tr.docChanged) this.afterPaint.later(this.handOn, long)
      if (tr.scrolledIntoView) this.surface.view?.reveal(this.editing.head)
      if (this.store.getState().mode === "flow") this.going.leaveEdge()
    },
    turned: () => this.surface.view?.paintSelection(),
  })
  private readonly handOn = (): void => this.keeping.changed()

  private readonly composing: Composing
  readonly viewing: Viewing
  private readonly keeping: Keeping
  private readonly surface: Surface
  private readonly caret: Caret
  private readonly typing: Typing
  readonly trial = new Trial({ editor: () => this.now, layOut: (steps) => this.composing.tryOut(steps) })
  readonly opening = new Opening(this.store, { endTrial: () => this.trial.end(), focus: () => this.focus() })
  readonly laying = new LookLaying(this)
  readonly pressing = new Pressing(this.store, {
    run: (command) => this.run(command),
    focus: () => this.focus(),
    shownAt: (pos) => this.surface.view?.places.shownAt(pos) ?? null,
    isSaid: (kind, pos) => this.checks.isSaid(kind, pos),
  })
  readonly clipboard = new Clipboard(this)
  readonly delivery = new Delivery(this)
  readonly checks = new Checks(this.editing, {
    editor: () => this.now,
    select: (from, to) => {
      this.editing.select(from, to)
      this.surface.view?.reveal(to)
    },
    run: (command) => this.run(command),
    repaint: () => this.surface.repaint(),
  })
  readonly finder = this.checks.finder
  readonly spelling = this.checks.spelling
  readonly wording = this.checks.wording
  readonly marking = this.checks.marking
  /** For what puts in something that has to be read first, while keys wait. */
  private readonly bringing = {
    editor: () => this.now,
    run: (command: Command) => this.runAhead(command),
    focus: () => this.focus(),
    hold: <T>(work: Promise<T>) => this.holdKeys(work),
  }
  readonly picturing = new Picturing(this.store, this.bringing)
  readonly enclosing = new Enclosing(this.store, this.bringing)
  readonly tabling = new Tabling({
    editor: () => this.now,
    run: (command) => this.run(command),
    seen: () => this.store.getState().view.table,
    measure: (pos) => this.composing.layout.measure(pos),
    inFlow: () => this.store.getState().mode === "flow",
  })
  readonly going = new Going(this.editing, {
    view: () => this.surface.view,
    focus: () => this.focus(),
    showSheets: () => this.viewing.showSheets(),
    hold: (work) => this.holdKeys(work),
    showComments: (pos) => this.surface.cards.comments(pos),
  })

  constructor(
    readonly id: string,
    keyAction: KeyAction,
  ) {
    const view = () => this.surface.view
    this.viewing = new Viewing(id, this.store, {
      view,
      sheet: () => documentAttrs((this.now ?? blank).doc).setup,
      setSpec: (spec) => this.composing.setSpec(spec),
      hasLayout: () => this.composing.layout.mirror.count > 0,
      isCurrent: () => this.composing.layout.current,
      again: (act) => this.waiting.again(act),
      leaveEdge: () => this.going.leaveEdge(),
      keepCaretSeen: () => this.surface.keepCaretSeen(),
      blur: () => this.blur(),
    })
    this.composing = new Composing(id, this.waiting, {
      editor: () => this.editing.open,
      view,
      spec: () => this.viewing.currentSpec,
      later: (task) => this.afterPaint.later(task),
      failed: (message) =>
        this.store.setState({
          trouble: `The sheets could not be laid out: ${message}. What you wrote is safe; reload the page.`,
        }),
    })
    const { layout } = this.composing
    this.caret = new Caret(this.editing, this.waiting, {
      view,
      mirror: layout.mirror,
      leave: () => this.going.backToText(),
    })
    this.typing = new Typing(this.editing, this.waiting, {
      action: (event) => {
        const act = keyAction(event)
        return this.pressing.keyAction(event) ?? (act && (() => act(this)))
      },
      leave: () => {
        if (this.pressing.any) this.pressing.putAway()
        else if (this.clipboard.forgo()) return
        else if (this.store.getState().laying) this.laying.putDown()
        else if (!this.going.backToText()) view()?.host.focus()
      },
    })
    this.surface = new Surface(this.editing, this.typing, layout, this.viewing, this.store, {
      seen: this.composing.seen,
      marks: (leaf) => this.marking.of(leaf),
      lost: () => {
        // Keys that wait for it go on in the text.
        if (this.going.backToText()) this.waiting.release()
      },
      dropped: (place, data) => {
        this.focus()
        this.editing.select(place.pos, place)
        const pictures = picturesOf(data)
        if (pictures.length > 0) return void this.picturing.add(pictures)
        void this.clipboard.paste(transferred(data))
      },
      inTurn: (act) => this.waiting.inTurn(act),
      selecting: () => {
        this.pressing.putAway()
        this.opening.link(false)
        this.caret.forgetGoal()
      },
      selected: () => this.laying.selected(),
      follow: (href) => this.going.alongLink(href),
      goTo: (leaf) => this.going.toLeaf(leaf),
      wrongWord: (pos) => this.spelling.at(pos),
      remark: (pos) => this.wording.at(pos),
      summary: (summary) => {
        this.showing.show({ view: summary }, this.typing.active)
        this.composing.showBusy()
      },
      attached: (field) => this.clipboard.attach(field),
    })
    this.keeping = new Keeping(
      id,
      arrivals(id, this.store, {
        editing: this.editing,
        composing: this.composing,
        viewing: this.viewing,
        surface: this.surface,
        checks: this.checks,
        opening: this.opening,
        trial: this.trial,
        savingShown: this.savingShown,
      }),
    )
    void this.keeping.open()
  }

  close(): void {
    endSight()
    this.afterPaint.close()
    this.keeping.close()
    this.checks.close()
    this.clipboard.close()
    this.composing.layout.close()
    this.surface.detach()
  }

  // ---- changes

  private changed(change: Change): void {
    const { tr, before, after, steps, here, moved } = change
    const { field, view } = this.surface
    field?.map(tr)
    this.surface.map(tr.mapping)
    const { fonts } = documentAttrs(after.doc).styles
    if (fonts !== documentAttrs(before.doc).styles.fonts) declareBrought(fonts)
    if (steps.length > 0) this.composing.changed(change)
    field?.sync()
    this.pressing.follow(change)
    // What the server has confirmed looks as it did.
    if (steps.length > 0 || moved) this.checks.changed(change)
    if (steps.length > 0) this.clipboard.changed(tr.mapping)
    else if (moved) {
      this.clipboard.forgo()
      view?.paintSelection()
    }
    // What is confirmed says nothing new to the bars, which rest while one types.
    const isConfirmed = !here && steps.length === 0
    this.showing.show({ editor: after }, this.typing.active || isConfirmed)
  }

  get now(): EditorState | null {
    return this.editing.now
  }

  readonly run = (command: Command): boolean => this.waiting.inTurn(() => this.editing.run(command))

  readonly runAhead = (command: Command): boolean => this.editing.run(command)

  move: Caret["move"] = (motion, extend) => this.caret.move(motion, extend)

  deleteBack(command: Command): void {
    this.typing.deleteBack(command)
  }

  holdKeys<T>(promise: Promise<T>): Promise<T> {
    return this.waiting.hold(promise)
  }

  /** Shows what could be meant by the word with the caret, or by the next one that looks wrong. */
  suggestHere(): void {
    const wrong = this.now && this.spelling.here()
    if (wrong) this.surface.cards.wrongWord(wrong)
  }

  // ---- the sheets

  /** Hangs the sheets into an element of the page. */
  attach(host: HTMLElement): () => void {
    const detach = this.surface.attach(host)
    this.composing.endSight()
    return detach
  }

  focus(): void {
    this.surface.focus()
  }

  blur(): void {
    this.surface.blur()
  }

  rename(name: string | null): Promise<void> {
    return this.keeping.rename(name)
  }
}
