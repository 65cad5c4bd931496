/** Archives as they are written down (ISO/IEC 21320-1): each file with its head, one after another, and a list of all of them behind. */
import { deflateSync } from "fflate"

/** Makes bytes smaller, with nothing round them (RFC 1951). */
type Deflate = (bytes: Uint8Array) => Uint8Array

/** Remainder of bytes by which damage is told (ISO 3309). */
type Checksum = (bytes: Uint8Array) => number

let deflate: Deflate = (bytes) => deflateSync(bytes, { level: 6 })
let checksum: Checksum = checksumHere

/** From now on archives are made with what a platform brings along, which is quicker. */
export function deflateWith(own: Deflate, sum: Checksum = checksumHere): void {
  deflate = own
  checksum = sum
}

const remainders = Uint32Array.from({ length: 256 }, (_, byte) => {
  let rest = byte
  for (let bit = 0; bit < 8; bit++) rest = rest & 1 ? (rest >>> 1) ^ 0xedb88320 : rest >>> 1
  return rest
})

function checksumHere(bytes: Uint8Array): number {
  let sum = 0xffffffff
  for (let i = 0; i < bytes.length; i++) sum = (sum >>> 8) ^ (remainders[(sum ^ (bytes[i] as number)) & 0xff] as number)
  return ~sum >>> 0
}

/** Numbers of two and four bytes, the lowest first. */
function numbers(parts: readonly (readonly [value: number, size: 2 | 4])[]): Uint8Array {
  const bytes = new Uint8Array(parts.reduce((sum, [, size]) => sum + size, 0))
  const view = new DataView(bytes.buffer)
  let at = 0
  for (const [value, size] of parts) {
    if (size === 2) view.setUint16(at, value, true)
    else view.setUint32(at, value, true)
    at += size
  }
  return bytes
}

/** The first of January 1980: the same files always make the same archive. */
const day = 0x21
/** Said of a name that is in UTF-8 and not in letters of the machine alone. */
const inUtf8 = 0x800
const version = 20

/** An archive of files in their order; those of `stored` lie in it as they are. */
export function zip(
  files: ReadonlyMap<string, Uint8Array>,
  stored: (path: string) => boolean = () => false,
): Uint8Array {
  const parts: Uint8Array[] = []
  const list: Uint8Array[] = []
  let length = 0
  const put = (into: Uint8Array[], ...all: readonly Uint8Array[]) => {
    for (const own of all) into.push(own)
  }
  for (const [path, file] of files) {
    const name = new TextEncoder().encode(path)
    const packed = stored(path) ? file : deflate(file)
    const smaller = packed.length < file.length
    const content = smaller ? packed : file
    const told = [
      [version, 2],
      [name.length === path.length ? 0 : inUtf8, 2],
      [smaller ? 8 : 0, 2],
      [0, 2],
      [day, 2],
      [checksum(file), 4],
      [content.length, 4],
      [file.length, 4],
      [name.length, 2],
      [0, 2],
    ] as const
    const head = numbers([[0x04034b50, 4], ...told])
    put(parts, head, name, content)
    put(list, numbers([[0x02014b50, 4], [version, 2], ...told, [0, 2], [0, 2], [0, 2], [0, 4], [length, 4]]), name)
    length += head.length + name.length + content.length
  }
  const listed = list.reduce((sum, own) => sum + own.length, 0)
  const count = files.size
  const end = numbers([
    [0x06054b50, 4],
    [0, 2],
    [0, 2],
    [count, 2],
    [count, 2],
    [listed, 4],
    [length, 4],
    [0, 2],
  ])
  const archive = new Uint8Array(length + listed + end.length)
  let at = 0
  for (const own of [...parts, ...list, end]) {
    archive.set(own, at)
    at += own.length
  }
  return archive
}
