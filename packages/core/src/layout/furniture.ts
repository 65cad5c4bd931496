/** What stands at the heads and feet of sheets, set for each with its own number. */
import type { Node } from "prosemirror-model"
import {
  blocksOf,
  documentAttrs,
  edgeWidth,
  fieldAttrs,
  firstLeafOf,
  labelsOf,
  storiesOf,
  unknownValue,
  valuesOf,
  withName,
  type EdgeName,
  type FieldValues,
  type PageSetup,
  type StyleSheet,
  type Typesetting,
  formulasOf,
  leavesIn,
} from "../document"
import { beginning } from "./boxes"
import { FlowSetter } from "./flow"
import { headingsOn } from "./headings"
import { numbersOf, type SheetNumber } from "./numbers"
import { edgeRoom, type Paper } from "./paper"
import { setWatermark } from "./watermark"
import type { Typesetter } from "./paragraph"
import type { Furniture, Layout, PlacedSheet, Sheet } from "./types"

/** What a head or foot was set of, and what came of it. */
interface Kept {
  story: Node
  paper: Paper
  styles: StyleSheet
  typesetting: Typesetting
  /** What its fields show. */
  shown: string
  furniture: Furniture
}

/** What stands behind the text of all sheets of a setup. */
const watermarks = new WeakMap<PageSetup, { styles: StyleSheet; furniture: Furniture | null }>()

/** Sheets keep their heads and feet from one layout to the next. */
const kept = new WeakMap<Sheet, Partial<Record<EdgeName, Kept>>>()

/** Notes with the numbers that their leaves have in a document. */
export function furnitureOfNotes(doc: Node, notes: Sheet["notes"]): Furniture[] {
  return notes.flatMap(({ story, stack }) => {
    const first = firstLeafOf(doc, story)
    return first === undefined ? [] : [{ part: "note" as const, stack: { ...stack, leaf: first + stack.leaf } }]
  })
}

/** Sets heads and feet of the sheets of one layout. */
export class Furnisher {
  /** Counted once a head or foot asks for them: most reports show none. */
  private counted: readonly SheetNumber[] | null = null

  constructor(
    private readonly typesetter: Typesetter,
    private readonly layout: Layout,
    private readonly others: FieldValues,
  ) {}

  private computed: ReturnType<typeof formulasOf> | null = null

  /** What fields show in a story, whose formulas are computed. */
  private inStory(story: Node, firstLeaf: number, values: FieldValues): FieldValues {
    this.computed ??= formulasOf(this.layout.doc)
    if (this.computed.size === 0) return values
    const own = new Map<Node, string>()
    for (let leaf = firstLeaf; leaf < firstLeaf + leavesIn(story); leaf++)
      for (const [field, shown] of this.computed.get(leaf) ?? []) own.set(field, shown)
    return own.size === 0 ? values : (field, language) => own.get(field) ?? values(field, language)
  }

  private get numbers(): readonly SheetNumber[] {
    return (this.counted ??= numbersOf(this.layout))
  }

  /** The sheet with its head and foot. */
  of(index: number): PlacedSheet {
    const placed = this.layout.placed[index] as PlacedSheet
    const { paper } = placed.sheet.start
    const { notes } = placed.sheet
    const edged = paper !== null && (paper.head !== null || paper.foot !== null)
    const behind = paper?.setup.watermark && !placed.sheet.start.blank ? this.watermark(placed.sheet, paper) : null
    if (!edged && !behind && notes.length === 0) return placed
    const edges = edged ? this.set(placed.sheet, paper, index) : []
    return {
      ...placed,
      furniture: [...(behind ? [behind] : []), ...furnitureOfNotes(this.layout.doc, notes), ...edges],
    }
  }

  private watermark(sheet: Sheet, { setup }: Paper): Furniture | null {
    const { styles, typesetting } = documentAttrs(this.layout.doc)
    const known = watermarks.get(setup)
    if (known?.styles === styles) return known.furniture
    const furniture = setWatermark(this.typesetter, { styles, typesetting, values: this.others }, setup, sheet)
    watermarks.set(setup, { styles, furniture })
    return furniture
  }

