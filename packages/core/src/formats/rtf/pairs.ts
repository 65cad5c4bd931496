/** What RTF and Office Open XML call the same, each by the word of RTF: read one way, written the other. */
import type { Kept } from "../../document"

/** How a section begins. */
export const sectionBegins = new Map([
  ["sbknone", "continuous"],
  ["sbkcol", "nextColumn"],
  ["sbkpage", "nextPage"],
  ["sbkodd", "oddPage"],
  ["sbkeven", "evenPage"],
])

/** Forms of the numbers of sheets, but for the usual one. */
export const sheetNumberForms = new Map([
  ["pgnucrm", "upperRoman"],
  ["pgnlcrm", "lowerRoman"],
  ["pgnucltr", "upperLetter"],
  ["pgnlcltr", "lowerLetter"],
])

/** What fills the way to a tab stop. */
export const leaders = new Map([
  ["tldot", "dot"],
  ["tlmdot", "middleDot"],
  ["tlhyph", "hyphen"],
  ["tlul", "underscore"],
])

/** Forms of numbers in lists. */
export const listNumberForms = new Map([
  [0, "decimal"],
  [1, "upperRoman"],
  [2, "lowerRoman"],
  [3, "upperLetter"],
  [4, "lowerLetter"],
  [5, "ordinal"],
  [22, "decimalZero"],
  [23, "bullet"],
  [255, "none"],
])

/** Patterns of lines at the edges of paragraphs, cells and sheets. */
export const borderLines = new Map([
  ["brdrs", "single"],
  ["brdrth", "thick"],
  ["brdrdb", "double"],
  ["brdrtriple", "triple"],
  ["brdrdot", "dotted"],
  ["brdrdash", "dashed"],
  ["brdrdashsm", "dashSmallGap"],
  ["brdrdashd", "dotDash"],
  ["brdrdashdd", "dotDotDash"],
  ["brdrwavy", "wave"],
  ["brdrwavydb", "doubleWave"],
])

export const reversed = <A, B>(pairs: ReadonlyMap<A, B>): ReadonlyMap<B, A> =>
  new Map([...pairs].map(([a, b]) => [b, a]))

/** What stands between the sign of an item and its text, and which side of the sign is even, by their numbers. */
export const levelFollows = ["tab", "space", "nothing"]
export const levelAligns = ["left", "center", "right"]

/** Kinds of properties that people made, by number. */
export const propertyKinds = new Map<number, Kept["properties"][string]["kind"]>([
  [30, "text"],
  [5, "number"],
  [64, "date"],
  [11, "yes"],
])
