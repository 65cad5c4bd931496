/** Parts as office documents carry them: something round the blocks of a part that has its name, and a mark that says it is a part. */
import { asName, partSigns, type NamedPart, type PartName } from "../document"

/** Where a part begins, among blocks that are read. */
export interface PartStart {
  part: PartName
}

export const isPartStart = (block: object): block is PartStart => "part" in block

const marked = /^part(?:-\d+)?(?:-([a-z]+))?$/

/** The mark of a part: its number, if marks have to differ, and its sign. */
export function partMark({ sign }: NamedPart, number: number | null): string {
  return ["part", ...(number === null ? [] : [number]), ...(sign ? [sign] : [])].join("-")
}

/** The part that a mark and a name tell of; null where the mark is another's. */
export function partMarked(mark: string | undefined, name: string | undefined): PartStart | null {
  const found = marked.exec(mark ?? "")
  const fit = asName(name ?? "")
  if (!found || fit === "") return null
  return { part: { name: fit, sign: partSigns.find((own) => own === found[1]) ?? null } }
}
