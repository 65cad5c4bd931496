/** Kinds of files, as data alone: what the page shows of them without loading what reads and writes them. */
export interface Kind {
  readonly name: string
  /** The first is the one that is written. */
  readonly endings: readonly [string, ...string[]]
  /** Media type. */
  readonly media: string
  /** Whether it can be read, as well as written. */
  readonly reads: boolean
  /** In a sentence: what it is for. */
  readonly note: string
}

export const kinds = {
  pdf: {
    name: "PDF",
    endings: [".pdf"],
    media: "application/pdf",
    reads: false,
    note: "Exactly the sheets, with bookmarks and structure",
  },
  png: {
    name: "Pictures of the sheets",
    endings: [".png"],
    media: "image/png",
    reads: false,
    note: "Each sheet as a picture; several lie in one archive",
  },
  docx: {
    name: "Office Open XML",
    endings: [".docx", ".docm", ".dotx", ".dotm"],
    media: "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
    reads: true,
    note: "For other word processors: text, formatting, sheets, notes, tables and pictures",
  },
  odt: {
    name: "OpenDocument",
    endings: [".odt", ".fodt", ".ott"],
    media: "application/vnd.oasis.opendocument.text",
    reads: true,
    note: "The open standard of office documents: text, formatting, sheets, notes, tables and pictures",
  },
  rtf: {
    name: "Rich Text Format",
    endings: [".rtf"],
    media: "application/rtf",
    reads: true,
    note: "For older programs: text, formatting, sheets, notes, tables and pictures in lines",
  },
  html: {
    name: "HTML",
    endings: [".html", ".htm", ".xhtml"],
    media: "text/html",
    reads: true,
    note: "For the web and other programs: text with its formatting, no sheets",
  },
  commonmark: {
    name: "CommonMark",
    endings: [".md", ".markdown"],
    media: "text/markdown",
    reads: true,
    note: "Text with signs for headings, lists, tables and notes",
  },
  epub: {
    name: "EPUB",
    endings: [".epub"],
    media: "application/epub+zip",
    reads: false,
    note: "A book for readers: chapters, contents, notes and pictures",
  },
  text: {
    name: "Plain text",
    endings: [".txt", ".text"],
    media: "text/plain",
    reads: true,
    note: "The words alone, with the marks of lists",
  },
  csv: {
    name: "Table of values",
    endings: [".csv", ".tsv", ".tab"],
    media: "text/csv",
    reads: true,
    note: "The first table as values divided by commas, for calculating programs",
  },
  json: {
    name: "Biblon file",
    endings: [".json"],
    media: "application/json",
    reads: true,
    note: "Everything, to be opened again",
  },
} as const satisfies Record<string, Kind>

export type KindId = keyof typeof kinds

/** What all that can be read is called. */
export const readableNames: readonly string[] = Object.values(kinds)
  .filter(({ reads }) => reads)
  .map(({ name }) => name)

/** Endings of all that can be read. */
export const readableEndings: readonly string[] = Object.values(kinds)
  .filter(({ reads }) => reads)
  .flatMap(({ endings }) => endings)
