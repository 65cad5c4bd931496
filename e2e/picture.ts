/** A picture made for tests: a disc on a ground, or stripes, as PNG. */
import { deflateSync } from "node:zlib"

const table = Array.from({ length: 256 }, (_, n) => {
  let own = n
  for (let k = 0; k < 8; k++) own = own & 1 ? 0xedb88320 ^ (own >>> 1) : own >>> 1
  return own >>> 0
})
const crc = (bytes: Buffer) => {
  let own = 0xffffffff
  for (const byte of bytes) own = (table[(own ^ byte) & 255] as number) ^ (own >>> 8)
  return (own ^ 0xffffffff) >>> 0
}

function chunk(name: string, data: Buffer): Buffer {
  const body = Buffer.concat([Buffer.from(name, "latin1"), data])
  const out = Buffer.alloc(body.length + 8)
  out.writeUInt32BE(data.length, 0)
  body.copy(out, 4)
  out.writeUInt32BE(crc(body), body.length + 4)
  return out
}

/** @returns the bytes of a PNG: a dark disc on a light ground */
export function discPng(width: number, height: number): Buffer {
  const row = 1 + 3 * width
  const raw = Buffer.alloc(row * height)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const inside = Math.hypot((x - width / 2) / (width / 2), (y - height / 2) / (height / 2)) < 0.7
      raw.set(inside ? [122, 31, 75] : [233, 227, 214], y * row + 1 + 3 * x)
    }
  const head = Buffer.alloc(13)
  head.writeUInt32BE(width, 0)
  head.writeUInt32BE(height, 4)
  head.set([8, 2, 0, 0, 0], 8)
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]),
    chunk("IHDR", head),
    chunk("IDAT", deflateSync(raw)),
    chunk("IEND", Buffer.alloc(0)),
  ])
}
