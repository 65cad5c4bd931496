import type { RunLook } from "../../document"
import { assetOfFace, fallbackFaces, faceOf, isShapedByWords, ownFace, type FaceId } from "./catalogue"
import type { Font, HarfBuzz } from "./harfbuzz"

/** A face that is nowhere to be had: what was to be set in it is set in another. */
export class MissingFaceError extends Error {
  override name = "MissingFaceError"
}

/** Gives the bytes of a face's file. Called once a face, when it is first needed; throws if it cannot be had. */
export type FaceSource = (id: FaceId) => Uint8Array

/** What of a look chooses the face. */
export type FaceWish = Pick<RunLook, "family" | "familyEastAsian" | "familyComplex" | "bold" | "italic" | "own">

/** Faces of people's own that are open at once. */
const mostBrought = 60

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
    if (!font) {
      this.open.set(id, (font = this.harfbuzz.font(this.source(id), isShapedByWords(id))))
      if (assetOfFace(id) !== null) this.letGo()
    }
    return font
  }

  /** Of the faces that people brought in, the one that was opened first gives way when there are many: what is asked for again is opened again. */
  private letGo(): void {
    const brought = [...this.open.keys()].filter((id) => assetOfFace(id) !== null)
    const oldest = brought.length > mostBrought ? brought[0] : undefined
    if (oldest === undefined) return
    this.open.get(oldest)?.release()
    this.open.delete(oldest)
  }

  bytes(id: FaceId): Uint8Array {
    return this.source(id)
  }

  /** The face that letters of a look are set in where nothing hinders it. */
  wish({ family, own, bold, italic }: FaceWish): FaceId {
    const brought = own ? ownFace(own, bold, italic) : null
    return brought !== null && this.isThere(brought) ? brought : faceOf(family, bold, italic)
  }

  private readonly missing = new Set<FaceId>()

  private isThere(id: FaceId): boolean {
    if (this.open.has(id)) return true
    if (this.missing.has(id)) return false
    try {
      this.font(id)
      return true
    } catch (error) {
      if (!(error instanceof MissingFaceError)) throw error
      this.missing.add(id)
      return false
    }
  }

  /** The face to set a character in: the one wished for if it has it, else the first that does, else the wish. */
  faceFor(codePoint: number, look: FaceWish): FaceId {
    const wish = this.wish(look)
    if (codePoint < 0x7f || this.font(wish).has(codePoint)) return wish
    const second = isEastAsian(codePoint)
      ? look.familyEastAsian
      : isComplex(codePoint)
        ? (familyOfScript(codePoint, look.familyComplex) ?? look.familyComplex)
        : null
    const key = `${codePoint} ${look.bold} ${second}`
    let fallback = this.fallbacks.get(key)
    if (fallback === undefined) {
      const order = fallbackFaces(look.bold)
      if (isEmoji(codePoint)) order.sort((a, b) => Number(b.includes("Emoji")) - Number(a.includes("Emoji")))
      if (second) order.unshift(faceOf(second, look.bold, look.italic))
      fallback = order.find((face) => this.font(face).has(codePoint)) ?? null
      this.fallbacks.set(key, fallback)
    }
    return fallback ?? wish
  }
}

function isEmoji(codePoint: number): boolean {
  return codePoint > 0xff && !isEastAsian(codePoint) && /\p{Emoji}/u.test(String.fromCodePoint(codePoint))
}

const scripts: readonly [from: number, to: number, family: string][] = [
  [0x590, 0x600, "Noto Sans Hebrew"],
  [0x600, 0x900, "Noto Naskh Arabic"],
  [0x900, 0x980, "Noto Sans Devanagari"],
  [0xe00, 0xe80, "Noto Sans Thai"],
  [0xfb1d, 0xfb50, "Noto Sans Hebrew"],
  [0xfb50, 0xff00, "Noto Naskh Arabic"],
]

/**
 * The family that ships for a script, where the one wished for is of another script: so that no face is opened
 * only to learn that it lacks a character. Null where the wish may have it.
 */
function familyOfScript(codePoint: number, wish: string): string | null {
  if (!scripts.some(([, , family]) => family === wish)) return null
  return scripts.find(([from, to]) => codePoint >= from && codePoint < to)?.[2] ?? null
}

/** Chinese, Japanese and Korean characters and their signs. */
function isEastAsian(codePoint: number): boolean {
  return (
    (codePoint >= 0x2e80 && codePoint < 0xa4d0) ||
    (codePoint >= 0xac00 && codePoint < 0xd7fc) ||
    (codePoint >= 0xf900 && codePoint < 0xfb00) ||
    (codePoint >= 0xfe30 && codePoint < 0xfe50) ||
    (codePoint >= 0xff00 && codePoint < 0xfff0) ||
    (codePoint >= 0x1f200 && codePoint < 0x1f300) ||
    (codePoint >= 0x20000 && codePoint < 0x40000)
  )
}

/** Scripts whose letters take their form or place from their neighbours. */
function isComplex(codePoint: number): boolean {
  return (
    (codePoint >= 0x590 && codePoint < 0x10a0) ||
    (codePoint >= 0x1780 && codePoint < 0x1800) ||
    (codePoint >= 0xfb1d && codePoint < 0xfe00) ||
    (codePoint >= 0xfe70 && codePoint < 0xff00)
  )
}

/** Characters that take the face of what stands before them: marks, joiners, variation selectors, skin tones. */
export function joinsPrevious(codePoint: number): boolean {
  if (codePoint < 0x300) return false
  return (
    codePoint === 0x200d ||
    (codePoint >= 0xfe00 && codePoint <= 0xfe0f) ||
    (codePoint >= 0x1f3fb && codePoint <= 0x1f3ff) ||
    (codePoint >= 0xe0020 && codePoint <= 0xe007f) ||
    /\p{M}/u.test(String.fromCodePoint(codePoint))
  )
}
