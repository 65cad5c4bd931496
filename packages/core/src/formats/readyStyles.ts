import { defaultStyles, headingsStyle, type Style } from "../document"

/** Adds the styles that each document has and a file does not speak of; they look like what stands round them. */
export function addReadyStyles(styles: Record<string, Style>): void {
  for (const [key, own] of Object.entries(defaultStyles.styles)) {
    if (Object.hasOwn(styles, key)) continue
    const { family: _family, colour: _colour, ...letters } = own.letters
    styles[key] = { ...own, letters, ...(key === headingsStyle ? { paragraph: {}, letters: {} } : {}) }
  }
}
