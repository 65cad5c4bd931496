/**
 * Copy, cut, paste and drop. What is copied goes out three times: as Biblon's own content, which loses
 * nothing, as HTML and as text. What comes in is pasted as it was; the card that follows offers the
 * look of where it landed, or the text alone.
 */
import { Slice } from "prosemirror-model"
import { createStore } from "zustand/vanilla"
import { documentAttrs, paragraphAttrs, schema, type ParagraphFormat } from "@biblon/core/document"
import { broughtBy, changes, deleteSelection, pasteSlice, pasteText, selectedSlice, selectedText, undo, type Brought } from "@biblon/core/editing"
import { writeHtml } from "@biblon/core/formats/html/writing"
import { inLocalLook } from "@biblon/core/formats/look"
import type { PasteReply, PasteRequest } from "../../workers/paste.worker"
import type { DeskSession } from "../session"

export type PasteWay = "asItWas" | "asHere" | "textOnly"

export interface PasteState {
  /** The paste that one can still change one's mind about. */
  offered: { way: PasteWay; change: number } | null
}

/** Biblon's own content on the clipboard. */
interface Own {
  /** As JSON. */
  slice: unknown
  brought: Brought
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

const ownType = "application/x-biblon-slice"

/** What a transfer of the browser's holds, to paste or drop. */
export interface Transferred {
  own: string
  html: string
  text: string
}

export function transferred(data: DataTransfer | null): Transferred {
  return { own: data?.getData(ownType) ?? "", html: data?.getData("text/html") ?? "", text: data?.getData("text/plain") ?? "" }
}

export class Clipboard {
  readonly store = createStore<PasteState>(() => ({ offered: null }))
  private last: Pasted | null = null
  private worker: Worker | null = null
  private asked = 0

  constructor(private readonly session: DeskSession) {}

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
      void this.paste(transferred(event.clipboardData))
    })
  }

  close(): void {
    this.worker?.terminate()
  }

  /** Puts the selection into a transfer. Returns false if nothing is selected. */
  fill(data: DataTransfer | null): boolean {
    const editor = this.session.now
    if (!editor || editor.selection.empty || !data) return false
    const slice = selectedSlice(editor)
    data.setData("text/plain", selectedText(editor))
    data.setData("text/html", writeHtml(slice, documentAttrs(editor.doc).styles))
    data.setData(ownType, JSON.stringify({ slice: slice.toJSON() as unknown, brought: broughtBy(slice, documentAttrs(editor.doc).styles) } satisfies Own))
    return true
  }

  /** For buttons: the browser's clipboard without a key. Biblon's own content does not travel this way; HTML does. */
  async copy(cut: boolean): Promise<void> {
    const editor = this.session.now
    if (!editor || editor.selection.empty) return
    const blob = (type: string, text: string) => new Blob([text], { type })
    const html = writeHtml(selectedSlice(editor), documentAttrs(editor.doc).styles)
    await navigator.clipboard.write([new ClipboardItem({ "text/plain": blob("text/plain", selectedText(editor)), "text/html": blob("text/html", html) })])
    if (cut) this.session.run(deleteSelection)
  }

  async pasteFromButton(): Promise<void> {
    try {
      const [item] = await navigator.clipboard.read()
      const read = async (type: string) => (item?.types.includes(type) ? (await item.getType(type)).text() : "")
      await this.paste({ own: "", html: await read("text/html"), text: await read("text/plain") })
    } catch {
      this.session.store.setState({ trouble: "The browser did not let Biblon read the clipboard. Paste with the keyboard instead." })
    }
  }

  async paste({ own, html, text }: Transferred, plain = false): Promise<void> {
    const { slice, brought } = plain ? { slice: null, brought: null } : await this.read(own, html)
    const editor = this.session.now
    if (!editor) return
    const { $from } = editor.selection
    const { style, format } = paragraphAttrs($from.parent)
    this.last = { slice, brought, text, style, format }
    this.put(slice ? "asItWas" : "textOnly")
  }

  private async read(own: string, html: string): Promise<Pick<Pasted, "slice" | "brought">> {
    if (own) {
      try {
        const { slice, brought } = JSON.parse(own) as Own
        return { slice: Slice.fromJSON(schema, slice), brought }
      } catch {
        // Of another version: the HTML beside it will do.
      }
    }
    if (!html) return { slice: null, brought: null }
    const json = await this.readHtml(html)
    const slice = json ? Slice.fromJSON(schema, json) : Slice.empty
    return { slice: slice.size > 0 ? slice : null, brought: null }
  }

  private readHtml(html: string): Promise<unknown> {
    const worker = (this.worker ??= new Worker("/workers/paste.worker.js", { type: "module" }))
    const id = ++this.asked
    return this.session.holdKeys(
      new Promise((resolve) => {
        const take = ({ data }: MessageEvent<PasteReply>) => {
          if (data.id !== id) return
          worker.removeEventListener("message", take)
          resolve(data.slice)
        }
        worker.addEventListener("message", take)
        worker.postMessage({ id, html } satisfies PasteRequest)
      }),
    )
  }

  private put(way: PasteWay): void {
    const { last, session } = this
    if (!last) return
    const { slice, brought, text, style, format } = last
    const done = way === "textOnly" || !slice ? session.run(pasteText(text)) : session.run(way === "asHere" ? pasteSlice(inLocalLook(slice, style, format)) : pasteSlice(slice, "Pasted", brought))
    const change = session.now ? changes(session.now).done[0]?.id : undefined
    this.store.setState({ offered: done && slice && change !== undefined ? { way, change } : null })
  }

  /** Another way to paste what was just pasted. */
  again(way: PasteWay): void {
    const { offered } = this.store.getState()
    if (!offered || offered.way === way) return
    this.session.run(undo)
    this.put(way)
  }

  /** To be called after each change: the offer stands until something else is done. */
  changed(): void {
    const { offered } = this.store.getState()
    if (offered && this.session.now && changes(this.session.now).done[0]?.id !== offered.change) this.store.setState({ offered: null })
  }
}
