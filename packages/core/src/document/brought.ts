import type { StyleSheet } from "./shapes"

/** What copied text needs of the document that it comes from. */
export interface Brought extends Pick<StyleSheet, "styles" | "lists" | "fonts"> {
  /** Stories by key, as JSON; left out without any. */
  stories?: Readonly<Record<string, unknown>>
}
