/** The page's end of the worker that prepares pictures. */
import { workerOf } from "./addresses"
import type { PictureReply, PictureRequest } from "./picture.worker"

export type MadePicture = Extract<PictureReply, { type: "made" }>

/** Longest that one picture may take, in milliseconds. */
const longest = 60_000

/** @throws Error in words for people */
export function makePicture(request: PictureRequest): Promise<MadePicture> {
  return new Promise((resolve, reject) => {
    const worker = workerOf("picture.worker.js")
    const end = (act: () => void) => {
      clearTimeout(limit)
      worker.terminate()
      act()
    }
    const limit = setTimeout(() => end(() => reject(new Error("The picture took too long."))), longest)
    worker.onmessage = ({ data }: MessageEvent<PictureReply>) =>
      end(() => (data.type === "failed" ? reject(new Error(data.message)) : resolve(data)))
    worker.onerror = (event) => end(() => reject(new Error(event.message || "The program for pictures did not start.")))
    worker.postMessage(request)
  })
}
