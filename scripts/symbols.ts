/** Writes the list of symbols that the shipped faces can show, with their names, for the application. */
import { mkdirSync, readFileSync, writeFileSync } from "node:fs"
import { createRequire } from "node:module"
import { dirname, join } from "node:path"
import { unicodeName } from "unicode-name"
import { openFonts } from "../packages/core/node/typesetting"

const require = createRequire(join(process.cwd(), "package.json"))
const target = join(process.cwd(), "apps/web/public/data/symbols.json")
const fonts = openFonts()
const faces = [
  "Tinos-regular",
  "NotoSerif-regular",
  "NotoSans-regular",
  "NotoSansMath-regular",
  "NotoSansSymbols2-regular",
]

const hidden = [0xa0, 0x2009, 0x200a, 0x202f, 0x2002, 0x2003, 0x2007, 0xad, 0x2010, 0x2011, 0x200b, 0x2060]

const categories: [name: string, belongs: (char: string, code: number) => boolean][] = [
  ["Dashes and punctuation", (c, code) => /\p{P}/u.test(c) && !hidden.includes(code)],
  ["Spaces and hyphens", (_, code) => hidden.includes(code)],
  ["Currency", (c) => /\p{Sc}/u.test(c)],
  [
    "Arrows",
    (_, code) =>
      (code >= 0x2190 && code <= 0x21ff) ||
      (code >= 0x27f0 && code <= 0x27ff) ||
      (code >= 0x2900 && code <= 0x297f) ||
      (code >= 0x2b00 && code <= 0x2bff && code < 0x2b4f),
  ],
  [
    "Mathematics",
    (c, code) => /\p{Sm}/u.test(c) || (code >= 0x2100 && code <= 0x214f) || (code >= 0x1d400 && code <= 0x1d7ff),
  ],
  ["Numbers and fractions", (c) => /\p{No}|\p{Nl}/u.test(c)],
  ["Letters with accents", (c, code) => /\p{Script=Latin}/u.test(c) && code > 0x7f],
  ["Greek", (c) => /\p{Script=Greek}/u.test(c)],
  ["Cyrillic", (c) => /\p{Script=Cyrillic}/u.test(c)],
  ["Shapes and signs", (c) => /\p{So}|\p{Sk}/u.test(c)],
]

const listed = new Map<string, [string, string][]>(categories.map(([name]) => [name, []]))
for (let code = 0xa0; code < 0x1fb00; code++) {
  if (code >= 0xd800 && code <= 0xf8ff) continue
  const char = String.fromCodePoint(code)
  const category = categories.find(([, belongs]) => belongs(char, code))
  if (!category || !faces.some((face) => fonts.font(face).has(code))) continue
  const name = unicodeName(char)
  if (name) listed.get(category[0])?.push([char, name.toLowerCase()])
}

const emoji = require("unicode-emoji-json/data-by-emoji.json") as Record<string, { name: string; group: string }>
const face = fonts.font("NotoEmoji-regular")
const shown = Object.entries(emoji).filter(([char]) =>
  [...char].every((c) => /[\u200d\ufe0f]/.test(c) || face.has(c.codePointAt(0) ?? 0)),
)
const groups = new Map<string, [string, string][]>()
for (const [char, { name, group }] of shown) groups.set(group, [...(groups.get(group) ?? []), [char, name]])

/** What is looked for most stands first. */
const first = "– — “ ” ‘ ’ „ ‚ « » ‹ › … • · § ¶ † ‡ ′ ″ ¿ ¡ ‰".split(" ")
listed.get("Dashes and punctuation")?.sort(([a], [b]) => place(a) - place(b))
function place(char: string): number {
  const at = first.indexOf(char)
  return at < 0 ? first.length : at
}

mkdirSync(dirname(target), { recursive: true })
const result = [
  ...listed,
  ...[...groups].map(([group, items]) => [`Emoji: ${group.toLowerCase()}`, items] as const),
].map(([name, items]) => ({ name, items }))
writeFileSync(target, JSON.stringify(result))
console.log(
  `${result.reduce((n, { items }) => n + items.length, 0)} symbols, ${Math.round(readFileSync(target).length / 1024)} kB`,
)
