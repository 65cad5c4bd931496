/** Languages by the numbers that RTF gives them; of two for one language the last is written. */
const languages: readonly (readonly [number, string])[] = [
  [1025, "ar-SA"],
  [1026, "bg-BG"],
  [1027, "ca-ES"],
  [1028, "zh-TW"],
  [1029, "cs-CZ"],
  [1030, "da-DK"],
  [1031, "de-DE"],
  [1032, "el-GR"],
  [1033, "en-US"],
  [1034, "es-ES"],
  [1035, "fi-FI"],
  [1036, "fr-FR"],
  [1037, "he-IL"],
  [1038, "hu-HU"],
  [1040, "it-IT"],
  [1041, "ja-JP"],
  [1042, "ko-KR"],
  [1043, "nl-NL"],
  [1044, "nb-NO"],
  [1045, "pl-PL"],
  [1046, "pt-BR"],
  [1048, "ro-RO"],
  [1049, "ru-RU"],
  [1053, "sv-SE"],
  [1055, "tr-TR"],
  [1058, "uk-UA"],
  [2052, "zh-CN"],
  [2055, "de-CH"],
  [2057, "en-GB"],
  [2070, "pt-PT"],
  [3079, "de-AT"],
  [3081, "en-AU"],
  [3082, "es-ES"],
  [3084, "fr-CA"],
  [4105, "en-CA"],
  [5129, "en-NZ"],
  [6153, "en-IE"],
]

const byNumber = new Map(languages)
const byName = new Map(languages.map(([number, name]) => [name, number]))

/** @returns null for a number that says no language, or one that is not known here */
export const languageOf = (number: number): string | null => byNumber.get(number) ?? null

export const numberOfLanguage = (name: string): number | null => byName.get(name) ?? null

/** Of text in none. */
export const noLanguage = { number: 1024, name: "zxx" } as const
