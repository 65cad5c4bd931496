/** Writes down pictures as PNG (ISO/IEC 15948), point by point: for demo and measurements. */
import { crc32, deflateSync } from "node:zlib"

function chunk(name: string, data: Buffer): Buffer {
  const body = Buffer.concat([Buffer.from(name, "latin1"), data])
  const out = Buffer.alloc(body.length + 8)
  out.writeUInt32BE(data.length, 0)
  body.copy(out, 4)
  out.writeUInt32BE(crc32(body), body.length + 4)
  return out
}

/** @param colourAt red, green and blue of a pixel, 0 to 255 */
export function writePng(
  width: number,
  height: number,
  colourAt: (x: number, y: number) => readonly [number, number, number],
): Uint8Array<ArrayBuffer> {
  const row = 1 + 3 * width
  const raw = Buffer.alloc(row * height)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [r, g, b] = colourAt(x, y)
      const at = y * row + 1 + 3 * x
      raw[at] = Math.round(r)
      raw[at + 1] = Math.round(g)
      raw[at + 2] = Math.round(b)
    }
  const head = Buffer.alloc(13)
  head.writeUInt32BE(width, 0)
  head.writeUInt32BE(height, 4)
  head.set([8, 2, 0, 0, 0], 8)
  const parts = [chunk("IHDR", head), chunk("IDAT", deflateSync(raw)), chunk("IEND", Buffer.alloc(0))]
  return new Uint8Array(Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]), ...parts]))
}
