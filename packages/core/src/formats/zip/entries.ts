/** Files of a plain archive by its list, to be unpacked by what a platform brings along. */

/** Unpacks bytes that come to so many. @throws where they do not */
export type Inflate = (bytes: Uint8Array, size: number) => Uint8Array

export interface Entry {
  name: string
  /** Bytes that it comes to. */
  originalSize: number
  deflated: boolean
  packed: Uint8Array
}

const utf8 = new TextDecoder("utf-8", { fatal: true })

/** Comments behind an archive are at most so long. */
const longestComment = 65_535

/** The files of an archive; null for one that is written in a way that is not plain. */
export function entriesIn(bytes: Uint8Array): Entry[] | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const least = Math.max(0, bytes.length - 22 - longestComment)
  let end = bytes.length - 22
  while (end >= least && view.getUint32(end, true) !== 0x06054b50) end--
  if (end < least) return null
  const [count, start] = [view.getUint16(end + 10, true), view.getUint32(end + 16, true)]
  if (count !== view.getUint16(end + 8, true) || count === 0xffff || start === 0xffffffff) return null
  const entries: Entry[] = []
  try {
    for (let n = 0, at = start; n < count; n++) {
      if (view.getUint32(at, true) !== 0x02014b50) return null
      const [flags, method] = [view.getUint16(at + 8, true), view.getUint16(at + 10, true)]
      const [size, originalSize] = [view.getUint32(at + 20, true), view.getUint32(at + 24, true)]
      const [name, extra, comment] = [28, 30, 32].map((offset) => view.getUint16(at + offset, true)) as [
        number,
        number,
        number,
      ]
      const local = view.getUint32(at + 42, true)
      const plain = (method === 0 || method === 8) && (flags & 1) === 0
      if (!plain || size === 0xffffffff || originalSize === 0xffffffff || local === 0xffffffff) return null
      if (view.getUint32(local, true) !== 0x04034b50) return null
      const from = local + 30 + view.getUint16(local + 26, true) + view.getUint16(local + 28, true)
      if (from + size > bytes.length) return null
      const letters = bytes.subarray(at + 46, at + 46 + name)
      if ((flags & 0x800) === 0 && letters.some((letter) => letter > 126)) return null
      entries.push({
        name: utf8.decode(letters),
        originalSize,
        deflated: method === 8,
        packed: bytes.subarray(from, from + size),
      })
      at += 46 + name + extra + comment
    }
  } catch {
    // A place that is not there, or a name in letters of some machine.
    return null
  }
  return entries
}
