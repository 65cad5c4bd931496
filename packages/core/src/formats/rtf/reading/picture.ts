/** A picture in RTF: its bytes as digits or as they are, of a kind that is said by a word. */
import type { Destination } from "./tellings"

/** Bytes of the largest that is taken. */
const largest = 64 * 1048576

type PictureEnding = "png" | "jpeg" | "emf" | "wmf"
/** By the word that says of what kind it is. */
const endings: ReadonlyMap<string, PictureEnding> = new Map([
  ["pngblip", "png"],
  ["jpegblip", "jpeg"],
  ["emfblip", "emf"],
  ["wmetafile", "wmf"],
])

export type PictureDone = (own: {
  content: Uint8Array | null
  ending: PictureEnding | null
  /** In twips. */
  width: number | null
  height: number | null
}) => void

export class Picture implements Destination {
  private readonly chunks: Uint8Array[] = []
  private length = 0
  private half: number | null = null
  private ending: PictureEnding | null = null
  private readonly sides = new Map<string, number>()

  constructor(private readonly done: PictureDone) {}

  word(name: string, value: number | null): void {
    const ending = endings.get(name)
    if (ending) this.ending = ending
    else if (name.startsWith("pic") && value !== null) this.sides.set(name, value)
  }

  text(text: string): void {
    const bytes = new Uint8Array((text.length >> 1) + 1)
    let n = 0
    for (let i = 0; i < text.length; i++) {
      const digit = Number.parseInt(text.charAt(i), 16)
      if (Number.isNaN(digit)) continue
      if (this.half === null) this.half = digit
      else {
        bytes[n++] = this.half * 16 + digit
        this.half = null
      }
    }
    this.binary(bytes.subarray(0, n))
  }

  binary(bytes: Uint8Array): void {
    if (this.length + bytes.length > largest) return
    this.chunks.push(bytes)
    this.length += bytes.length
  }

  group(): Destination {
    return {}
  }

  close(): void {
    const content = new Uint8Array(this.length)
    let at = 0
    for (const chunk of this.chunks) {
      content.set(chunk, at)
      at += chunk.length
    }
    const side = (name: string, scale: string) => {
      const goal = this.sides.get(name)
      return goal === undefined || goal <= 0 ? null : (goal * (this.sides.get(scale) ?? 100)) / 100
    }
    this.done({
      content: this.length > 0 ? content : null,
      ending: this.ending,
      width: side("picwgoal", "picscalex"),
      height: side("pichgoal", "picscaley"),
    })
  }
}