  private set(sheet: Sheet, paper: Paper, index: number): readonly Furniture[] {
    const { doc } = this.layout
    const stories = storiesOf(doc)
    const values = this.values(index)
    const known = kept.get(sheet) ?? {}
    kept.set(sheet, known)
    return (["head", "foot"] as const).flatMap((edge) => {
      const key = paper[edge]
      const story = key === null ? undefined : stories.get(key)?.node
      if (!story) return []
      const furniture = this.setEdge(sheet, paper, edge, story, values, known[edge])
      known[edge] = furniture
      return furniture.furniture
    })
  }

  private setEdge(
    sheet: Sheet,
    paper: Paper,
    edge: EdgeName,
    story: Node,
    others: FieldValues,
    before: Kept | undefined,
  ): Kept {
    const { doc } = this.layout
    const { styles, typesetting } = documentAttrs(doc)
    const firstLeaf = firstLeafOf(doc, story.attrs.key as string) ?? 0
    const values = this.inStory(story, firstLeaf, others)
    const shown = shownIn(story, values, styles.defaults.letters.language)
    if (
      before?.story === story &&
      before.paper === paper &&
      before.styles === styles &&
      before.typesetting === typesetting &&
      before.shown === shown
    ) {
      const { furniture } = before
      if (furniture.stack.leaf === firstLeaf) return before
      return { ...before, furniture: { ...furniture, stack: { ...furniture.stack, leaf: firstLeaf } } }
    }
    const setter = new FlowSetter(this.typesetter, { styles, typesetting, values }, labelsOf(doc))
    const { setup, left } = paper
    const width = edgeWidth(setup)
    const region = { width, height: edgeRoom(setup, edge), top: 0, fresh: true }
    const { inside, height } = setter.fill({ blocks: blocksOf(story), firstLeaf }, region, { block: 0, at: beginning })
    const part = edge === "head" ? "header" : "footer"
    const y = edge === "head" ? setup.head.distance : sheet.height - setup.foot.distance - height
    const stack = {
      box: { kind: "stack" as const, role: part, width, height, inside },
      leaf: firstLeaf,
      x: left,
      y,
    } as const
    return { story, paper, styles, typesetting, shown, furniture: { part, stack } }
  }

  /** What fields show on a sheet. */
  private values(index: number): FieldValues {
    const { numbers } = this
    const { text, section } = numbers[index] as SheetNumber
    const { doc, marks, spec } = this.layout
    const named = withName(this.others, spec.name ?? "")
    const others: FieldValues = (field, language) => {
      const { kind, format } = fieldAttrs(field)
      switch (kind) {
        case "page":
          return text
        case "pages":
          return String(numbers.length)
        case "sectionPages":
          return String(numbers.filter((own) => own.section === section).length)
        case "heading":
          return this.headingOn(index, Number.parseInt(format) || 1, format.endsWith("last")) || unknownValue
        default:
          return named(field, language)
      }
    }
    return valuesOf(doc, others, marks)
  }

  /** The first or last heading of a level on a sheet, else the last before it. */
  private headingOn(index: number, level: number, last: boolean): string {
    for (let i = index; i >= 0; i--) {
      const { sheet } = this.layout.placed[i] as PlacedSheet
      const own = headingsOn(sheet).filter((heading) => heading.level === level)
      const found = last || i < index ? own.at(-1) : own[0]
      if (found) return found.text
    }
    return ""
  }
}

/** What the fields of a story show, one after another. */
function shownIn(story: Node, values: FieldValues, language: string): string {
  const shown: string[] = []
  story.descendants((node) => void (node.type.name === "field" && shown.push(values(node, language))))
  return shown.join("\n")
}

/** A finished layout with heads and feet on all sheets. */
export function furnished(typesetter: Typesetter, layout: Layout, others: FieldValues): Layout {
  const furnisher = new Furnisher(typesetter, layout, others)
  return { ...layout, placed: layout.placed.map((_, i) => furnisher.of(i)) }
}
