/**
 * Stories: texts of their own beside the body, by key. What stands in the text for a note or a text box is an anchor with the
 * story's key; headers and footers have none, they belong to a section.
 */
import type { Node } from "prosemirror-model"
import { isLeaf, leavesOf, ofStories } from "./leaves"
import type { StoryKind } from "./schema"

const anchored: Readonly<Record<StoryKind, boolean>> = {
  header: false,
  footer: false,
  note: true,
  endnote: true,
  textBox: true,
}

/** Whether a story stands and falls with an anchor in the text. */
export function hasAnchor(story: Node): boolean {
  return anchored[story.attrs.kind as StoryKind]
}

export interface PlacedStory {
  node: Node
  /** Position before it. */
  pos: number
}

/** The stories of a document by key, in its order. */
export interface Stories {
  readonly size: number
  has(key: string): boolean
  get(key: string): PlacedStory | undefined
  keys(): IterableIterator<string>
  values(): PlacedStory[]
}

/** Stories by key, each with the distance from the end of the body; of those with one key the first. */
const besideOf = ofStories((stories): ReadonlyMap<string, PlacedStory> => {
  const beside = new Map<string, PlacedStory>()
  for (const story of stories) {
    const key = story.node.attrs.key as string
    if (!beside.has(key)) beside.set(key, story)
  }
  return beside
})

export function storiesOf(doc: Node): Stories {
  const beside = besideOf(doc)
  const end = doc.firstChild?.nodeSize ?? 0
  const placed = ({ node, pos }: PlacedStory) => ({ node, pos: end + pos })
  return {
    size: beside.size,
    has: (key) => beside.has(key),
    get: (key) => {
      const own = beside.get(key)
      return own && placed(own)
    },
    keys: () => beside.keys(),
    values: () => [...beside.values()].map(placed),
  }
}

/** The number of the first leaf of a story; undefined for a key that no story has. */
export function firstLeafOf(doc: Node, key: string): number | undefined {
  const story = storiesOf(doc).get(key)
  return story && leavesOf(doc).at(story.pos + 2)
}

const inLeaf = new WeakMap<Node, readonly { key: string; offset: number }[]>()
const none: readonly { key: string; offset: number }[] = []

/** The anchors of a leaf, by offset. */
export function anchorsIn(leaf: Node): readonly { key: string; offset: number }[] {
  let anchors = inLeaf.get(leaf)
  if (!anchors) {
    const found: { key: string; offset: number }[] = []
    leaf.forEach((child, offset) => {
      if (child.type.name === "anchor") found.push({ key: child.attrs.story as string, offset })
    })
    inLeaf.set(leaf, (anchors = found.length > 0 ? found : none))
  }
  return anchors
}

/** A document in which every anchor stands in the body and has its story and every story that wants one its anchor: what is over is left out. */
export function withoutOrphans(doc: Node): Node {
  const stories = storiesOf(doc)
  const seen = new Set<string>()
  const kept = (node: Node, inBody: boolean): Node => {
    if (isLeaf(node)) {
      const good = (child: Node) => {
        if (child.type.name !== "anchor") return true
        if (!inBody) return false
        const key = child.attrs.story as string
        const story = stories.get(key)?.node
        if (seen.has(key) || !story || !hasAnchor(story)) return false
        seen.add(key)
        return true
      }
      const children = node.children.filter(good)
      return children.length === node.childCount ? node : node.type.create(node.attrs, children, node.marks)
    }
    const children = node.children.map((child) => kept(child, inBody))
    return children.every((child, i) => child === node.child(i))
      ? node
      : node.copy(node.type.create(node.attrs, children).content)
  }
  const [body, ...beside] = doc.children.map((part, i) => kept(part, i === 0)) as [Node, ...Node[]]
  const own = beside.filter(
    (story, i) =>
      stories.get(story.attrs.key as string)?.node === doc.child(i + 1) &&
      (!hasAnchor(story) || seen.has(story.attrs.key as string)),
  )
  const parts = [body, ...own]
  return parts.length === doc.childCount && parts.every((part, i) => part === doc.child(i))
    ? doc
    : doc.type.create(doc.attrs, parts)
}
