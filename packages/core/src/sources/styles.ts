/** Styles of citation that ship, as files of the Citation Style Language: see packages/core/citing. */
export interface CitationStyle {
  id: string
  name: string
  /** Whether citations stand in notes. */
  notes: boolean
}

export const citationStyles: readonly CitationStyle[] = [
  { id: "apa", name: "APA, 7th edition (author and date)", notes: false },
  { id: "modern-language-association", name: "MLA, 9th edition (author and page)", notes: false },
  { id: "chicago-author-date", name: "Chicago, 17th edition (author and date)", notes: false },
  { id: "chicago-note-bibliography", name: "Chicago, 17th edition (notes, short)", notes: true },
  { id: "chicago-fullnote-bibliography", name: "Chicago, 17th edition (notes, in full)", notes: true },
  { id: "harvard-cite-them-right", name: "Harvard (author and date)", notes: false },
  { id: "vancouver", name: "Vancouver (numbers)", notes: false },
  { id: "ieee", name: "IEEE (numbers)", notes: false },
  { id: "american-medical-association", name: "AMA, 11th edition (raised numbers)", notes: false },
  { id: "american-chemical-society", name: "ACS (raised numbers)", notes: false },
  { id: "nature", name: "Nature (raised numbers)", notes: false },
]

/** Languages whose words for editors, pages and so on ship. */
const locales = [
  "en-GB",
  "en-US",
  "de-DE",
  "es-ES",
  "fr-CA",
  "it-IT",
  "nl-NL",
  "pl-PL",
  "pt-PT",
  "pt-BR",
  "sv-SE",
  "el-GR",
  "ru-RU",
]

/** The one for a language; British English where there is none. */
export function citationLocale(language: string): string {
  const [main] = language.split("-")
  return locales.find((own) => own === language) ?? locales.find((own) => own.split("-")[0] === main) ?? "en-GB"
}
