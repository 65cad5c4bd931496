export * from "./blocks"
export * from "./building"
export * from "./defaults"
export * from "./entries"
export * from "./families"
export * from "./fields"
export * from "./lists"
export * from "./look"
export * from "./numbering"
export * from "./schema"
export * from "./sets"
export * from "./trail"
export * from "./typedLists"
export type {
  Border,
  Borders,
  BorderSide,
  DropCap,
  LetterFormat,
  LineSpacing,
  ListDefinition,
  ListLevel,
  ListPlace,
  OwnFamily,
  PageSetup,
  ParagraphFormat,
  Properties,
  RulePattern,
  Style,
  StyleSheet,
  TabStop,
  Typesetting,
} from "./shapes"
