import { bodyStyle } from "../../document"

/** Names by which everybody knows styles, and ours for them. */
export const commonStyles: ReadonlyMap<string, string> = new Map([
  ["Standard", bodyStyle],
  ["Title", "title"],
  ["Subtitle", "subtitle"],
  ["Heading", "heading"],
  ...Array.from({ length: 9 }, (_, i): [string, string] => [`Heading_20_${i + 1}`, `heading${i + 1}`]),
  ["Quotations", "quotation"],
  ["Caption", "caption"],
  ["Footnote", "note"],
  ["List", "list"],
  ["Bibliography_20_1", "reference"],
  ["Emphasis", "emphasis"],
  ["Strong_20_Emphasis", "strong"],
])
