/** The bounds of all values in a document, said once. Lengths are points. */

export type Range = readonly [least: number, most: number]

export const limits = {
  length: [-4000, 4000],
  space: [0, 4000],
  size: [1, 999],
  raise: [-400, 400],
  letterSpacing: [-100, 400],
  lines: { multiple: [0.5, 10], exact: [1, 1000], atLeast: [0, 1000] },
  border: { width: [0.1, 36], distance: [0, 200] },
  dropCap: { lines: [2, 9], distance: [0, 100] },
  /** Fewest lines at the foot or head of a sheet. */
  keptLines: [1, 9],
  list: { level: [0, 8], start: [0, 100_000], hanging: [0, 400] },
  /** Width and height of paper. */
  paper: [72, 6000],
  columns: [1, 12],
  /** Of the width that columns share, against that of the others. */
  share: [0.1, 10],
  /** Of a watermark, in degrees, and between paper and colour. */
  angle: [-90, 90],
  strength: [0.02, 1],
  sheetNumber: [0, 100_000],
  hyphenation: { word: [2, 30], before: [1, 15], after: [1, 15], inRow: [1, 20] },
  /** Most tab stops of a paragraph. */
  tabs: 60,
  /** Most characters of names: of styles, lists and places; of typefaces; of an address; of a mark before an item. */
  name: 80,
  comment: 20_000,
  /** What is kept for other programs: how many properties and parts, and characters of one. */
  kept: { properties: 200, parts: 24, part: 200_000 },
  /** So much may be said of the same words. */
  commentsOnOne: 40,
  family: 120,
  address: 2000,
  mark: 40,
  watermark: 60,
  shortForm: 200,
  property: 1000,
  table: {
    /** Most rows that are repeated as heads; width of a column, height of a row, and space round the text of a cell. */
    headRows: [0, 20],
    column: [4, 4000],
    height: [0, 4000],
    padding: [0, 200],
    /** Most columns, and most places that one cell may reach over. */
    columns: 63,
    rows: 20_000,
  },
  /** Words for who cannot see a table or picture. */
  alt: 2000,
  /** The name of a file that is enclosed. */
  enclosure: 200,
  formula: 400,
  /** A citation as it is kept, and what a source is told with. */
  citation: 4000,
  source: { field: 4000, names: 200, remarks: 20_000, quotations: 200, style: 300_000 },
  /** In a brief: words of a quotation that stands alone, and the length of a document. */
  briefWords: [1, 10_000],
  briefLength: [0, 10_000_000],
  picture: {
    size: [4, 4000],
    pixels: [1, 40_000],
    crop: [0, 0.95],
    turn: [-180, 180],
    part: [-1, 1],
    distance: [0, 200],
  },
} as const

export const borderSides = ["top", "right", "bottom", "left"] as const

/** Where a link may lead. Other schemes do not get in. */
export const linkPattern = /^(https?:\/\/|mailto:)[^\s\u0000-\u001f]+$|^#[^\u0000-\u001f]{1,80}$/i

/** How numbers of sheets may be written. */
export const numberForms = ["decimal", "lowerRoman", "upperRoman", "lowerLetter", "upperLetter"] as const

/** How the marks of notes may be written; signs are * † ‡ § and so on. */
export const noteForms = [...numberForms, "signs"] as const

/** Where the numbers of footnotes begin anew. */
export const noteRestarts = ["document", "section", "sheet"] as const

/** What documents have as properties. */
export const documentProperties = ["title", "subtitle", "author", "organisation", "date"] as const

/** Kinds of sources, by their types in the Citation Style Language. */
export const sourceKinds = [
  "book",
  "chapter",
  "article-journal",
  "article-magazine",
  "article-newspaper",
  "webpage",
  "report",
  "thesis",
  "paper-conference",
  "entry-encyclopedia",
  "legislation",
  "legal_case",
  "interview",
  "motion_picture",
  "broadcast",
  "speech",
  "personal_communication",
  "dataset",
  "manuscript",
  "document",
] as const

/** Who had to do with a source, by their names in the Citation Style Language. */
export const sourceRoles = [
  "author",
  "editor",
  "translator",
  "container-author",
  "director",
  "interviewer",
  "recipient",
] as const

/** What else is known of a source, by the names of the Citation Style Language. */
export const sourceFields = [
  "title",
  "container-title",
  "collection-title",
  "publisher",
  "publisher-place",
  "edition",
  "volume",
  "issue",
  "number",
  "number-of-pages",
  "page",
  "genre",
  "medium",
  "authority",
  "section",
  "event-title",
  "archive",
  "archive_location",
  "URL",
  "DOI",
  "ISBN",
  "ISSN",
  "language",
  "title-short",
] as const

/** Covers of our own: see editing/covers.ts. */
export const coverNames = ["pier", "slipway", "chart", "ledger"] as const

/** Signs that a part may have, by our names for them. */
export const partSigns = [
  "anchor",
  "boat",
  "waves",
  "lifebuoy",
  "compass",
  "map",
  "book",
  "pen",
  "camera",
  "chart",
  "coins",
  "calendar",
  "people",
  "house",
  "flag",
  "star",
] as const

/** How text goes round a picture. */
export const wraps = ["line", "beside", "across", "under", "over"] as const
/** On which sides of it text stands: on both, on one, or on the wider one. */
export const wrapSides = ["both", "left", "right", "wider"] as const
export const pictureShapes = ["plain", "rounded", "round", "arch"] as const
export const pictureTones = ["own", "greys", "sepia", "tint"] as const

/** Looks of tables of our own: see tableLooks.ts. */
export const tableLooks = [
  "ledger",
  "timetable",
  "tideBoard",
  "manifest",
  "logbook",
  "buoy",
  "slipway",
  "cordage",
  "bare",
] as const
