import { Fragment, Slice, type Node } from "prosemirror-model"
import type { ParagraphFormat } from "../../document"

/** What gives letters a look of their own, as against stress and links. */
const ownLook = new Set(["family", "size", "colour"])

/** The same text in the look of where it lands: words keep their stress and links, headings their style. */
export function inLocalLook(slice: Slice, style: string, format: Partial<ParagraphFormat> | null): Slice {
  const local = (node: Node): Node => {
    if (!node.isTextblock) return node.copy(Fragment.from(node.content.content.map(local)))
    const children = node.content.content.map((child) => child.mark(child.marks.filter((mark) => !ownLook.has(mark.type.name))))
    const heading = String(node.attrs.style).startsWith("heading")
    return node.type.create(heading ? { style: node.attrs.style as string, format: null } : { style, format }, children)
  }
  return new Slice(Fragment.from(slice.content.content.map(local)), slice.openStart, slice.openEnd)
}
