/** Makes pictures of pixels of drawings. It is ended where one takes too long. */
import { drawingFaces, drawingPng } from "@biblon/core/formats/pictures/drawn"
import { startDrawing } from "@biblon/core/output/pixels"
import type { Drawing } from "@biblon/core/formats/pictures/taken"
import { faceAddress } from "@biblon/core/layout/catalogue"
import { addressOf } from "./addresses"

export interface DrawingRequest {
  drawing: Drawing
  pixels: [number, number]
}

/** The file; null where nothing can be made of the drawing. */
export type DrawingReply = Uint8Array<ArrayBuffer> | null

const faces = Promise.all(
  drawingFaces.map(async (family) => {
    const answer = await fetch(faceAddress(`${family}-regular`))
    return new Uint8Array(await answer.arrayBuffer())
  }),
)

self.onmessage = ({ data: { drawing, pixels } }: MessageEvent<DrawingRequest>) => {
  const answer = (file: DrawingReply) => self.postMessage(file)
  startDrawing(() => fetch(addressOf("resvg.wasm")))
    .then(async () => drawingPng(drawing, pixels, await faces))
    .then((file) => answer(file && Uint8Array.from(file)))
    .catch(() => answer(null))
}
