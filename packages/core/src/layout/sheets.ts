/** Composes one sheet of paper, or one strip of the flow view, from where it starts. */
import type { Node } from "prosemirror-model"
import { blocksOf, bodyOf, documentAttrs, labelsOf, leavesIn, type PageSetup } from "../document"
import { beginning, isBeginning } from "./boxes"
import { FlowSetter, type Filled, type Flowing, type Region } from "./flow"
import type { Typesetter } from "./paragraph"
import type { Break, LayoutSpec, Placed, Sheet, Stack } from "./types"

/** Where a sheet starts: the first leaf of a block of the body, and where that goes on. */
export interface SheetPlace {
  leaf: number
  at: Break
}

/** How many leaves the body of a document has. */
export function leavesOfBody(doc: Node): number {
  const blocks = blocksOf(bodyOf(doc))
  return blocks.leaf(blocks.nodes.length)
}

let ids = 0

/** The height at which a strip of the flow view ends, and the bounds within which it keeps an earlier end. */
const strip = { wanted: 900, least: 300, most: 1800 }

/** Text is set into no less than this, in points, whatever the margins leave. */
const leastRoom = 36

export class SheetComposer {
  /** Leaves of the body. */
  readonly count: number
  private readonly body: Flowing
  private readonly setter: FlowSetter
  /** The setup of each section, with the block with which it begins. */
  private readonly sections: readonly { block: number; setup: PageSetup }[]

  constructor(
    typesetter: Typesetter,
    doc: Node,
    private readonly spec: LayoutSpec,
  ) {
    const { styles, typesetting, setup } = documentAttrs(doc)
    const blocks = blocksOf(bodyOf(doc))
    this.body = { blocks, firstLeaf: 0 }
    this.count = leavesOfBody(doc)
    this.setter = new FlowSetter(typesetter, { styles, typesetting, flow: spec.mode === "flow" }, labelsOf(doc))
    this.sections = [
      { block: 0, setup },
      ...(blocks.flat
        ? []
        : blocks.nodes.flatMap((node, i) =>
            node.type.name === "sectionBreak" ? { block: i + 1, setup: node.attrs.setup as PageSetup } : [],
          )),
    ]
  }

  /** The setup of all sheets, where there is one section; null in flow, undefined where there are more. */
  get onlySetup(): PageSetup | null | undefined {
    return this.spec.mode === "flow" ? null : this.sections.length === 1 ? this.sections[0]?.setup : undefined
  }

  /** The setup of a sheet that begins with a leaf; null in flow, which has none. */
  setupAt(leaf: number): PageSetup | null {
    if (this.spec.mode === "flow") return null
    const block = this.body.blocks.at(leaf)
    return (this.sections.findLast((section) => section.block <= block) ?? this.sections[0])?.setup ?? null
  }

  /** The first leaf behind the block that a place is in, or the place's own if that is not begun. */
  behind({ leaf, at }: SheetPlace): number {
    const node = this.body.blocks.nodes[this.body.blocks.at(leaf)]
    return leaf + (isBeginning(at) || !node ? 0 : leavesIn(node))
  }

  /** @param wantedEnd in flow, the leaf before which the strip should end if it gets a fair height */
  compose(start: SheetPlace, wantedEnd: number | null): Sheet {
    return this.spec.mode === "flow" ? this.composeStrip(start, wantedEnd, this.spec) : this.composeSheet(start)
  }

  private composeSheet(start: SheetPlace): Sheet {
    const { blocks } = this.body
    const setup = this.setupAt(start.leaf) as PageSetup
    const { width, height, margins } = setup
    const region: Region = {
      width: Math.max(leastRoom, width - margins.left - margins.right),
      height: Math.max(leastRoom, height - margins.top - margins.bottom),
      top: 0,
      fresh: true,
    }
    const filled = this.setter.fill(this.body, region, { block: blocks.at(start.leaf), at: start.at })
    const ends = blocks.nodes[filled.next.block]?.type.name === "sectionBreak"
    const next = ends ? { block: filled.next.block + 1, at: beginning } : filled.next
    return this.sheet(
      start,
      setup,
      { width, height },
      { ...filled, next },
      column(filled, region, margins.left, margins.top),
    )
  }

  private composeStrip(start: SheetPlace, wantedLeaf: number | null, spec: LayoutSpec & { mode: "flow" }): Sheet {
    const { blocks } = this.body
    const first = blocks.at(start.leaf)
    const wantedEnd = wantedLeaf === null ? null : blocks.at(wantedLeaf)
    const ends = (y: number, block: number) => {
      const keepsEnd = wantedEnd !== null && wantedEnd > first && y < strip.most
      return keepsEnd && y >= strip.least ? block >= wantedEnd || y >= strip.most : y >= strip.wanted && !keepsEnd
    }
    const region: Region = {
      width: Math.max(leastRoom, spec.width - 2 * spec.margin),
      height: Infinity,
      top: start.leaf === 0 && isBeginning(start.at) ? spec.margin : 0,
      fresh: true,
      endless: { ends, longest: strip.most },
    }
    const filled = this.setter.fill(this.body, region, { block: first, at: start.at })
    return this.sheet(
      start,
      null,
      { width: spec.width, height: filled.height + (filled.atEnd ? spec.margin : 0) },
      filled,
      column(filled, region, spec.margin, 0),
    )
  }

  private sheet(
    start: SheetPlace,
    setup: PageSetup | null,
    { width, height }: { width: number; height: number },
    { next, lookedAt }: Pick<Filled, "next" | "lookedAt">,
    only: Placed<Stack>,
  ): Sheet {
    return {
      id: ++ids,
      width,
      height,
      start: { setup, at: start.at },
      next: { leaf: this.body.blocks.leaf(next.block) - start.leaf, at: next.at },
      lookedAt: Math.max(0, lookedAt - start.leaf),
      columns: [only],
    }
  }
}

function column({ inside, height }: Filled, { width }: Region, x: number, y: number): Placed<Stack> {
  return { box: { kind: "stack", role: "column", width, height, inside }, leaf: 0, x, y }
}
