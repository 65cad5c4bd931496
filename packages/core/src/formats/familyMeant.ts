/** Names of typefaces in files, and the families of ours that they mean. */
import { families, familyNamed } from "../document/families"

const byName = new Map(
  families.flatMap(({ name, matches }) =>
    [name, ...(matches ? [matches] : [])].map((own): [string, string] => [own.toLowerCase(), name]),
  ),
)
/** Faces that everybody takes for one another. */
for (const [name, own] of [
  ["helvetica", "Arimo"],
  ["times", "Tinos"],
  ["liberation serif", "Tinos"],
  ["liberation sans", "Arimo"],
  ["liberation mono", "Cousine"],
  ["garamond", "EB Garamond"],
  ["baskerville", "Libre Baskerville"],
] as const)
  byName.set(name, own)

/** Kinds of typefaces, as tables of faces tell them. */
const kinds: ReadonlyMap<string, string> = new Map([
  ["roman", "Tinos"],
  ["swiss", "Arimo"],
  ["modern", "Cousine"],
  ["script", "Dancing Script"],
])

/**
 * @param kind of the typeface, where the file tells it: roman, swiss, modern, script
 * @returns the family, and whether it is the one that is meant, or one that stands for it
 */
export function familyMeant(name: string, kind?: string): { family: string; known: boolean } {
  const known = byName.get(name.toLowerCase())
  if (known) return { family: known, known: true }
  const family =
    kinds.get(kind ?? "") ??
    (/sans|grotesk|gothic/i.test(name) ? "Arimo" : /mono|code|consol|courier/i.test(name) ? "Cousine" : "Tinos")
  return { family, known: false }
}

/** Whether a typeface holds signs in the place of letters. */
export const isOfSigns = (name: string): boolean => /symbol|dings/i.test(name)

/** What a family of ours is called elsewhere: other programs know what it matches. */
export function faceName(family: string): string {
  const own = familyNamed(family)
  return own.name === family ? (own.matches ?? family) : family
}
