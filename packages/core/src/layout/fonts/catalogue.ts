/** The typefaces that ship. Files are copied from their packages to the application's public folder by scripts/fonts.mjs. */

export type FaceVariant = "regular" | "italic" | "bold" | "boldItalic"

/** Names one face; also the name under which the page loads it and the stem of its file. */
export type FaceId = string

export interface Family {
  name: string
  kind: "serif" | "sans" | "mono"
  /** Folder of the package the files come from, and the stem of the files there. */
  source: { folder: string; stem: string }
  /** A widespread typeface whose letters are exactly as wide, if there is one. */
  matches?: string
}

function family(name: string, kind: Family["kind"], matches?: string): Family {
  const folder = name.toLowerCase().replaceAll(" ", "-")
  return { name, kind, source: { folder, stem: name.replaceAll(" ", "") }, ...(matches ? { matches } : {}) }
}

export const families: readonly Family[] = [
  family("Tinos", "serif", "Times New Roman"),
  family("Literata", "serif"),
  family("EB Garamond", "serif"),
  family("Source Serif 4", "serif"),
  family("Gelasio", "serif", "Georgia"),
  family("Caladea", "serif", "Cambria"),
  family("Lora", "serif"),
  family("Arimo", "sans", "Arial"),
  family("Source Sans 3", "sans"),
  family("Carlito", "sans", "Calibri"),
  family("Inter", "sans"),
  family("Atkinson Hyperlegible Next", "sans"),
  family("Cousine", "mono", "Courier New"),
]

export const variants: readonly FaceVariant[] = ["regular", "italic", "bold", "boldItalic"]
const variantFiles: Record<FaceVariant, string> = { regular: "400Regular", italic: "400Regular_Italic", bold: "700Bold", boldItalic: "700Bold_Italic" }

/** Faces for characters that the chosen family lacks, in the order in which they are asked. One variant each. */
export const fallbackFaces: readonly { id: FaceId; source: Family["source"]; file: string }[] = [
  { id: "NotoSerif-regular", source: { folder: "noto-serif", stem: "NotoSerif" }, file: "400Regular" },
  { id: "NotoSans-regular", source: { folder: "noto-sans", stem: "NotoSans" }, file: "400Regular" },
  { id: "NotoEmoji-regular", source: { folder: "noto-emoji", stem: "NotoEmoji" }, file: "400Regular" },
  { id: "NotoSansMath-regular", source: { folder: "noto-sans-math", stem: "NotoSansMath" }, file: "400Regular" },
  { id: "NotoSansSymbols2-regular", source: { folder: "noto-sans-symbols-2", stem: "NotoSansSymbols2" }, file: "400Regular" },
]

const byName = new Map(families.map((f) => [f.name, f]))

/** The family of that name; an unknown name gets the first one, so that a document never fails for a typeface. */
export function familyNamed(name: string): Family {
  return byName.get(name) ?? (families[0] as Family)
}

const stems = new Map<string, FaceId[]>()

export function faceOf(name: string, bold: boolean, italic: boolean): FaceId {
  let ids = stems.get(name)
  if (!ids) {
    const stem = familyNamed(name).source.stem
    stems.set(name, (ids = variants.map((variant) => `${stem}-${variant}`)))
  }
  return ids[(bold ? 2 : 0) + (italic ? 1 : 0)] as FaceId
}

/** Every face that ships, with the path of its file inside the folder of font packages. */
export function shippedFaces(): { id: FaceId; path: string }[] {
  const path = (source: Family["source"], file: string) => `${source.folder}/${file}/${source.stem}_${file}.ttf`
  return [
    ...families.flatMap((f) => variants.map((v) => ({ id: `${f.source.stem}-${v}`, path: path(f.source, variantFiles[v]) }))),
    ...fallbackFaces.map((f) => ({ id: f.id, path: path(f.source, f.file) })),
  ]
}
