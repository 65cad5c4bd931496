/**
 * Sets of faces and colours for a whole document. A set says what the styles of every document share:
 * the face and colour of text, of titles and of headings, and one colour for what stands out.
 */
import { bodyStyle, headingsStyle } from "./defaults"
import type { LetterFormat, Style, StyleSheet } from "./shapes"

export interface LookSet {
  id: string
  name: string
  text: Pick<LetterFormat, "family" | "colour">
  heading: Pick<LetterFormat, "family" | "colour" | "bold" | "caps">
  title: Pick<LetterFormat, "family" | "colour" | "bold">
  /** Quotations, captions, small print. */
  aside: Pick<LetterFormat, "colour">
}

function set(
  id: string,
  name: string,
  text: [string, string],
  heading: [string, string, boolean, LetterFormat["caps"]],
  title: [string, string, boolean],
  aside: string,
): LookSet {
  return {
    id,
    name,
    text: { family: text[0], colour: text[1] },
    heading: { family: heading[0], colour: heading[1], bold: heading[2], caps: heading[3] },
    title: { family: title[0], colour: title[1], bold: title[2] },
    aside: { colour: aside },
  }
}

export const lookSets: readonly LookSet[] = [
  set(
    "quay",
    "Quay",
    ["Tinos", "#1e1a16"],
    ["Tinos", "#1e1a16", true, "none"],
    ["Literata", "#1e1a16", true],
    "#5e564b",
  ),
  set(
    "slipway",
    "Slipway",
    ["Source Serif 4", "#1f2326"],
    ["Source Sans 3", "#1f4f7a", true, "none"],
    ["Source Sans 3", "#173a59", true],
    "#4d5d69",
  ),
  set(
    "lantern",
    "Lantern",
    ["EB Garamond", "#241a12"],
    ["EB Garamond", "#7a1f4b", false, "small"],
    ["EB Garamond", "#7a1f4b", false],
    "#6b5342",
  ),
  set(
    "chart",
    "Chart",
    ["Carlito", "#20262a"],
    ["Carlito", "#0f5560", true, "none"],
    ["Carlito", "#0f5560", true],
    "#47606a",
  ),
  set(
    "ledger",
    "Ledger",
    ["Caladea", "#1c1c1c"],
    ["Caladea", "#3b3b3b", true, "none"],
    ["Caladea", "#1c1c1c", true],
    "#595959",
  ),
  set(
    "samphire",
    "Samphire",
    ["Lora", "#20281f"],
    ["Lora", "#2f5d3f", true, "none"],
    ["Playfair Display", "#2f5d3f", true],
    "#566a57",
  ),
  set(
    "shingle",
    "Shingle",
    ["Atkinson Hyperlegible Next", "#1d1d20"],
    ["Atkinson Hyperlegible Next", "#4a4458", true, "none"],
    ["Atkinson Hyperlegible Next", "#2e2a3a", true],
    "#5b576a",
  ),
  set(
    "beacon",
    "Beacon",
    ["Gelasio", "#221b16"],
    ["Inter", "#9a3412", true, "none"],
    ["Inter", "#7c2d12", true],
    "#6b5a4d",
  ),
  set(
    "bell",
    "Bell",
    ["Libre Baskerville", "#1f1b18"],
    ["Libre Baskerville", "#5a3e1b", false, "all"],
    ["Great Vibes", "#5a3e1b", false],
    "#6d5b45",
  ),
  set(
    "tally",
    "Tally",
    ["Courier Prime", "#1a1a1a"],
    ["Courier Prime", "#1a1a1a", true, "none"],
    ["Courier Prime", "#1a1a1a", true],
    "#555555",
  ),
]

/** A style with other faces and colours; what else it says stays. */
function dressed(key: string, style: Style, look: LookSet): Style {
  const letters = { ...style.letters }
  if (style.kind === "letters")
    return letters.colour === undefined ? style : { ...style, letters: { ...letters, ...look.aside } }
  if (key === "title" || key === "subtitle")
    return {
      ...style,
      letters: { ...letters, ...look.title, ...(key === "subtitle" ? { ...look.aside, bold: false } : {}) },
    }
  if (key === headingsStyle) return { ...style, letters: { ...letters, ...look.heading } }
  if (style.parent === headingsStyle) {
    // What all headings share they have from there.
    const { family: _family, colour: _colour, caps: _caps, bold: _bold, ...rest } = letters
    return { ...style, letters: rest }
  }
  if (style.outline !== null) return { ...style, letters: { ...letters, ...look.heading } }
  if (key === bodyStyle) {
    const { family: _family, colour: _colour, ...rest } = letters
    return { ...style, letters: rest }
  }
  return key === "quotation" || letters.colour !== undefined
    ? { ...style, letters: { ...letters, ...look.aside } }
    : style
}

/** A style sheet in a set of faces and colours. */
export function inSet(sheet: StyleSheet, look: LookSet): StyleSheet {
  return {
    ...sheet,
    defaults: { ...sheet.defaults, letters: { ...sheet.defaults.letters, ...look.text } },
    styles: Object.fromEntries(Object.entries(sheet.styles).map(([key, style]) => [key, dressed(key, style, look)])),
  }
}
