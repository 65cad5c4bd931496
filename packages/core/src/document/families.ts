/** The typeface families that ship. */

export interface Family {
  name: string
  kind: "serif" | "sans" | "mono"
  /** A widespread typeface whose letters are exactly as wide, if there is one. */
  matches?: string
}

function family(name: string, kind: Family["kind"], matches?: string): Family {
  return { name, kind, ...(matches ? { matches } : {}) }
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

const byName = new Map(families.map((f) => [f.name, f]))

/** The family of that name; an unknown name gets the first one, so that a document never fails for a typeface. */
export function familyNamed(name: string): Family {
  return byName.get(name) ?? (families[0] as Family)
}
