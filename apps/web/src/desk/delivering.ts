/** The finished document leaves: as a file, or to the printer by way of the same file. */
import type { DeskSession } from "./session"

const keepUrl = 60_000

function fileName(name: string | null): string {
  return `${(name ?? "Document").replace(/[\\/:*?"<>|]/g, " ").trim() || "Document"}.pdf`
}

export async function savePdf(session: DeskSession): Promise<void> {
  const pdf = await session.pdf()
  if (!pdf) return
  const url = URL.createObjectURL(pdf)
  const link = document.createElement("a")
  link.href = url
  link.download = fileName(session.store.getState().name)
  link.click()
  setTimeout(() => URL.revokeObjectURL(url), keepUrl)
}

/** Opens the browser's print window on the PDF; where a browser cannot print from a frame, the PDF opens beside. */
export async function printPdf(session: DeskSession): Promise<void> {
  const pdf = await session.pdf()
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
