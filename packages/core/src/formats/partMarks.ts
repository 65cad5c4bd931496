/** Parts and covers as office documents carry them: something with a name, round their blocks or where they begin, and a mark that says what they are. */
import type { Node } from "prosemirror-model"
import { asName, coverNames, nodes, partSigns, type NamedPart, type PageSetup, type PartName } from "../document"

/** Where a part begins, among blocks that are read. */
export interface PartStart {
  part: PartName
  /** Whether it is said to be the first of the document. */
  first: boolean
}

export const isPartStart = (block: object): block is PartStart => "part" in block

const marked = /^part(?:-(\d+))?(?:-([a-z]+))?$/

/** The mark of a part: its number, if marks have to differ, and its sign. */
export function partMark({ sign }: NamedPart, number: number | null): string {
  return ["part", ...(number === null ? [] : [number]), ...(sign ? [sign] : [])].join("-")
}

/** The part that a mark and a name tell of; null where the mark is another's. */
export function partMarked(mark: string | undefined, name: string | undefined): PartStart | null {
  const found = marked.exec(mark ?? "")
  const fit = asName(name ?? "")
  if (!found || fit === "") return null
  const sign = partSigns.find((own) => own === found[2]) ?? null
  return { part: { name: fit, sign }, first: found[1] === "1" }
}

/** Gives the section that was begun last the name of a part; one that begins within a section is none. */
export function nameLast(blocks: Node[], { part }: PartStart): void {
  const last = blocks.at(-1)
  if (last?.type === nodes.sectionBreak) blocks.splice(-1, 1, nodes.sectionBreak.create({ ...last.attrs, part }))
}

type CoverName = NonNullable<PageSetup["cover"]>

/** Says that the first section is a cover. */
export interface CoverStart {
  cover: CoverName
}

export const isCoverStart = (block: object): block is CoverStart => "cover" in block

export const coverMark = (design: CoverName): string => `cover-${design}`

/** The cover that a mark tells of; null where the mark is another's. */
export function coverMarked(mark: string | undefined): CoverStart | null {
  const cover = coverNames.find((own) => coverMark(own) === mark)
  return cover === undefined ? null : { cover }
}
