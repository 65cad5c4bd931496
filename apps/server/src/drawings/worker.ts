/** Makes pictures of pixels of drawings; runs in a thread that may be ended. */
import { readFileSync } from "node:fs"
import { parentPort } from "node:worker_threads"
import { drawingFile, shippedFace } from "@biblon/core/node"
import { drawingFaces, drawingPng } from "@biblon/core/formats/pictures/drawn"
import { startDrawing } from "@biblon/core/output/pixels"
import type { Drawing } from "@biblon/core/formats/pictures/taken"
import type { Failure } from "../thread"

export interface DrawingTask {
  drawing: Drawing
  pixels: [number, number]
}

export interface DrawnDrawing {
  file: Uint8Array
}

// What a converter does not know of a drawing is nothing for who reads the answers of the command.
console.warn = () => undefined

const faces = drawingFaces.map((family) => shippedFace(`${family}-regular`))

parentPort?.on("message", ({ drawing, pixels }: DrawingTask) => {
  const answer = (message: DrawnDrawing | Failure) => parentPort?.postMessage(message)
  startDrawing(() => readFileSync(drawingFile()))
    .then(() => drawingPng(drawing, pixels, faces))
    .then((file) => answer(file ? { file } : { error: "nothing can be made of it" }))
    .catch((error: unknown) => answer({ error: error instanceof Error ? error.message : String(error) }))
})
