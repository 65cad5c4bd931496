/** The finished document leaves: as a file, or to the printer by way of the same file. */
import { fileNamed, keepUrl, saveFile } from "../ui/saving"
import { kinds, type KindId } from "@biblon/core/formats/kinds"
import { assetsOf } from "@biblon/core/document"
import type { PrintPlan } from "@biblon/core/output/printing"
import type { JobHead } from "@biblon/wire"
import { api } from "../api"
import { keep } from "../kept"
import { keptBytes } from "../live/files"
import { makeFile, type FileProgress } from "../workers/fileClient"
import type { DeskPort } from "./ports"

/** An id by which what is handed over twice is done once. */
const newJobId = () => `job-${Date.now().toString(36)}-${Math.random().toString(36).slice(2, 12)}`

function fileName(name: string | null, kind: KindId, archive: boolean): string {
  const ending = archive ? ".zip" : kinds[kind].endings[0]
  return `${fileNamed(name, "Document")}${ending}`
}

export class Delivery {
  private stopping: AbortController | null = null

  constructor(private readonly desk: DeskPort) {}

  /** The finished document as a file; null if it was stopped or failed. */
  private async make(kind: KindId, plan: PrintPlan | null): Promise<Blob | null> {
    const { store, now } = this.desk
    if (!now) return null
    const stop = (this.stopping = new AbortController())
    store.setState({ delivering: { stage: "layout", done: 0, of: 0 } })
    try {
      const content = JSON.stringify(now.doc.toJSON())
      const progress = (delivering: FileProgress) => store.setState({ delivering })
      return await makeFile(
        kind,
        content,
        store.getState().name ?? "",
        await keptBytes(assetsOf(now.doc).keys()),
        plan,
        plan === null && store.getState().archive,
        progress,
        stop.signal,
      )
    } catch (error) {
      if (!(error instanceof DOMException))
        store.setState({
          trouble: `The file could not be made: ${(error as Error).message}. The document is not affected.`,
        })
      return null
    } finally {
      store.setState({ delivering: null })
    }
  }

  /** Whether PDFs are made for archives, from now on and on this device. */
  turnArchive(archive: boolean): void {
    keep("archive", archive)
    this.desk.store.setState({ archive })
  }

  stop(): void {
    this.stopping?.abort()
  }

  /** @param plan how the sheets of a PDF lie on paper; left out for the sheets themselves */
  async save(kind: KindId, plan: PrintPlan | null = null): Promise<void> {
    const file = await this.make(kind, plan)
    if (!file) return
    // Several pictures come as an archive, which begins as one does.
    const archive = kind === "png" && (await file.slice(0, 2).text()) === "PK"
    saveFile(file, fileName(this.desk.store.getState().name, kind, archive))
  }

  /** Hands the PDF to the printer that ships. @param sides that come out, where they were counted */
  async printHere(plan: PrintPlan, sides: number | null): Promise<void> {
    const pdf = await this.make("pdf", plan)
    if (!pdf) return
    const name = fileName(this.desk.store.getState().name, "pdf", false)
    const problem = await this.handOver({ kind: "print", id: newJobId(), name, media: kinds.pdf.media, sides }, pdf)
    this.desk.store.setState({
      trouble:
        problem === null
          ? "The printer here has it. The page “Printer and outbox” shows how far it is."
          : `It was not printed: ${problem}. The document is not affected.`,
    })
  }

  /** Sends a copy. @returns what went wrong; null for nothing, and "" where it was said already or was stopped */
  async send(kind: KindId, letter: { to: string; subject: string; words: string }): Promise<string | null> {
    const id = newJobId()
    const file = await this.make(kind, null)
    if (!file) return ""
    const name = fileName(this.desk.store.getState().name, kind, false)
    return this.handOver({ kind: "send", id, name, media: kinds[kind].media, ...letter }, file)
  }

  /** @returns what went wrong, or null */
  private async handOver(head: JobHead, file: Blob): Promise<string | null> {
    try {
      await api.handOver(head, file)
      return null
    } catch (error) {
      return error instanceof TypeError ? "the server cannot be reached" : (error as Error).message
    }
  }

  /** Opens the browser's print window on the PDF; where a browser cannot print from a frame, the PDF opens beside. */
  async print(plan: PrintPlan | null = null): Promise<void> {
    const pdf = await this.make("pdf", plan)
    if (!pdf) return
    const url = URL.createObjectURL(pdf)
    const frame = document.createElement("iframe")
    frame.title = "The document to be printed"
    frame.hidden = true
    frame.src = url
    frame.onload = () => {
      try {
        if (!frame.contentWindow) throw new Error("no window")
        frame.contentWindow.focus()
        frame.contentWindow.print()
      } catch {
        window.open(url)
      }
    }
    document.body.append(frame)
    setTimeout(() => {
      frame.remove()
      URL.revokeObjectURL(url)
    }, keepUrl)
  }
}
