/** How lines are broken and words divided, as far as a file tells. */
import { defaultTypesetting, fitTypesetting, type Typesetting } from "../document"

/** @param counts as they are written; those that are none, or nothing, are as usual here */
export function typesettingTold(
  breaking: Typesetting["breaking"],
  counts: Partial<Record<"before" | "after" | "inRow", string | undefined>>,
  capitals = true,
): Typesetting {
  const { hyphenation } = defaultTypesetting
  const told = Object.entries(counts).filter(([, own]) => Number(own) > 0)
  const numbers = Object.fromEntries(told.map(([name, own]) => [name, Number(own)]))
  return fitTypesetting({ breaking, hyphenation: { ...hyphenation, ...numbers, capitals } })
}
