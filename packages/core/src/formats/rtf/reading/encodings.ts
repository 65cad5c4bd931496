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
