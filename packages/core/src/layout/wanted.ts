import type { Node } from "prosemirror-model"
import { documentAttrs, leavesOf, letterLook, paragraphLook } from "../document"
import { faceOf, ownFace, type FaceId } from "./fonts/catalogue"
import { patternsFor } from "./hyphenation"

/** What the first leaves of a document are set in: faces, and patterns of hyphenation. So they can be fetched side by side before they are asked for one by one. */
export function wantedBy(doc: Node, leaves: number): { faces: FaceId[]; patterns: string[] } {
  const { styles } = documentAttrs(doc)
  const faces = new Set<FaceId>()
  const patterns = new Set<string>()
  for (const leaf of leavesOf(doc).nodes.slice(0, leaves)) {
    const look = paragraphLook(styles, leaf)
    for (const marks of [[], ...leaf.children.map((child) => child.marks)]) {
      const { family, own, bold, italic, language } = letterLook(styles, look.letters, marks)
      faces.add((own && ownFace(own, bold, italic)) ?? faceOf(family, bold, italic))
      const name = look.paragraph.hyphenate ? patternsFor(language) : null
      if (name) patterns.add(name)
    }
    if (look.paragraph.dropCap?.family)
      faces.add(faceOf(look.paragraph.dropCap.family, look.letters.bold, look.letters.italic))
  }
  return { faces: [...faces], patterns: [...patterns] }
}
