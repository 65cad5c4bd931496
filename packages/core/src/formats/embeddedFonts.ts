/** Typefaces that go along in files: taken in where their makers allow it, and written again. */
import { asName, limits, type FaceVariant, type OwnFamily } from "../document"
import { FontFileError, readFontFile } from "../document/fontFile"
import { assetName } from "./assets"
import { familyMeant } from "./familyMeant"
import type { Leaving } from "./leaving"

export class EmbeddedFonts {
  readonly families: Record<string, OwnFamily> = {}
  readonly assets = new Map<string, Uint8Array>()

  constructor(private readonly leaving: Leaving) {}

  /**
   * Takes a face of a family in, unless it is one of ours, or may not or cannot be used.
   * @param variant null for what the file itself says
   */
  take(family: string, variant: FaceVariant | null, bytes: Uint8Array): void {
    const name = asName(family, limits.family)
    if (name === "" || familyMeant(name).known) return
    let said: FaceVariant
    try {
      said = readFontFile(bytes).variant
    } catch (error) {
      if (!(error instanceof FontFileError)) throw error
      return this.leaving.add("typefaces in the file that cannot be used")
    }
    const asset = assetName(bytes)
    this.assets.set(asset, bytes)
    this.families[name] = { ...this.families[name], [variant ?? said]: asset }
  }

  has(family: string): boolean {
    return Object.hasOwn(this.families, asName(family, limits.family))
  }
}

/** A face that goes into a file. */
export interface FaceToEmbed {
  family: string
  variant: FaceVariant
  asset: string
  bytes: Uint8Array
}

/** The faces that people brought into a document, and that may go along in files that are written on. */
export function facesToEmbed(
  fonts: Readonly<Record<string, OwnFamily>>,
  asset: (name: string) => Uint8Array | undefined,
): FaceToEmbed[] {
  return Object.entries(fonts).flatMap(([family, faces]) =>
    (Object.entries(faces) as [FaceVariant, string][]).flatMap(([variant, name]) => {
      const bytes = asset(name)
      if (!bytes) return []
      try {
        return readFontFile(bytes).editing ? [{ family, variant, asset: name, bytes }] : []
      } catch {
        return []
      }
    }),
  )
}
