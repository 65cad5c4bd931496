import { Fragment, Slice, type Node } from "prosemirror-model"
import type { ParagraphFormat } from "../../document"

/** What words keep: stress, what they mean, where they lead. All else is the look of where they came from. */
const kept = new Set(["bold", "italic", "underline", "strike", "script", "language", "letterStyle", "link", "place"])

/** The same text in the look of where it lands: words keep their stress and links, headings their style. */
export function inLocalLook(slice: Slice, style: string, format: Partial<ParagraphFormat> | null): Slice {
  const local = (node: Node): Node => {
    if (!node.isTextblock) return node.copy(Fragment.from(node.content.content.map(local)))
    const children = node.content.content.map((child) =>
      child.mark(child.marks.filter((mark) => kept.has(mark.type.name))),
    )
    const heading = String(node.attrs.style).startsWith("heading")
    // An item stays one.
    const list = (node.attrs.format as Partial<ParagraphFormat> | null)?.list
    return node.type.create(
      heading
        ? { style: node.attrs.style as string, format: null }
        : { style, format: list ? { ...format, list } : format },
      children,
    )
  }
  return new Slice(Fragment.from(slice.content.content.map(local)), slice.openStart, slice.openEnd)
}
