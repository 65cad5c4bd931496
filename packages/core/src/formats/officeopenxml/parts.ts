/** The package: its parts by path, and what they refer to (ISO/IEC 29500-2). */
import { ReadingError } from "../../document/reading"
import { childrenNamed, parseXml, xmlText, type XmlElement, type XmlOptions } from "../xml/parsing"
import { cleanPath, isZip, unzip } from "../zip"
import { prefixOf } from "./names"

export interface Relation {
  /** The last word of its type: "header", "image". */
  type: string
  /** Path of a part, or an address outside. */
  target: string
  external: boolean
}

/** By what they are called where they are referred to. */
export type Relations = ReadonlyMap<string, Relation>

/** First bytes of the binary files that went before, in which protected ones are wrapped too. */
const older = [0xd0, 0xcf, 0x11, 0xe0]

const folderOf = (path: string) => path.slice(0, path.lastIndexOf("/") + 1)

export class Parts {
  /** Paths of parts that could not be read to their end. */
  readonly damaged = new Set<string>()

  /** Names of parts count in any case of letters. */
  private readonly files: ReadonlyMap<string, Uint8Array>

  private constructor(files: ReadonlyMap<string, Uint8Array>) {
    this.files = new Map([...files].map(([path, bytes]) => [path.toLowerCase(), bytes]))
  }

  /** @throws ReadingError */
  static open(bytes: Uint8Array): Parts {
    if (older.every((byte, i) => bytes[i] === byte))
      throw new ReadingError("It is protected by a password, or of an older kind: save it anew without a password")
    if (!isZip(bytes)) throw new ReadingError("It is no Office Open XML document")
    return new Parts(unzip(bytes))
  }

  has(path: string): boolean {
    return this.files.has(path.toLowerCase())
  }

  bytes(path: string): Uint8Array | undefined {
    return this.files.get(path.toLowerCase())
  }

  private readonly texts = new Map<string, string>()

  /** A part as text; of one that is read twice, the same. */
  text(path: string): string {
    const bytes = this.bytes(path)
    let text = this.texts.get(path)
    if (text === undefined) this.texts.set(path, (text = bytes ? xmlText(bytes) : ""))
    return text
  }

  /** The root of a part; undefined where there is none, or nothing to be read in it. */
  xml(path: string, each?: XmlOptions["each"]): XmlElement | undefined {
    if (!this.has(path)) return undefined
    try {
      const { root, damaged } = parseXml(this.text(path), { prefix: prefixOf, ...(each ? { each } : {}) })
      if (damaged) this.damaged.add(path)
      return root
    } catch (error) {
      if (error instanceof ReadingError && each) throw error
      this.damaged.add(path)
      return undefined
    }
  }

  private readonly known = new Map<string, Relations>()

  /** What a part refers to; of the package itself with "". */
  relations(path: string): Relations {
    let found = this.known.get(path)
    if (!found) {
      const folder = folderOf(path)
      const root = this.xml(`${folder}_rels/${path.slice(folder.length)}.rels`)
      found = new Map(
        childrenNamed(root, "Relationship").map(({ attrs }) => {
          const target = attrs.Target ?? ""
          const external = attrs.TargetMode === "External"
          return [
            attrs.Id ?? "",
            {
              type: (attrs.Type ?? "").slice((attrs.Type ?? "").lastIndexOf("/") + 1),
              target: external ? target : cleanPath(target.startsWith("/") ? target : folder + target),
              external,
            },
          ]
        }),
      )
      this.known.set(path, found)
    }
    return found
  }

  /** The part that another refers to as one of a type. */
  related(path: string, type: string): string | undefined {
    for (const relation of this.relations(path).values())
      if (relation.type === type && !relation.external && this.has(relation.target)) return relation.target
    return undefined
  }
}
