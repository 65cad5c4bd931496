/** Sheets as pictures of pixels, PNG, drawn from the same picture of paths as on the shelf. */
import { initWasm, Resvg, type InitInput } from "@resvg/resvg-wasm"
import type { FontLibrary, Layout, PlacedSheet } from "../layout"
import { sheetPicture } from "./picture"

let started: Promise<void> | undefined

/** To be awaited before anything is drawn. @param program the WebAssembly of the renderer, as its bytes or the answer to a request */
export function startDrawing(program: () => InitInput | Promise<InitInput>): Promise<void> {
  return (started ??= initWasm(program()).catch((error: unknown) => {
    started = undefined
    throw error
  }))
}

/** Dots an inch, and of a picture's longer side in all. */
export const dotLimits = { dpi: [18, 600], side: 12_000 } as const
/** Dots an inch where nobody says how many. */
export const usualDots = 150

interface PixelOptions {
  fonts: FontLibrary
  /** Pictures in the document as addresses that hold them; null where they are not to be had. */
  address: (asset: string) => string | null
  dpi: number
}

/** A sheet as a PNG file; of so many dots an inch, or as many as its longer side allows. */
function sheetPng(placed: PlacedSheet, { fonts, address, dpi }: PixelOptions): Uint8Array {
  const { width, height } = placed.sheet
  const dots = Math.min(dpi, (dotLimits.side / Math.max(width, height)) * 72)
  const drawing = new Resvg(sheetPicture(placed, fonts, address), {
    fitTo: { mode: "width", value: Math.max(1, Math.round((width * dots) / 72)) },
    font: { loadSystemFonts: false },
  })
  try {
    const image = drawing.render()
    try {
      return image.asPng()
    } finally {
      image.free()
    }
  } finally {
    drawing.free()
  }
}

/** The pictures of sheets by their names, one after another; told how many there are. @param numbers of the sheets, from 0 */
export function* sheetPngs(
  layout: Layout,
  numbers: readonly number[],
  options: PixelOptions,
): Generator<number, Map<string, Uint8Array>> {
  const digits = String(Math.max(...numbers) + 1).length
  const made = new Map<string, Uint8Array>()
  // A picture that stands on many sheets is written as an address once.
  const addresses = new Map<string, string | null>()
  const address = (asset: string): string | null => {
    let known = addresses.get(asset)
    if (known === undefined) addresses.set(asset, (known = options.address(asset)))
    return known
  }
  for (const number of numbers) {
    const placed = layout.placed[number]
    if (!placed) continue
    made.set(`${String(number + 1).padStart(digits, "0")}.png`, sheetPng(placed, { ...options, address }))
    yield made.size
  }
  return made
}
