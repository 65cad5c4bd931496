/** The faces of the typefaces that ship, and how the faces of brought-in ones are named. Files are copied from their packages to the application's public folder by scripts/build.mjs. */

import { families, familyNamed, variants, type FaceVariant, type Family } from "../../document/families"
import type { OwnFamily } from "../../document"

export { families, familyNamed, variants, type FaceVariant, type Family }

/** Names one face; also the name under which the page loads it and the stem of its file. */
export type FaceId = string

/** Folder of the package that a face comes from, and the stem of the files there. */
interface FaceFiles {
  folder: string
  stem: string
}

function filesOf({ name }: Pick<Family, "name">): FaceFiles {
  return { folder: name.toLowerCase().replaceAll(" ", "-"), stem: name.replaceAll(" ", "") }
}

const variantFiles: Record<FaceVariant, string> = {
  regular: "400Regular",
  italic: "400Regular_Italic",
  bold: "700Bold",
  boldItalic: "700Bold_Italic",
}

/** Families for characters that the chosen ones lack, in the order in which they are asked. */
const fallbackFamilies = [
  "Noto Serif",
  "Noto Sans",
  "Noto Sans Hebrew",
  "Noto Naskh Arabic",
  "Noto Sans Thai",
  "Noto Sans Devanagari",
]
const fallbackSigns = ["Noto Emoji", "Noto Sans Math", "Noto Sans Symbols 2"]
const fallbackEastAsian = ["Noto Sans JP", "Noto Sans SC"]

/** Faces for characters that the chosen families lack, in the order in which they are asked. */
export function fallbackFaces(bold: boolean): FaceId[] {
  return [
    ...fallbackFamilies.map((name) => faceOf(name, bold, false)),
    ...fallbackSigns.map((name) => `${filesOf({ name }).stem}-regular`),
    ...fallbackEastAsian.map((name) => faceOf(name, bold, false)),
  ]
}

/** The nearest of the faces that there are: slant is given up before weight. */
export function nearestVariant(there: (variant: FaceVariant) => boolean, bold: boolean, italic: boolean): FaceVariant {
  const wish = variants[(bold ? 2 : 0) + (italic ? 1 : 0)] as FaceVariant
  const order: FaceVariant[] = [wish, bold ? "bold" : "regular", bold ? "regular" : "italic", ...variants]
  return order.find(there) ?? "regular"
}

const ids = new Map<string, FaceId[]>()

export function faceOf(name: string, bold: boolean, italic: boolean): FaceId {
  let known = ids.get(name)
  if (!known) {
    const family = familyNamed(name)
    const { stem } = filesOf(family)
    known = [false, true].flatMap((b) =>
      [false, true].map((i) => `${stem}-${nearestVariant((v) => family.faces.includes(v), b, i)}`),
    )
    ids.set(name, known)
  }
  return known[(bold ? 2 : 0) + (italic ? 1 : 0)] as FaceId
}

const byWords = new Set(
  families.flatMap((own) => (own.acrossBlanks ? [] : own.faces.map((variant) => `${filesOf(own).stem}-${variant}`))),
)

/** Whether text in a face may be put together from its words. Of one that people brought in, nobody knows. */
export const isShapedByWords = (id: FaceId): boolean => byWords.has(id)

const ownPrefix = "own-"

/** The face of a family that people brought in: it is named by its asset. */
export function ownFace(family: OwnFamily, bold: boolean, italic: boolean): FaceId | null {
  const asset = family[nearestVariant((v) => family[v] !== undefined, bold, italic)]
  return asset ? ownPrefix + asset : null
}

/** The asset of a face that people brought in; null for one that ships. */
export function assetOfFace(id: FaceId): string | null {
  return id.startsWith(ownPrefix) ? id.slice(ownPrefix.length) : null
}

/** Where the page finds the file of a face. */
export function faceAddress(id: FaceId): string {
  const asset = assetOfFace(id)
  return asset ? `/api/assets/${asset}` : `/fonts/${id}.ttf`
}

/** Every face that ships, with the path of its file inside the folder of font packages. */
export function shippedFaces(): { id: FaceId; path: string }[] {
  const face = ({ folder, stem }: FaceFiles, variant: FaceVariant) => ({
    id: `${stem}-${variant}`,
    path: `${folder}/${variantFiles[variant]}/${stem}_${variantFiles[variant]}.ttf`,
  })
  return [
    ...families.flatMap((f) => f.faces.map((v) => face(filesOf(f), v))),
    ...fallbackSigns.map((name) => face(filesOf({ name }), "regular")),
  ]
}
