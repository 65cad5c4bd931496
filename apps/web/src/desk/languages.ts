const tags = [
  "en-GB",
  "en-US",
  "en-AU",
  "en-CA",
  "ar",
  "bg",
  "ca",
  "cs",
  "cy",
  "da",
  "de",
  "de-AT",
  "de-CH",
  "el",
  "es",
  "es-MX",
  "et",
  "fa",
  "fi",
  "fr",
  "fr-CA",
  "ga",
  "he",
  "hi",
  "hr",
  "hu",
  "is",
  "it",
  "ja",
  "ko",
  "la",
  "lt",
  "lv",
  "mr",
  "nb",
  "nl",
  "pl",
  "pt",
  "pt-BR",
  "ro",
  "ru",
  "sk",
  "sl",
  "sv",
  "th",
  "tr",
  "uk",
  "ur",
  "vi",
  "zh-Hans",
  "zh-Hant",
] as const

const names = new Intl.DisplayNames("en", { type: "language" })

export function languageName(tag: string): string {
  try {
    return names.of(tag) ?? tag
  } catch {
    return tag
  }
}

/** Languages to choose from, by name; one that is not among them is added. */
export function languageOptions(current: string | undefined): (readonly [string, string])[] {
  const all: string[] = [...tags]
  if (current && !all.includes(current)) all.push(current)
  return all.map((tag) => [tag, languageName(tag)] as const).sort((a, b) => a[1].localeCompare(b[1]))
}
