export * from "./assets"
export * from "./leaves"
export * from "./between"
export * from "./bounds"
export type { Brought } from "./brought"
export * from "./building"
export * from "./captions"
export * from "./cellValues"
export * from "./citations"
export * from "./comments"
export * from "./contents"
export * from "./defaults"
export * from "./difference"
export * from "./edgeLines"
export * from "./enclosures"
export * from "./entries"
export * from "./families"
export * from "./fields"
export * from "./format"
export * from "./formulas"
export * from "./grid"
export * from "./headings"
export * from "./limits"
export * from "./lists"
export * from "./keyed"
export * from "./language"
export * from "./look"
export * from "./notes"
export * from "./numbering"
export * from "./parts"
export * from "./pictures"
export * from "./positions"
export * from "./rebasing"
export * from "./rights"
export * from "./schema"
export * from "./sets"
export * from "./segmenting"
export * from "./setup"
export * from "./sorted"
export * from "./spoken"
export * from "./stories"
export * from "./tableLooks"
export * from "./tables"
export * from "./trail"
export * from "./typedLists"
export type {
  Brief,
  Border,
  Borders,
  BorderSide,
  CellFormat,
  Comment,
  Comments,
  Kept,
  DropCap,
  LetterFormat,
  LineSpacing,
  ListDefinition,
  ListLevel,
  ListPlace,
  NoteSettings,
  OwnFamily,
  PageSetup,
  ParagraphFormat,
  PartName,
  PictureFormat,
  Properties,
  RowFormat,
  RulePattern,
  Source,
  Sources,
  Style,
  StyleSheet,
  TableFormat,
  TabStop,
  Typesetting,
  Watermark,
} from "./shapes"
