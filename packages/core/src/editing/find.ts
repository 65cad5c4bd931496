/** Finding text and looks, and replacing them. A hit lies inside one paragraph; formatting does not hide it. */
import { Fragment, type Mark, type Node } from "prosemirror-model"
import { TextSelection } from "prosemirror-state"
import {
  documentAttrs,
  entryOf,
  leavesOf,
  letterLook,
  paragraphAttrs,
  paragraphLook,
  schema,
  textOf,
  type LetterFormat,
  type StyleSheet,
} from "../document"
import type { Command } from "./command"
import { named } from "./history"

export interface LookQuery {
  style?: string
  bold?: boolean
  italic?: boolean
  family?: string
  colour?: string
}

export interface Query {
  /** May be empty if a look is asked for. */
  text: string
  matchCase: boolean
  wholeWords: boolean
  /** The text is a regular expression. */
  pattern: boolean
  look: LookQuery
  /** Positions between which to search; null for everywhere. */
  within: { from: number; to: number } | null
}

export const noQuery: Query = { text: "", matchCase: false, wholeWords: false, pattern: false, look: {}, within: null }

/** Offsets in a paragraph. */
export interface Hit {
  from: number
  to: number
  /** For a pattern what it matched: as a whole, and in its groups by number and by name. */
  match?: { groups: readonly (string | undefined)[]; named: Readonly<Record<string, string | undefined>> }
}

/** A hit with its paragraph's number. */
export interface PlacedHit extends Hit {
  leaf: number
}

const wordBefore = "(?<![\\p{L}\\p{N}_])"
const wordAfter = "(?![\\p{L}\\p{N}_])"

/** The expression that finds a query's text; null if it has none. @throws SyntaxError for a pattern that is none, in words */
export function expressionOf({ text, matchCase, wholeWords, pattern }: Query): RegExp | null {
  if (text === "") return null
  const source = pattern ? `(?:${text})` : text.replace(/[\\^$.*+?()[\]{}|/]/g, "\\$&")
  try {
    return new RegExp(wholeWords ? `${wordBefore}${source}${wordAfter}` : source, matchCase ? "gu" : "giu")
  } catch (error) {
    const reason = /: ([^:]+)$/.exec((error as Error).message)?.[1] ?? "it is not complete"
    throw new SyntaxError(`This pattern cannot be used: ${reason.toLowerCase()}`)
  }
}

/** All places of an expression in a text; empty ones are passed over. @param withGroups for what is put in their place */
export function findInText(expression: RegExp, text: string, withGroups = false): Hit[] {
  const hits: Hit[] = []
  expression.lastIndex = 0
  for (let match = expression.exec(text); match; match = expression.exec(text)) {
    if (match[0] === "") expression.lastIndex++
    else
      hits.push({
        from: match.index,
        to: match.index + match[0].length,
        ...(withGroups ? { match: { groups: [...match], named: { ...match.groups } } } : {}),
      })
  }
  return hits
}

function hasLook(query: LookQuery): boolean {
  return Object.values(query).some((value) => value !== undefined)
}

/** The stretches of a paragraph whose letters look as asked. */
function looking(query: LookQuery, styles: StyleSheet, paragraph: Node): Hit[] {
  const { style, ...letters } = query
  if (style !== undefined && paragraphAttrs(paragraph).style !== style) return []
  const base = paragraphLook(styles, paragraph).letters
  const wanted = Object.entries(letters).filter(([, value]) => value !== undefined) as [keyof LetterFormat, unknown][]
  const hits: Hit[] = []
  paragraph.forEach((child, offset) => {
    const look = letterLook(styles, base, child.marks)
    if (!wanted.every(([name, value]) => look[name] === value)) return
    const last = hits.at(-1)
    if (last && last.to === offset) last.to = offset + child.nodeSize
    else hits.push({ from: offset, to: offset + child.nodeSize })
  })
  return hits
}

/**
 * Finds the hits of one query, paragraph by paragraph; a paragraph that was searched before is not searched again. A person's
 * pattern, which may never end, is not run here: its hits are those that were learnt.
 */
export class Search {
  readonly expression: RegExp | null
  private readonly found: WeakMap<Node, readonly Hit[]>
  private readonly stretches: WeakMap<StyleSheet, WeakMap<Node, readonly Hit[]>>

  /** @param like a search for the same that differs in its range alone. @throws SyntaxError for a pattern that is none */
  constructor(
    readonly query: Query,
    like: Search | null = null,
  ) {
    this.expression = like ? like.expression : expressionOf(query)
    this.found = like ? like.found : new WeakMap()
    this.stretches = like ? like.stretches : new WeakMap()
  }

  /** The same between other positions. */
  between(range: Query["within"]): Search {
    return new Search({ ...this.query, within: range }, this)
  }

  get empty(): boolean {
    return this.expression === null && !hasLook(this.query.look)
  }

  /** Places of the text found elsewhere, such as in a worker that can be stopped. */
  learn(paragraph: Node, hits: readonly Hit[]): void {
    this.found.set(paragraph, hits)
  }

  knows(paragraph: Node): boolean {
    return this.found.has(paragraph)
  }

