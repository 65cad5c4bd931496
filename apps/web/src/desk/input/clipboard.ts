/**
 * Copy, cut, paste and drop. What is copied goes out three times: as Biblon's own content, which loses
 * nothing, as HTML and as text. What comes in is pasted as it was; the card that follows offers the
 * look of where it landed, or the text alone.
 */
import type { Slice } from "prosemirror-model"
import type { Mappable } from "prosemirror-transform"
import { createStore } from "zustand/vanilla"
import type { EditorState } from "prosemirror-state"
import { documentAttrs, paragraphAttrs, type Brought, type ParagraphFormat } from "@biblon/core/document"
import {
  beforeBlock,
  endOfTable,
  broughtBy,
  changes,
  deleteSelection,
  insertPart,
  isLong,
  isLongText,
  joining,
  partsOf,
  withoutForeignComments,
  pasteSlice,
  pasteText,
  selectedSlice,
  selectedText,
  textParts,
  undo,
  type Command,
  type Parts,
} from "@biblon/core/editing"
import { clips, mayHoldCells, type Clip, type Copied, type Transferred } from "@biblon/core/formats/clips"
import { isPictureFile } from "../picturing"
import { kinds } from "@biblon/core/formats/kinds"
import { inLocalLook } from "@biblon/core/formats/look"
import { PasteReader } from "../../workers/pasteClient"
import type { DeskPort } from "../ports"

export type PasteWay = "asItWas" | "asHere" | "textOnly"

export interface PasteState {
  /** The paste that one can still change one's mind about. */
  offered: { way: PasteWay; change: number } | null
  /** A long paste that is under way, with how many paragraphs are in. */
  pasting: { done: number } | null
}

interface Pasted {
  slice: Slice | null
  /** What it needs of the style sheet that it comes from. */
  brought: Brought | null
  text: string
  /** The paragraph it landed in. */
  style: string
  format: Partial<ParagraphFormat> | null
}

/** Milliseconds after which a paste that is still under way is shown. */
const unshown = 300

const channel = new MessageChannel()
/** Lets painting and other tasks come in between, without the pause of a timer. */
function nextTask(): Promise<void> {
  return new Promise((resolve) => {
    channel.port1.onmessage = () => resolve()
    channel.port2.postMessage(null)
  })
}

/** What a transfer of the browser's holds, to paste or drop. */
export function transferred(data: DataTransfer | null): Transferred {
  return new Map(clips.map(({ media }) => [media, data?.getData(media) ?? ""]))
}

/** Pictures that a transfer holds as files, where it holds no text beside them. */
export function picturesOf(data: DataTransfer | null): File[] {
  if (!data || clips.some(({ media }) => media !== kinds.html.media && data.getData(media) !== "")) return []
  return [...data.files].filter(isPictureFile)
}

/** The selection as all that is written on a clipboard; null where nothing is selected. */
function copiedFrom(editor: EditorState | null): Copied | null {
  if (!editor || editor.selection.empty) return null
  const slice = selectedSlice(editor)
  const { styles } = documentAttrs(editor.doc)
  return { slice, styles, brought: broughtBy(slice, editor.doc), text: selectedText(editor) }
}

export class Clipboard {
  readonly store = createStore<PasteState>(() => ({ offered: null, pasting: null }))
  private last: Pasted | null = null
  private readonly reader = new PasteReader()

  constructor(private readonly session: DeskPort) {}

  attach(field: HTMLElement): void {
    field.addEventListener("copy", (event) => {
      event.preventDefault()
      this.fill(event.clipboardData)
    })
    field.addEventListener("cut", (event) => {
      event.preventDefault()
      if (this.fill(event.clipboardData)) this.session.run(deleteSelection)
    })
    field.addEventListener("paste", (event) => {
      event.preventDefault()
      const pictures = picturesOf(event.clipboardData)
      if (pictures.length > 0) void this.session.picturing.add(pictures)
      else void this.paste(transferred(event.clipboardData))
    })
  }

  close(): void {
    this.running?.abort()
    this.reader.close()
  }

  /** Puts the selection into a transfer. Returns false if nothing is selected. */
  fill(data: DataTransfer | null): boolean {
    const copied = copiedFrom(this.session.now)
    if (!copied || !data) return false
    for (const { media, write } of clips) data.setData(media, write(copied))
    return true
  }

  /** For buttons: the browser's clipboard without a key. Biblon's own content does not travel this way; HTML does. */
  async copy(cut: boolean): Promise<void> {
    const copied = copiedFrom(this.session.now)
    if (!copied) return
    const blobs = clips
      .filter(({ byButton }) => byButton)
      .map(({ media, write }) => [media, new Blob([write(copied)], { type: media })] as const)
    await navigator.clipboard.write([new ClipboardItem(Object.fromEntries(blobs))])
    if (cut) this.session.run(deleteSelection)
  }

  async pasteFromButton(way: PasteWay = "asItWas"): Promise<void> {
    try {
      const [item] = await navigator.clipboard.read()
      const read = async ({ media }: Clip) =>
        [media, item?.types.includes(media) ? await (await item.getType(media)).text() : ""] as const
      await this.paste(new Map(await Promise.all(clips.map(read))), way)
    } catch {
      this.session.store.setState({
        trouble: "The browser did not let Biblon read the clipboard. Paste with the keyboard instead.",
      })
    }
  }

