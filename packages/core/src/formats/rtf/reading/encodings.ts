/** Bytes of RTF as text, in the encoding that the file or a typeface says. */

/** Names of encodings by the numbers that files give them. */
const pages = new Map<number, string>([
  [437, "ibm866"],
  [708, "iso-8859-6"],
  [866, "ibm866"],
  [874, "windows-874"],
  [932, "shift_jis"],
  [936, "gbk"],
  [949, "euc-kr"],
  [950, "big5"],
  [10000, "macintosh"],
  [65001, "utf-8"],
  ...[1250, 1251, 1252, 1253, 1254, 1255, 1256, 1257, 1258].map((n): [number, string] => [n, `windows-${n}`]),
])

/** The same by the numbers of character sets that typefaces have. */
const sets = new Map<number, number>([
  [77, 10000],
  [128, 932],
  [129, 949],
  [134, 936],
  [136, 950],
  [161, 1253],
  [162, 1254],
  [163, 1258],
  [177, 1255],
  [178, 1256],
  [186, 1257],
  [204, 1251],
  [222, 874],
  [238, 1250],
])

export const pageOfSet = (set: number): number | null => sets.get(set) ?? null

const decoders = new Map<string, TextDecoder>()

export function decoded(bytes: readonly number[], page: number): string {
  const name = pages.get(page) ?? "windows-1252"
  let decoder = decoders.get(name)
  if (!decoder) decoders.set(name, (decoder = new TextDecoder(name)))
  return decoder.decode(Uint8Array.from(bytes))
}

/** Languages by the numbers that files give them. */
const languages = new Map<number, string>([
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
])

/** @returns null for a number that says no language, or one that is not known here */
export const languageOf = (number: number): string | null => languages.get(number) ?? null
