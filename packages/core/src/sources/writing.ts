/** Lists of sources as files: CSL JSON, RIS and BibTeX. */
import type { Sources } from "../document"
import { bibtex } from "./bibtexWriting"
import { itemOf } from "./csl"
import { ris } from "./ris"

export type SourcesFormat = "csl" | "ris" | "bibtex"

/** The sources of a document as a file. */
export function writeSources(list: Sources["list"], format: SourcesFormat): string {
  if (format === "ris") return ris(list)
  if (format === "bibtex") return bibtex(list)
  return `${JSON.stringify(
    Object.entries(list).map(([key, source]) => ({
      ...itemOf(key, source),
      ...(source.remarks ? { note: source.remarks } : {}),
    })),
    null,
    2,
  )}\n`
}
