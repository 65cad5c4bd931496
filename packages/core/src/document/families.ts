/** The typeface families that ship. */

export type FaceVariant = "regular" | "italic" | "bold" | "boldItalic"
export const variants: readonly FaceVariant[] = ["regular", "italic", "bold", "boldItalic"]

export interface Family {
  name: string
  kind: "serif" | "sans" | "mono" | "hand" | "eastAsian" | "complex"
  /** A widespread typeface whose letters are exactly as wide, if there is one. */
  matches?: string
  /** The faces there are; the others are set in the nearest. */
  faces: readonly FaceVariant[]
  /** Has small capitals of its own. */
  smallCaps?: boolean
  /** Shapes letters by what stands beyond the blank or the letter beside them, so that its text cannot be put together from words, nor these from pairs. */
  acrossBlanks?: boolean
}

type Extra = Partial<Omit<Family, "name" | "kind">>

function family(name: string, kind: Family["kind"], extra: Extra = {}): Family {
  return { name, kind, faces: variants, ...extra }
}

const upright: readonly FaceVariant[] = ["regular", "bold"]

export const families: readonly Family[] = [
  family("Tinos", "serif", { matches: "Times New Roman" }),
  family("Literata", "serif", { smallCaps: true }),
  family("EB Garamond", "serif", { smallCaps: true }),
  family("Source Serif 4", "serif", { smallCaps: true }),
  family("Gelasio", "serif", { matches: "Georgia" }),
  family("Caladea", "serif", { matches: "Cambria" }),
  family("Libre Baskerville", "serif"),
  family("Lora", "serif"),
  family("Noto Serif", "serif", { smallCaps: true }),
  family("Playfair Display", "serif", { smallCaps: true }),
  family("Arimo", "sans", { matches: "Arial" }),
  family("Carlito", "sans", { matches: "Calibri" }),
  family("Source Sans 3", "sans", { smallCaps: true }),
  family("Inter", "sans", { acrossBlanks: true }),
  family("Noto Sans", "sans", { smallCaps: true }),
  family("Atkinson Hyperlegible Next", "sans"),
  family("Comic Neue", "sans"),
  family("Cousine", "mono", { matches: "Courier New" }),
  family("Courier Prime", "mono", { matches: "Courier" }),
  family("Dancing Script", "hand", { faces: upright }),
  family("Great Vibes", "hand", { faces: ["regular"] }),
  family("Noto Naskh Arabic", "complex", { faces: upright }),
  family("Noto Sans Hebrew", "complex", { faces: upright }),
  family("Noto Sans Thai", "complex", { faces: upright }),
  family("Noto Sans Devanagari", "complex", { faces: upright }),
  family("Noto Sans JP", "eastAsian", { faces: upright }),
  family("Noto Sans SC", "eastAsian", { faces: upright }),
]

const byName = new Map(families.map((f) => [f.name, f]))

/** The family of that name; an unknown name gets the first one, so that a document never fails for a typeface. */
export function familyNamed(name: string): Family {
  return byName.get(name) ?? (families[0] as Family)
}
