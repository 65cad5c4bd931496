/** Drawings in files that are read: each is made pixels in a worker that is ended where it takes too long. */
import { withDrawings, type Draw } from "@biblon/core/formats/pictures/taken"
import type { FileRead } from "@biblon/core/formats/format"
import { workerOf } from "./addresses"
import type { DrawingReply, DrawingRequest } from "./drawing.worker"

const longest = 20_000

/** A file that was read, with pictures in place of its drawings. */
export async function drawn(read: FileRead): Promise<FileRead> {
  let worker: Worker | null = null
  const draw: Draw = (drawing, pixels) =>
    new Promise((resolve) => {
      const own = (worker ??= workerOf("drawing.worker.js"))
      const give = (file: Uint8Array | null, over: boolean) => {
        clearTimeout(limit)
        if (over) {
          own.terminate()
          worker = null
        }
        resolve(file)
      }
      const limit = setTimeout(() => give(null, true), longest)
      own.onmessage = ({ data }: MessageEvent<DrawingReply>) => give(data, data === null)
      own.onerror = () => give(null, true)
      own.postMessage({ drawing, pixels } satisfies DrawingRequest)
    })
  try {
    return await withDrawings(read, draw)
  } finally {
    ;(worker as Worker | null)?.terminate()
  }
}
