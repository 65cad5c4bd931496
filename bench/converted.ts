/** Reading and writing of files, against a well-kept reader of the same files. */
import mammoth from "mammoth"
import { document, letters, p, paragraph } from "@biblon/core/document"
import { formats } from "@biblon/core/formats"
import { projectRoot } from "@biblon/core/node"
import { proseParagraphs } from "./text"
import { percentile } from "./figures"

export interface FormatFigures {
  docxReadMs: number
  docxVsMammoth: number
  docxWriteVsMammoth: number
  /** The same document as OpenDocument text. */
  odtVsMammoth: number
  odtWriteVsMammoth: number
}

// Archives are made as the command makes them.
projectRoot()

const turns = 7

/** What each takes, in turns: what else the machine does falls on all alike. */
async function medians(acts: readonly (() => unknown)[]): Promise<number[]> {
  const taken = acts.map((): number[] => [])
  for (let i = 0; i < turns; i++)
    for (const [n, act] of acts.entries()) {
      const start = performance.now()
      await act()
      taken[n]?.push(performance.now() - start)
    }
  return taken.map((own) => percentile(own, 0.5))
}

async function measure(): Promise<FormatFigures> {
  const doc = document(
    proseParagraphs(650_000).map((text, i) =>
      i % 12 === 0
        ? paragraph("heading2", [text.slice(0, 40)])
        : p(text.slice(0, 60), letters(text.slice(60, 90) || "tide", { bold: true }), text.slice(90)),
    ),
  )
  const bytes = formats.docx.write?.({ name: "Long", doc }) ?? new Uint8Array()
  const odt = formats.odt.write?.({ name: "Long", doc }) ?? new Uint8Array()
  const [mammothMs = 0, docxReadMs = 0, writeMs = 0, odtReadMs = 0, odtWriteMs = 0] = await medians([
    () => mammoth.convertToHtml({ buffer: Buffer.from(bytes) }),
    () => formats.docx.read?.(bytes, {}),
    () => formats.docx.write?.({ name: "Long", doc }),
    () => formats.odt.read?.(odt, {}),
    () => formats.odt.write?.({ name: "Long", doc }),
  ])
  return {
    docxReadMs,
    docxVsMammoth: docxReadMs / mammothMs,
    docxWriteVsMammoth: writeMs / mammothMs,
    odtVsMammoth: odtReadMs / mammothMs,
    odtWriteVsMammoth: odtWriteMs / mammothMs,
  }
}

void measure().then((figures) => console.log(JSON.stringify(figures)))
