/** Reading and writing of files, against a well-kept reader of the same files. */
import mammoth from "mammoth"
import { document, letters, p, paragraph } from "@biblon/core/document"
import { formats } from "@biblon/core/formats"
// Archives are made as the command makes them.
import "@biblon/core/node"
import { proseParagraphs } from "./text"
import { percentile } from "./browser"

export interface FormatFigures {
  docxReadMs: number
  docxVsMammoth: number
  docxWriteVsMammoth: number
}

const turns = 5

async function median(act: () => unknown): Promise<number> {
  const taken: number[] = []
  for (let i = 0; i < turns; i++) {
    const start = performance.now()
    await act()
    taken.push(performance.now() - start)
  }
  return percentile(taken, 0.5)
}

export async function measureFormats(): Promise<FormatFigures> {
  const doc = document(
    proseParagraphs(650_000).map((text, i) =>
      i % 12 === 0
        ? paragraph("heading2", [text.slice(0, 40)])
        : p(text.slice(0, 60), letters(text.slice(60, 90) || "tide", { bold: true }), text.slice(90)),
    ),
  )
  const bytes = formats.docx.write?.({ name: "Long", doc }) ?? new Uint8Array()
  const mammothMs = await median(() => mammoth.convertToHtml({ buffer: Buffer.from(bytes) }))
  const docxReadMs = await median(() => formats.docx.read?.(bytes, {}))
  const writeMs = await median(() => formats.docx.write?.({ name: "Long", doc }))
  return {
    docxReadMs,
    docxVsMammoth: docxReadMs / mammothMs,
    docxWriteVsMammoth: writeMs / mammothMs,
  }
}

if (process.argv[1]?.endsWith("formats.ts")) console.log(await measureFormats())
