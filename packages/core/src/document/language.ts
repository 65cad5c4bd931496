/** Languages as documents name them. */

const known = new Map<string, string>()
const most = 2000

/** A BCP 47 tag that the platform accepts; what is none counts as English, so that a document never fails for a tag. */
export function knownLanguage(tag: string): string {
  let accepted = known.get(tag)
  if (accepted === undefined) {
    try {
      accepted = Intl.getCanonicalLocales(tag)[0] ?? "en"
    } catch {
      accepted = "en"
    }
    if (known.size >= most) known.clear()
    known.set(tag, accepted)
  }
  return accepted
}
