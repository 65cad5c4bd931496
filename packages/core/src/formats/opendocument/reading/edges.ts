/**
 * Heads and feet of sections. Every master page tells of its own, where a section here has those of the section before it until it
 * gets others: what is alike goes on, and where a master page has none, an empty line stands in place of what would go on.
 */
import { edgeNames, edgeVariants, paragraph, type EdgeName, type EdgeVariant, type PageSetup } from "../../../document"
import type { Node } from "prosemirror-model"
import type { Book } from "./book"

export class SectionEdges {
  /** Keys of the stories that stand at the edges of sheets by now. */
  private readonly shown = new Map<string, string>()
  private readonly used = new Set<string>()

  constructor(private readonly book: Book) {}

  /** The setup of a section that begins behind those that were met. */
  behind(setup: PageSetup): PageSetup {
    const own = edgeNames.map((edge) => {
      const variants = edgeVariants.map((variant) => [variant, this.own(setup, edge, variant)])
      return [edge, { ...setup[edge], ...Object.fromEntries(variants) }]
    })
    return { ...setup, ...Object.fromEntries(own) }
  }

  /** The stories of the document: all but heads and feet that no section has. */
  get stories(): Node[] {
    return this.book.stories.filter(({ attrs }) => {
      const isEdge = attrs.kind === "header" || attrs.kind === "footer"
      return !isEdge || this.used.has(attrs.key as string)
    })
  }

  private own(setup: PageSetup, edge: EdgeName, variant: EdgeVariant): string | null {
    const place = `${edge} ${variant}`
    const before = this.shown.get(place)
    let own = setup[edge][variant]
    if (own === null) {
      const isAsked = variant === "all" || (variant === "first" ? setup.firstOwn : setup.leftRight)
      if (before === undefined || !isAsked) return null
      own = this.book.edge(edge === "head" ? "header" : "footer", [paragraph()])
    }
    if (before !== undefined && this.content(own)?.eq(this.content(before)!)) return null
    this.shown.set(place, own)
    this.used.add(own)
    return own
  }

  private content(key: string) {
    return this.book.stories.find(({ attrs }) => attrs.key === key)?.content
  }
}
