/** Which dictionary a language is spelt by, as data: the dictionaries themselves are fetched by those who check. */

interface Dictionary {
  /** In which script words are that it can judge. */
  script: RegExp
}

export const latin = /^\p{Script=Latin}/u

/** Those that ship, by name. Licences: docs/decisions.md. */
export const dictionaries = {
  en: { script: latin },
  "en-gb": { script: latin },
  fr: { script: latin },
  es: { script: latin },
  pt: { script: latin },
  nl: { script: latin },
  pl: { script: latin },
  sv: { script: latin },
  el: { script: /^\p{Script=Greek}/u },
  ru: { script: /^\p{Script=Cyrillic}/u },
} as const satisfies Record<string, Dictionary>

export type DictionaryName = keyof typeof dictionaries

/** American spelling; all other English is spelt as in Britain. */
const american = /^en(-us|-ph|-pr)?$/

const known = new Map<string, DictionaryName | null>()

/** The dictionary of a language by its tag (BCP 47); null where none ships. */
export function dictionaryOf(language: string): DictionaryName | null {
  let found = known.get(language)
  if (found === undefined) {
    if (known.size > 1000) known.clear()
    known.set(language, (found = find(language)))
  }
  return found
}

function find(language: string): DictionaryName | null {
  const tag = language.toLowerCase()
  if (/^en\b/.test(tag)) return american.test(tag) ? "en" : "en-gb"
  const base = tag.split("-")[0] ?? ""
  return Object.hasOwn(dictionaries, base) ? (base as DictionaryName) : null
}
