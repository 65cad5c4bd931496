import { fallbackFaces, faceOf, type FaceId } from "./catalogue"
import type { Font, HarfBuzz } from "./harfbuzz"

/** Gives the bytes of a face's file. Called once a face, when it is first needed; throws if it cannot be had. */
export type FaceSource = (id: FaceId) => Uint8Array

/** The faces in use, opened when first asked for. */
export class FontLibrary {
  private readonly open = new Map<FaceId, Font>()
  private readonly fallbacks = new Map<string, FaceId | null>()

  constructor(
    private readonly harfbuzz: HarfBuzz,
    private readonly source: FaceSource,
  ) {}

  font(id: FaceId): Font {
    let font = this.open.get(id)
    if (!font) this.open.set(id, (font = this.harfbuzz.font(this.source(id))))
    return font
  }

  bytes(id: FaceId): Uint8Array {
    return this.source(id)
  }

  /** The face to set a character in: the one wished for if it has it, else the first that does, else the wish. */
  faceFor(codePoint: number, family: string, bold: boolean, italic: boolean): FaceId {
    const wish = faceOf(family, bold, italic)
    if (codePoint < 0x7f || this.font(wish).has(codePoint)) return wish
    const key = `${codePoint} ${isEmoji(codePoint) ? "emoji" : "text"}`
    let fallback = this.fallbacks.get(key)
    if (fallback === undefined) {
      const order = isEmoji(codePoint) ? [...fallbackFaces].sort((a, b) => Number(b.id.includes("Emoji")) - Number(a.id.includes("Emoji"))) : fallbackFaces
      fallback = order.find((face) => this.font(face.id).has(codePoint))?.id ?? null
      this.fallbacks.set(key, fallback)
    }
    return fallback ?? wish
  }
}

function isEmoji(codePoint: number): boolean {
  return codePoint > 0xff && /\p{Emoji}/u.test(String.fromCodePoint(codePoint))
}

/** Characters that take the face of what stands before them: marks, joiners, variation selectors, skin tones. */
export function joinsPrevious(codePoint: number): boolean {
  if (codePoint < 0x300) return false
  return codePoint === 0x200d || (codePoint >= 0xfe00 && codePoint <= 0xfe0f) || (codePoint >= 0x1f3fb && codePoint <= 0x1f3ff) || (codePoint >= 0xe0020 && codePoint <= 0xe007f) || /\p{M}/u.test(String.fromCodePoint(codePoint))
}
