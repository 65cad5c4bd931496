import type { Node } from "prosemirror-model"
import { blockText, outlineLevel, paragraphLook, type Look, type StyleSheet } from "../document"
import { lineBreaks } from "./breaking"
import type { FontLibrary } from "./fonts/library"
import { setLines } from "./lines"
import { shapeParagraph } from "./shaping"
import type { ParagraphLayout } from "./types"

interface Remembered {
  look: Look
  outline: number | null
  width: number
  layout: ParagraphLayout
}

let ids = 0

/** Sets paragraphs and remembers each by its node, as long as its look and the width stay the same. */
export class Typesetter {
  private readonly remembered = new WeakMap<Node, Remembered>()

  constructor(readonly fonts: FontLibrary) {}

  paragraph(styles: StyleSheet, node: Node, width: number): ParagraphLayout {
    const look = paragraphLook(styles, node)
    const outline = outlineLevel(styles, node)
    const known = this.remembered.get(node)
    if (known && known.look === look && known.outline === outline && known.width === width) return known.layout
    const text = blockText(node)
    const lines = setLines({
      fonts: this.fonts,
      text,
      runs: shapeParagraph(this.fonts, node, look.letters),
      // A field breaks from its neighbours as a word would.
      breaks: lineBreaks(text.replaceAll("\ufffc", "x")),
      format: look.paragraph,
      base: look.letters,
      width,
    })
    const height = lines.reduce((sum, line) => sum + line.height, 0)
    const layout = { id: ++ids, text, format: look.paragraph, outline, lines, height }
    this.remembered.set(node, { look, outline, width, layout })
    return layout
  }
}
