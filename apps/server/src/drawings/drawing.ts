/** Drawings in files that the command reads: what takes too long is left out. */
import { withDrawings } from "@biblon/core/formats/pictures/taken"
import type { FileRead } from "@biblon/core/formats/format"
import { Thread } from "../thread"
import type { DrawingTask, DrawnDrawing } from "./worker"

const longest = 20_000

/** A file that was read, with pictures in place of its drawings. */
export async function drawn(read: FileRead): Promise<FileRead> {
  const thread = new Thread<DrawingTask, DrawnDrawing>("drawings", longest)
  try {
    return await withDrawings(read, (drawing, pixels) =>
      thread.ask({ drawing, pixels }).then(
        ({ file }) => file,
        async () => {
          await thread.close()
          return null
        },
      ),
    )
  } finally {
    await thread.close()
  }
}
