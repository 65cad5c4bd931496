/** What is done to the colours of pictures, pixel by pixel. */
import type { PictureFormat } from "@biblon/core/document"

export interface Pixels {
  /** Red, green, blue and alpha of each, row by row. */
  data: Uint8ClampedArray
  width: number
  height: number
}

const light = (data: Uint8ClampedArray, i: number) =>
  0.2126 * (data[i] ?? 0) + 0.7152 * (data[i + 1] ?? 0) + 0.0722 * (data[i + 2] ?? 0)

/** Changes tone, brightness and contrast. @param tint #rrggbb, of the tone "tint" */
export function changeColours(
  { data }: Pixels,
  { tone, brightness, contrast }: PictureFormat["colours"],
  tint: string,
): void {
  const [r, g, b] = [1, 3, 5].map((at) => parseInt(tint.slice(at, at + 2), 16)) as [number, number, number]
  // Contrast turns round the middle; brightness moves towards white or black.
  const steep = contrast >= 0 ? 1 + 2 * contrast : 1 + contrast
  const table = Uint8ClampedArray.from({ length: 256 }, (_, value) => {
    const own = (value - 128) * steep + 128
    return brightness >= 0 ? own + (255 - own) * brightness : own * (1 + brightness)
  })
  for (let i = 0; i < data.length; i += 4) {
    if (tone !== "own") {
      const grey = light(data, i)
      if (tone === "greys") data[i] = data[i + 1] = data[i + 2] = grey
      else {
        const [red, green, blue] = tone === "sepia" ? [112, 66, 20] : [r, g, b]
        // From the tint in the dark to white in the light.
        const part = grey / 255
        data[i] = red + (255 - red) * part
        data[i + 1] = green + (255 - green) * part
        data[i + 2] = blue + (255 - blue) * part
      }
    }
    data[i] = table[data[i] ?? 0] ?? 0
    data[i + 1] = table[data[i + 1] ?? 0] ?? 0
    data[i + 2] = table[data[i + 2] ?? 0] ?? 0
  }
}

/** Pixels that are kept half when they are hardly more unlike than may be: so edges stay smooth. */
const soft = 0.35

/**
 * Makes the ground clear: all that is reached from the edges over pixels like those there. How unlike one may be is a part of the
 * greatest distance between two colours.
 */
export function cutAway({ data, width, height }: Pixels, tolerance: number): void {
  const most = tolerance * 441.7
  const reached = new Uint8Array(width * height)
  // Each pixel is put in once at most.
  const queue = new Int32Array(width * height)
  let end = 0
  // The colours at the edges, in coarse classes, the frequent ones.
  const classes = new Map<number, { count: number; r: number; g: number; b: number }>()
  const edge = (at: number) => {
    const i = 4 * at
    const [r, g, b] = [data[i] ?? 0, data[i + 1] ?? 0, data[i + 2] ?? 0]
    const key = ((r >> 5) << 10) | ((g >> 5) << 5) | (b >> 5)
    const own = classes.get(key) ?? { count: 0, r: 0, g: 0, b: 0 }
    classes.set(key, { count: own.count + 1, r: own.r + r, g: own.g + g, b: own.b + b })
  }
  const edges: number[] = []
  for (let x = 0; x < width; x++) edges.push(x, (height - 1) * width + x)
  for (let y = 0; y < height; y++) edges.push(y * width, y * width + width - 1)
  edges.forEach(edge)
  const grounds = [...classes.values()]
    .sort((a, b) => b.count - a.count)
    .filter(({ count }, i) => i === 0 || count > edges.length * 0.08)
    .slice(0, 6)
    .map(({ count, r, g, b }) => [r / count, g / count, b / count] as const)
  const distance = (at: number): number => {
    const i = 4 * at
    if ((data[i + 3] ?? 0) < 8) return 0
    let nearest = Infinity
    for (const [r, g, b] of grounds) {
      const own = Math.hypot((data[i] ?? 0) - r, (data[i + 1] ?? 0) - g, (data[i + 2] ?? 0) - b)
      if (own < nearest) nearest = own
    }
    return nearest
  }
  const visit = (at: number) => {
    if (reached[at]) return
    const own = distance(at)
    if (own > most * (1 + soft)) return
    reached[at] = 1
    if (own > most) {
      // The last pixel before what stays is let through in part, and leads no farther.
      data[4 * at + 3] = Math.round((data[4 * at + 3] ?? 255) * Math.min(1, (own - most) / (most * soft)))
      return
    }
    data[4 * at + 3] = 0
    queue[end++] = at
  }
  edges.forEach(visit)
  for (let n = 0; n < end; n++) {
    const at = queue[n] ?? 0
    const x = at % width
    if (x > 0) visit(at - 1)
    if (x < width - 1) visit(at + 1)
    if (at >= width) visit(at - width)
    if (at < width * (height - 1)) visit(at + width)
  }
}
