/** A picture for the demo documents: the estuary in the evening, drawn point by point and written down as PNG. */
import { writePng } from "./png"

type Colour = readonly [number, number, number]

const mix = (a: Colour, b: Colour, part: number): Colour => [
  a[0] + (b[0] - a[0]) * part,
  a[1] + (b[1] - a[1]) * part,
  a[2] + (b[2] - a[2]) * part,
]

const size = 480
const horizon = 250

function colourAt(x: number, y: number): Colour {
  const bank = horizon - 16 - 8 * Math.sin(x / 55) - 5 * Math.sin(x / 17)
  // The ferry: ramps at both ends, a house, and the chain that she is hauled along.
  const deck = x > 150 && x < 330 && y > 268 && y < 290 - Math.abs(x - 240) / 30
  const hull = y >= 286 && y < 304 && x > 150 + (y - 286) && x < 330 - (y - 286)
  const house = x > 205 && x < 262 && y > 232 && y < 270
  const window = x > 216 && x < 250 && y > 242 && y < 256
  const ramp =
    (x <= 152 && x > 118 && Math.abs(y - (268 + (152 - x) * 0.42)) < 3) ||
    (x >= 328 && x < 362 && Math.abs(y - (268 + (x - 328) * 0.42)) < 3)
  if (window) return [244, 227, 181]
  if (house) return [233, 227, 214]
  if (hull) return [122, 31, 75]
  if (deck || ramp) return [94, 70, 48]
  if (Math.abs(y - 300 - 5 * Math.sin((x - 60) / 80)) < 1.2) return [60, 52, 46]
  if (y < horizon) {
    const sun = Math.hypot(x - 350, y - 170)
    if (sun < 34) return [246, 214, 150]
    if (y > bank) return [84, 96, 72]
    const sky = mix([186, 205, 214], [244, 214, 178], y / horizon)
    return sun < 90 ? mix(sky, [246, 214, 150], (90 - sun) / 160) : sky
  }
  const wave = Math.sin(y * 0.55 + 3 * Math.sin(x / 31 + y / 9)) * (0.25 + (y - horizon) / 900)
  const water = mix([150, 172, 178], [48, 84, 104], (y - horizon) / (size - horizon))
  const glow = Math.max(0, 1 - Math.abs(x - 350) / (26 + (y - horizon) / 5))
  return mix(mix(water, [236, 240, 238], Math.max(0, wave) * 0.5), [246, 214, 150], glow * 0.55)
}

/** @returns the bytes of a PNG of 480 by 480 pixels */
export function estuary(): Uint8Array {
  return writePng(size, size, colourAt)
}
