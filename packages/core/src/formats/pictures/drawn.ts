/** Drawings of files as pictures of pixels: metafiles by way of Scalable Vector Graphics, which a renderer draws that fetches nothing. */
import { convertMetafileToSvg } from "emf-converter"
import { Resvg } from "@resvg/resvg-wasm"
import type { Drawing } from "./drawings"
import { familyMeant } from "../familyMeant"

/** Faces in which the letters of drawings are set, by our names for them; another stands for each that is not among them. */
export const drawingFaces = ["Arimo", "Tinos", "Cousine"] as const

async function svgOf({ kind, bytes }: Drawing): Promise<string | null> {
  if (kind === "svg") return new TextDecoder().decode(bytes)
  // The converter keeps views of what it is given.
  return convertMetafileToSvg(Uint8Array.from(bytes).buffer)
}

/** Names of typefaces as ours that are there. */
const withOurFaces = (svg: string): string =>
  svg.replace(/font-family(\s*[:=]\s*["']?)([^"';>]+)/g, (_, sign: string, names: string) => {
    const { family } = familyMeant((names.split(",")[0] ?? "").replace(/["']|&quot;/g, "").trim())
    return `font-family${sign}${(drawingFaces as readonly string[]).includes(family) ? family : "Arimo"}`
  })

/**
 * A PNG file of a drawing; null where nothing can be made of it. The renderer is to be started before (`startDrawing`), and anew
 * after null, since what it cannot draw may have stopped it in the middle.
 * @param faces files of typefaces for its letters
 */
export async function drawingPng(
  drawing: Drawing,
  [width]: [number, number],
  faces: readonly Uint8Array[],
): Promise<Uint8Array | null> {
  try {
    const svg = await svgOf(drawing)
    if (svg === null) return null
    const drawn = new Resvg(withOurFaces(svg), {
      fitTo: { mode: "width", value: width },
      font: { loadSystemFonts: false, fontBuffers: [...faces], defaultFontFamily: "Arimo" },
    })
    try {
      const image = drawn.render()
      try {
        return image.asPng()
      } finally {
        image.free()
      }
    } finally {
      drawn.free()
    }
  } catch {
    return null
  }
}
