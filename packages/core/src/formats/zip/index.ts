/** Archives: files by their paths, within bounds. Nothing of them reaches a disk. */
import { unzipSync } from "fflate"
import { ReadingError } from "../../document/reading"

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
    const found = unzipSync(bytes, { filter })
    return new Map(Object.entries(found).map(([name, file]) => [cleanPath(name), file]))
  } catch (error) {
    if (error instanceof ReadingError) throw error
    throw new ReadingError("Its archive is damaged and cannot be unpacked")
  }
}
