/** Comments while a file is written: where those begin and end that stand on its text, each once, by numbers. */
import type { Node } from "prosemirror-model"
import { commentsOn, documentAttrs, entryOf, leavesOf, leavesOfBody, type Comment } from "../document"

export class WrittenComments {
  readonly written = new Map<number, Comment>()
  /** How much of the text of each is still to be written: the pieces that are written need not be those of the document. */
  private readonly toCome = new Map<string, number>()
  private readonly numbers = new Map<string, number>()

  constructor(private readonly doc: Node) {
    if (Object.keys(documentAttrs(doc).comments).length === 0) return
    for (const leaf of leavesOf(doc).between(0, leavesOfBody(doc)))
      leaf.forEach((child) => {
        for (const key of commentsOn(child)) this.toCome.set(key, (this.toCome.get(key) ?? 0) + child.nodeSize)
      })
  }

  /** What begins before a piece of text, and what ends behind it; to be asked once for each, in the order of the text. */
  around(node: Node): { begins: number[]; ends: number[] } {
    const begins: number[] = []
    const ends: number[] = []
    for (const key of commentsOn(node)) {
      const comment = entryOf(documentAttrs(this.doc).comments, key)
      const toCome = this.toCome.get(key)
      if (!comment || toCome === undefined) continue
      let number = this.numbers.get(key)
      if (number === undefined) {
        this.numbers.set(key, (number = this.numbers.size + 1))
        this.written.set(number, comment)
        begins.push(number)
      }
      this.toCome.set(key, toCome - node.nodeSize)
      if (toCome === node.nodeSize) ends.push(number)
    }
    return { begins, ends }
  }
}
