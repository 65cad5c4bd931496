/**
 * HTML as a tree, in a time that grows with its length alone: the standard's algorithm looks through all open elements for
 * each new one, so what is nested deeper than anybody would nest is not opened; its text is kept.
 */
import { Parser, type DefaultTreeAdapterTypes, type Token } from "parse5"

/** So many elements may be open at once. */
const deepest = 600

/** Elements whose content is no markup: left unopened, it would be taken for text. */
const raw = new Set([
  "script",
  "style",
  "textarea",
  "title",
  "xmp",
  "iframe",
  "noembed",
  "noframes",
  "noscript",
  "plaintext",
])

class ShallowParser extends Parser<DefaultTreeAdapterTypes.DefaultTreeAdapterMap> {
  override onStartTag(token: Token.TagToken): void {
    if (this.openElements.stackTop < deepest || raw.has(token.tagName)) super.onStartTag(token)
  }
}

export function parsePage(source: string): DefaultTreeAdapterTypes.Document {
  return ShallowParser.parse<DefaultTreeAdapterTypes.DefaultTreeAdapterMap>(source)
}

export function parsePart(source: string): DefaultTreeAdapterTypes.DocumentFragment {
  const parser = ShallowParser.getFragmentParser<DefaultTreeAdapterTypes.DefaultTreeAdapterMap>()
  parser.tokenizer.write(source, true)
  return parser.getFragment()
}