  hits(doc: Node, leaf: number): readonly Hit[] {
    const paragraph = leavesOf(doc).node(leaf)
    const hits = this.inParagraph(paragraph, documentAttrs(doc).styles)
    const { within } = this.query
    if (!within || hits.length === 0) return hits
    const start = leavesOf(doc).start(leaf)
    return hits.filter(({ from, to }) => start + from >= within.from && start + to <= within.to)
  }

  private inParagraph(paragraph: Node, styles: StyleSheet): readonly Hit[] {
    const { look } = this.query
    let hits: readonly Hit[] | undefined
    if (this.expression) {
      hits = this.found.get(paragraph)
      if (!hits) {
        if (this.query.pattern) return []
        this.found.set(paragraph, (hits = findInText(this.expression, textOf(paragraph))))
      }
      if (hits.length === 0 || !hasLook(look)) return hits
    }
    let known = this.stretches.get(styles)
    if (!known) this.stretches.set(styles, (known = new WeakMap()))
    let stretches = known.get(paragraph)
    if (!stretches) known.set(paragraph, (stretches = looking(look, styles, paragraph)))
    if (!hits) return hasLook(look) ? stretches : []
    const looks = stretches
    return hits.filter((hit) => looks.some((stretch) => stretch.from <= hit.from && stretch.to >= hit.to))
  }

  /** Every hit of a document. */
  all(doc: Node): PlacedHit[] {
    const hits: PlacedHit[] = []
    for (let leaf = 0; leaf < leavesOf(doc).count; leaf++)
      for (const hit of this.hits(doc, leaf)) hits.push({ leaf, ...hit })
    return hits
  }

  /** Counts them leaf by leaf, so that one can pause. */
  *counting(doc: Node): Generator<void, number> {
    let count = 0
    for (let leaf = 0; leaf < leavesOf(doc).count; leaf++) {
      count += this.hits(doc, leaf).length
      yield
    }
    return count
  }

  /** The first hit at or after a position, or with -1 the last one before it; from the other end if there is none. */
  next(doc: Node, pos: number, direction: -1 | 1): PlacedHit | null {
    const leaves = leavesOf(doc)
    const { count } = leaves
    const first = leaves.at(pos)
    for (let i = 0; i <= count; i++) {
      const leaf = (first + direction * i + count * 2) % count
      const start = leaves.start(leaf)
      const hits = this.hits(doc, leaf).filter(
        ({ from }) => i > 0 || (direction > 0 ? start + from >= pos : start + from < pos),
      )
      const hit = direction > 0 ? hits[0] : hits.at(-1)
      if (hit) return { leaf, ...hit }
    }
    return null
  }

  /** What stands in a hit's place: for a pattern, $1, $& and $<name> are filled in. */
  replacement({ match }: Hit, template: string): string {
    if (!match) return template
    const { groups, named } = match
    return template.replace(/\$(?:(\$)|(&)|(\d{1,2})|<([^>]+)>)/g, (all, dollar, whole, number, name) => {
      if (dollar) return "$"
      if (whole) return groups[0] ?? ""
      return (
        (number ? groups[Number(number)] : entryOf(named, name as string)) ??
        (number && Number(number) >= groups.length ? (all as string) : "")
      )
    })
  }
}

/** Text as content of a paragraph: a line feed is a new line in it, what stands for something that is no text is left out. */
function inline(text: string, marks: readonly Mark[]): Node[] {
  return text
    .replaceAll("\ufffc", "")
    .split("\n")
    .flatMap((line, i) => [
      ...(i > 0 ? [schema.nodes.lineBreak.create(null, null, marks)] : []),
      ...(line ? [schema.text(line, marks)] : []),
    ])
}

/** The content of a paragraph with hits replaced; what replaces a hit looks like its first letter. */
function replaced(search: Search, paragraph: Node, hits: readonly Hit[], template: string): Fragment {
  let content = Fragment.empty
  let done = (hits[0] as Hit).from
  for (const hit of hits) {
    content = content.append(paragraph.content.cut(done, hit.from))
    const marks = paragraph.nodeAt(hit.from)?.marks ?? []
    content = content.append(Fragment.from(inline(search.replacement(hit, template), marks)))
    done = hit.to
  }
  return content
}

/** Replaces hits, as one change. */
export function replaceHits(search: Search, hits: readonly PlacedHit[], template: string): Command {
  return (state, dispatch) => {
    if (hits.length === 0) return false
    if (!dispatch) return true
    const leaves = leavesOf(state.doc)
    const byLeaf = new Map<number, Hit[]>()
    for (const hit of hits) {
      const own = byLeaf.get(hit.leaf)
      if (own) own.push(hit)
      else byLeaf.set(hit.leaf, [hit])
    }
    const tr = state.tr
    let caret = state.selection.head
    for (const [leaf, own] of [...byLeaf.entries()].sort((a, b) => b[0] - a[0])) {
      const start = leaves.start(leaf)
      const content = replaced(search, leaves.node(leaf), own, template)
      const from = start + (own[0] as Hit).from
      tr.replaceWith(from, start + (own.at(-1) as Hit).to, content)
      caret = from + content.size
    }
    if (hits.length === 1) tr.setSelection(TextSelection.near(tr.doc.resolve(caret), -1))
    dispatch(named(tr, hits.length === 1 ? "Replaced one place" : `Replaced ${hits.length} places`))
    return true
  }
}
