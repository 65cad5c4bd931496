/**
 * The paper of a sheet: its setup, and the room for text that its margins, head and foot leave. Papers are values that are made
 * once: two sheets whose text has the same room on the same paper have the same one.
 */
import type { Node } from "prosemirror-model"
import {
  edgeStory,
  edgeWidth,
  leastRoom,
  sectionsOf,
  storiesOf,
  variantFor,
  type EdgeName,
  type EdgeVariant,
  type PageSetup,
  type Section,
} from "../document"

export interface Paper {
  setup: PageSetup
  /** The room for text, in points from the upper left corner. */
  left: number
  top: number
  width: number
  height: number
  /** Keys of the stories at its head and foot. */
  head: string | null
  foot: string | null
}

/** Least space between a head or foot and the text, in points. */
const apart = 8

const papers = new WeakMap<PageSetup, Map<string, Paper>>()

function once(paper: Paper): Paper {
  const { setup, ...rest } = paper
  const key = JSON.stringify(rest)
  let known = papers.get(setup)
  if (!known) papers.set(setup, (known = new Map()))
  const same = known.get(key)
  if (!same) known.set(key, paper)
  return same ?? paper
}

/** A head or foot may be so high that the text between keeps its least room: what does not fit is not shown. */
export function edgeRoom(setup: PageSetup, edge: EdgeName): number {
  return Math.max(0, (setup.height - leastRoom) / 2 - apart - setup[edge].distance)
}

/** @param heightOf the height at which a story is set */
function paperOf(
  sections: readonly Section[],
  section: number,
  variant: EdgeVariant,
  left: boolean,
  heightOf: (key: string, setup: PageSetup, edge: EdgeName) => number,
): Paper {
  const { setup } = sections[section] as Section
  const { margins, mirrored, gutter } = setup
  const [head, foot] = (["head", "foot"] as const).map((edge) => edgeStory(sections, section, edge, variant))
  const room = (edge: EdgeName, key: string | null | undefined, margin: number) =>
    key
      ? Math.max(margin, setup[edge].distance + Math.min(edgeRoom(setup, edge), heightOf(key, setup, edge)) + apart)
      : margin
  const top = room("head", head, margins.top)
  const bottom = room("foot", foot, margins.bottom)
  const turned = mirrored && left
  return once({
    setup,
    left: turned ? margins.right : margins.left + gutter,
    top,
    width: edgeWidth(setup),
    height: Math.max(leastRoom, setup.height - top - bottom),
    head: head ?? null,
    foot: foot ?? null,
  })
}

/** The papers of a document. */
export class Papers {
  private readonly sections: readonly Section[]
  /** For each section: of its first sheet and of others, each as right and as left. */
  private readonly bySection: readonly Paper[][]
  /** Whether it matters on which side a sheet lies. */
  readonly sided: boolean

  constructor(doc: Node, heightOf: (story: Node, setup: PageSetup, edge: EdgeName) => number) {
    this.sections = sectionsOf(doc)
    const stories = storiesOf(doc)
    const known = new Map<PageSetup, Map<string, number>>()
    // The same story stands on sheets of all kinds.
    const height = (key: string, setup: PageSetup, edge: EdgeName) => {
      const own = known.get(setup) ?? new Map<string, number>()
      known.set(setup, own)
      const story = stories.get(key)
      const high = own.get(`${edge} ${key}`) ?? (story ? heightOf(story.node, setup, edge) : 0)
      own.set(`${edge} ${key}`, high)
      return high
    }
    this.sided = this.sections.some(
      ({ setup }) => setup.mirrored || setup.leftRight || setup.begins === "odd" || setup.begins === "even",
    )
    this.bySection = this.sections.map(({ setup }, section) =>
      [true, false].flatMap((first) =>
        [false, true].map((left) => paperOf(this.sections, section, variantFor(setup, first, left), left, height)),
      ),
    )
  }

  of(section: number, first: boolean, left: boolean): Paper {
    return this.bySection[section]?.[(first ? 0 : 2) + (left ? 1 : 0)] as Paper
  }

  /** The one of all sheets, where there is but one. */
  get only(): Paper | null {
    const [first, ...others] = this.bySection.flat()
    return first && others.every((paper) => paper === first) ? first : null
  }

  /** Whether the papers of another document are the same, section by section. */
  sameAs(other: Papers): boolean {
    return (
      this.bySection.length === other.bySection.length &&
      this.sided === other.sided &&
      this.bySection.every((own, i) => own.every((paper, n) => paper === other.bySection[i]?.[n]))
    )
  }
}
