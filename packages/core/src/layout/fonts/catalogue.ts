/** The faces of the typefaces that ship. Files are copied from their packages to the application's public folder by scripts/fonts.mjs. */

import { families, familyNamed, type Family } from "../../document/families"

export { families, familyNamed }

export type FaceVariant = "regular" | "italic" | "bold" | "boldItalic"

/** Names one face; also the name under which the page loads it and the stem of its file. */
export type FaceId = string

/** Folder of the package that a face comes from, and the stem of the files there. */
interface FaceFiles {
  folder: string
  stem: string
}

function filesOf({ name }: Family): FaceFiles {
  return { folder: name.toLowerCase().replaceAll(" ", "-"), stem: name.replaceAll(" ", "") }
}

export const variants: readonly FaceVariant[] = ["regular", "italic", "bold", "boldItalic"]
const variantFiles: Record<FaceVariant, string> = { regular: "400Regular", italic: "400Regular_Italic", bold: "700Bold", boldItalic: "700Bold_Italic" }

/** Faces for characters that the chosen family lacks, in the order in which they are asked. One variant each. */
export const fallbackFaces: readonly { id: FaceId; source: FaceFiles; file: string }[] = [
  { id: "NotoSerif-regular", source: { folder: "noto-serif", stem: "NotoSerif" }, file: "400Regular" },
  { id: "NotoSans-regular", source: { folder: "noto-sans", stem: "NotoSans" }, file: "400Regular" },
  { id: "NotoEmoji-regular", source: { folder: "noto-emoji", stem: "NotoEmoji" }, file: "400Regular" },
  { id: "NotoSansMath-regular", source: { folder: "noto-sans-math", stem: "NotoSansMath" }, file: "400Regular" },
  { id: "NotoSansSymbols2-regular", source: { folder: "noto-sans-symbols-2", stem: "NotoSansSymbols2" }, file: "400Regular" },
]

const stems = new Map<string, FaceId[]>()

export function faceOf(name: string, bold: boolean, italic: boolean): FaceId {
  let ids = stems.get(name)
  if (!ids) {
    const { stem } = filesOf(familyNamed(name))
    stems.set(name, (ids = variants.map((variant) => `${stem}-${variant}`)))
  }
  return ids[(bold ? 2 : 0) + (italic ? 1 : 0)] as FaceId
}

/** Every face that ships, with the path of its file inside the folder of font packages. */
export function shippedFaces(): { id: FaceId; path: string }[] {
  const path = (source: FaceFiles, file: string) => `${source.folder}/${file}/${source.stem}_${file}.ttf`
  return [
    ...families.flatMap((f) => variants.map((v) => ({ id: `${filesOf(f).stem}-${v}`, path: path(filesOf(f), variantFiles[v]) }))),
    ...fallbackFaces.map((f) => ({ id: f.id, path: path(f.source, f.file) })),
  ]
}
