/** Comments while a file is read: whose words they stand on, as marks. */
import type { Node } from "prosemirror-model"
import { asName, commentsOn, limits, marks, type Comment, type Comments } from "../document"

const isoDate = /^\d{4}-\d\d-\d\d(T\d\d:\d\d(:\d\d(\.\d+)?)?(Z|[+-]\d\d:\d\d)?)?$/

/** A moment as other programs take it; undefined where it is none. */
export function momentOf(at: string | undefined): string | undefined {
  return at !== undefined && isoDate.test(at) ? at : undefined
}

/** A comment within its bounds. */
export function commentOf(author: string, at: string | undefined, paragraphs: readonly string[]): Comment {
  const text = paragraphs.map((own) => own.trim()).join("\n")
  return {
    author: asName(author, limits.property),
    at: momentOf(at) ?? "",
    text: text.trim().slice(0, limits.comment),
  }
}

export class Commenting {
  private readonly known = new Map<string, Comment>()
  private readonly marked = new Set<string>()
  private readonly open = new Set<string>()
  /** Those of a place without words, for the next that come. */
  private waiting: string[] = []

  /** A key for a comment that has no name in its file. */
  newKey(): string {
    return `comment_${this.known.size + 1}`
  }

  /** The words from here on are those of a comment. */
  begin(key: string, comment: Comment): void {
    this.known.set(key, comment)
    // More than words can have are those of nothing.
    if (this.open.size < limits.commentsOnOne) this.open.add(key)
  }

  end(key: string): void {
    this.open.delete(key)
  }

  /** A comment of a single place, if it has no words yet: it is that of the words before it in the paragraph, or else of the next. */
  at(key: string, comment: Comment, before: Node[]): void {
    if (this.marked.has(key)) return
    this.known.set(key, comment)
    this.open.delete(key)
    const last = before.at(-1)
    if (!last) return void (this.waiting.length < limits.commentsOnOne && this.waiting.push(key))
    before[before.length - 1] = this.withMarks(last, [key])
  }

  /** What is read now, with the comments that stand on it. */
  on(node: Node): Node {
    if (this.open.size === 0 && this.waiting.length === 0) return node
    const keys = [...this.open, ...this.waiting]
    this.waiting = []
    return this.withMarks(node, keys)
  }

  private withMarks(node: Node, keys: readonly string[]): Node {
    const some = keys.slice(0, limits.commentsOnOne - commentsOn(node).length)
    for (const key of some) this.marked.add(key)
    return node.mark(some.reduce((all, value) => marks.comment.create({ value }).addToSet(all), node.marks))
  }

  /** Those that have words. */
  get comments(): Comments {
    return Object.fromEntries([...this.known].filter(([key]) => this.marked.has(key)))
  }

  /** How many are of nothing that is here. */
  get lost(): number {
    return this.known.size - this.marked.size
  }
}