  async paste(data: Transferred, way: PasteWay = "asItWas"): Promise<void> {
    const { slice, brought } = way === "textOnly" ? { slice: null, brought: null } : await this.read(data)
    const editor = this.session.now
    if (!editor) return
    const { $from } = editor.selection
    const { style, format } = paragraphAttrs($from.parent)
    this.last = { slice, brought, text: data.get(kinds.text.media) ?? "", style, format }
    await this.put(slice ? way : "textOnly")
  }

  private async read(data: Transferred): Promise<Pick<Pasted, "slice" | "brought">> {
    const formatted = [...data].some(([media, text]) => (media === kinds.text.media ? mayHoldCells(text) : text !== ""))
    if (!formatted) return { slice: null, brought: null }
    const stop = this.begin()
    const read = await this.session.holdKeys(this.reader.read(data, stop.signal))
    this.end(stop)
    const plain = [...data].every(([media, text]) => media === kinds.text.media || text === "")
    if (!read && !plain && !stop.signal.aborted)
      this.session.store.setState({
        trouble: "The formatting of what was pasted could not be read. Its text was pasted.",
      })
    return { slice: read && read.slice.size > 0 ? read.slice : null, brought: read?.brought ?? null }
  }

  /** Long work begins: it is shown once it takes a while, and can be stopped. */
  private begin(): AbortController {
    const stop = new AbortController()
    this.running = stop
    this.shown = setTimeout(() => this.store.setState({ pasting: { done: 0 } }), unshown)
    return stop
  }
  private running: AbortController | null = null
  private shown: ReturnType<typeof setTimeout> | undefined

  private end(stop: AbortController): void {
    if (this.running !== stop) return
    clearTimeout(this.shown)
    this.running = null
    this.store.setState({ pasting: null })
  }

  /** Stops a long paste; what is in already stays, and one undo takes it out. */
  stop(): void {
    this.running?.abort()
  }

  private async put(way: PasteWay): Promise<void> {
    const { last, session } = this
    if (!last || !session.now) return
    const { brought, text, style, format } = last
    const slice = last.slice && withoutForeignComments(last.slice, session.now.doc)
    let done: boolean
    if (way === "textOnly" || !slice) {
      const plain = text.replace(/\r\n?/g, "\n")
      done = isLongText(plain)
        ? await this.putParts(textParts(session.now, plain), null)
        : session.runAhead(pasteText(plain))
    } else {
      const here = way === "asHere" ? inLocalLook(slice, style, format) : slice
      const needs = way === "asHere" ? null : brought
      done = isLong(here)
        ? await this.putParts(partsOf(here), needs)
        : session.runAhead(pasteSlice(here, "Pasted", needs))
    }
    const change = session.now ? changes(session.now).done[0]?.id : undefined
    this.store.setState({ offered: done && slice && change !== undefined ? { way, change } : null })
  }

  /** Part after part, each in a task of its own; what is typed meanwhile follows. */
  private putParts({ first, rest, count, rows }: Parts, brought: Brought | null): Promise<boolean> {
    const { session } = this
    const begin: Command = (state, dispatch) =>
      pasteSlice(first, "Pasted", brought)(state, dispatch && ((tr) => dispatch(joining(tr, "pasteBegins"))))
    if (!session.runAhead(begin) || !session.now) return Promise.resolve(false)
    const stop = this.begin()
    this.at = rows ? endOfTable(session.now) : beforeBlock(session.now)
    let done = rows ? (first.content.firstChild?.childCount ?? 0) : first.content.childCount
    const go = async () => {
      for (const part of rest) {
        await nextTask()
        if (stop.signal.aborted || this.at === null) break
        const { at } = this
        if (!session.runAhead(insertPart(at, part))) break
        done += part.length
        if (this.store.getState().pasting) this.store.setState({ pasting: { done } })
      }
      if (stop.signal.aborted)
        session.store.setState({
          trouble: `Stopped: ${done} ${rows ? "rows" : "paragraphs"} are in. One undo takes them out.`,
        })
      this.at = null
      this.end(stop)
      return count > 0
    }
    return session.holdKeys(go())
  }
  /** Where the next part of a long paste goes in. */
  private at: number | null = null

  /** Another way to paste what was just pasted. */
  again(way: PasteWay): void {
    const { offered, pasting } = this.store.getState()
    if (!offered || offered.way === way || pasting) return
    this.session.runAhead(undo)
    void this.put(way)
  }

  /** Puts the card away. @returns whether there was one */
  forgo(): boolean {
    const offers = this.store.getState().offered !== null
    if (offers) this.store.setState({ offered: null })
    return offers
  }

  /** To be called after each change: the offer stands until something else is done. */
  changed(mapping: Mappable): void {
    if (this.at !== null) this.at = mapping.map(this.at, 1)
    const { offered } = this.store.getState()
    if (offered && this.session.now && changes(this.session.now).done[0]?.id !== offered.change) this.forgo()
  }
}
