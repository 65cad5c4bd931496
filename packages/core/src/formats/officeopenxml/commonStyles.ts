import { bodyStyle } from "../../document"

/** Names that the standard gives to styles that need not be defined, and ours for them. */
export const commonStyles: ReadonlyMap<string, string> = new Map([
  ["normal", bodyStyle],
  ...Array.from({ length: 9 }, (_, i): [string, string] => [`heading ${i + 1}`, `heading${i + 1}`]),
  ["title", "title"],
  ["subtitle", "subtitle"],
  ["quote", "quotation"],
  ["caption", "caption"],
  ["footnote text", "note"],
  ["list paragraph", "list"],
  ["bibliography", "reference"],
  ["emphasis", "emphasis"],
  ["strong", "strong"],
])
