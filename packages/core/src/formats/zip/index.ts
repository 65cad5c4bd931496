/** Archives: files by their paths, within bounds. Nothing of them reaches a disk. */
import { unzipSync } from "fflate"
import { ReadingError } from "../../document/reading"
import { entriesIn, type Entry, type Inflate } from "./entries"

export { deflateWith, zip } from "./writing"

/** Bytes that one file may come to, and all that are read of one archive; files in it. */
const zipLimits = { file: 256 * 1024 * 1024, all: 768 * 1024 * 1024, files: 20_000 }

export function isZip(bytes: Uint8Array): boolean {
  return bytes[0] === 0x50 && bytes[1] === 0x4b && (bytes[2] === 3 || bytes[2] === 5)
}

/** "/Word\\document.xml" and "word/./document.xml" are one path. */
export function cleanPath(path: string): string {
  const parts: string[] = []
  for (const part of path.replaceAll("\\", "/").split("/")) {
    if (part === "..") parts.pop()
    else if (part !== "" && part !== ".") parts.push(part)
  }
  return parts.join("/")
}

let inflate: Inflate | null = null

/** From now on plain archives are unpacked with what a platform brings along, which is quicker. */
export function inflateWith(own: Inflate): void {
  inflate = own
}

/** The files of a plain archive; null for others, and where anything about it is not as it says. */
function quickly(bytes: Uint8Array, wanted: (entry: Entry) => boolean, own: Inflate): Map<string, Uint8Array> | null {
  const entries = entriesIn(bytes)
  if (!entries) return null
  const files = new Map<string, Uint8Array>()
  for (const entry of entries) {
    if (!wanted(entry)) continue
    try {
      const file = entry.deflated ? own(entry.packed, entry.originalSize) : Uint8Array.from(entry.packed)
      if (file.length !== entry.originalSize) return null
      files.set(cleanPath(entry.name), file)
    } catch {
      return null
    }
  }
  return files
}

/** Paths of the files of an archive. @throws ReadingError */
export function pathsIn(bytes: Uint8Array): Set<string> {
  const paths = new Set<string>()
  unzip(bytes, (path) => {
    paths.add(path)
    return false
  })
  return paths
}

/**
 * The files of an archive by their paths, of one in it twice the last.
 * @param wanted says which are needed; the others are not unpacked
 * @throws ReadingError
 */
export function unzip(bytes: Uint8Array, wanted: (path: string) => boolean = () => true): Map<string, Uint8Array> {
  let all = 0
  let files = 0
  const filter = ({ name, originalSize }: { name: string; originalSize: number }) => {
    if (++files > zipLimits.files) throw new ReadingError("Its archive holds too many files")
    if (name.endsWith("/") || !wanted(cleanPath(name))) return false
    all += originalSize
    if (originalSize > zipLimits.file || all > zipLimits.all)
      throw new ReadingError("Its archive unpacks to more than this program reads")
    return true
  }
  try {
    const quick = inflate && quickly(bytes, filter, inflate)
    if (quick) return quick
    all = files = 0
    const found = unzipSync(bytes, { filter })
    return new Map(Object.entries(found).map(([name, file]) => [cleanPath(name), file]))
  } catch (error) {
    if (error instanceof ReadingError) throw error
    throw new ReadingError("Its archive is damaged and cannot be unpacked")
  }
}
