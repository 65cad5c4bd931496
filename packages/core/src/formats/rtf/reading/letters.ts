/** Properties of letters, from control words to those of Office Open XML, which has the same ones. */
import { languageOf, noLanguage } from "../languages"

export interface Letters {
  /** Number of a typeface, and of a style. */
  font: number | null
  style: number | null
  /** By the names of Office Open XML: elements with their value, or null for one that is just there. */
  own: ReadonlyMap<string, string | null>
}

export const plainLetters: Letters = { font: null, style: null, own: new Map() }

export interface Tables {
  /** Colours as six digits; null for that of the surroundings. */
  colours: readonly (string | null)[]
  fonts: ReadonlyMap<number, { name: string; page: number | null }>
}

const switches = new Map([
  ["b", "b"],
  ["i", "i"],
  ["strike", "strike"],
  ["striked", "dstrike"],
  ["caps", "caps"],
  ["scaps", "smallCaps"],
  ["outl", "outline"],
  ["shad", "shadow"],
  ["v", "vanish"],
  ["deleted", "vanish"],
])

const underlines = new Map([
  ["ul", "single"],
  ["ulw", "words"],
  ["uldb", "double"],
  ["uld", "dotted"],
  ["uldash", "dash"],
  ["uldashd", "dotDash"],
  ["uldashdd", "dotDotDash"],
  ["ulth", "thick"],
  ["ulwave", "wave"],
])

/** What a control word makes of letters; null for one that says nothing of them. */
export function withLetters(letters: Letters, name: string, value: number | null, { colours }: Tables): Letters | null {
  const set = (key: string, own: string | null): Letters => ({ ...letters, own: new Map(letters.own).set(key, own) })
  const without = (key: string): Letters => {
    const own = new Map(letters.own)
    own.delete(key)
    return { ...letters, own }
  }
  const flag = switches.get(name)
  if (flag) return set(flag, value === 0 ? "0" : null)
  const line = underlines.get(name)
  if (line) return value === 0 ? set("u", "none") : set("u", line)
  const colour = value === null ? undefined : colours[value]
  switch (name) {
    case "plain":
      return plainLetters
    case "f":
      return { ...letters, font: value }
    case "cs":
      return { ...letters, style: value }
    case "fs":
      return set("sz", String(value ?? 24))
    case "ulnone":
      return set("u", "none")
    case "super":
      return set("vertAlign", value === 0 ? "baseline" : "superscript")
    case "sub":
      return set("vertAlign", value === 0 ? "baseline" : "subscript")
    case "nosupersub":
      return without("vertAlign")
    case "up":
      return set("position", String(value ?? 6))
    case "dn":
      return set("position", String(-(value ?? 6)))
    case "expndtw":
      return set("spacing", String(value ?? 0))
    case "expnd":
      return set("spacing", String((value ?? 0) * 5))
    case "cf":
      return colour ? set("color", colour) : without("color")
    case "ulc":
      return colour ? set("ulc", colour) : without("ulc")
    case "highlight":
    case "cb":
    case "chcbpat":
      return colour ? set("shd", colour) : without("shd")
    case "lang": {
      const language = value === null ? null : languageOf(value)
      return language ? set("lang", language) : value === noLanguage.number ? set("lang", noLanguage.name) : letters
    }
    case "ltrch":
    case "rtlch":
      return set("rtl", name === "rtlch" ? null : "0")
    default:
      return null
  }
}

export const escaped = (text: string): string =>
  text
    .replace(/&/g, "&amp;")
    .replace(/</g, "&lt;")
    .replace(/>/g, "&gt;")
    .replace(/"/g, "&quot;")
    // Nothing that XML cannot hold.
    .replace(
      /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g,
      "",
    )

/** In the order that the standard wants. */
const order = [
  "b",
  "i",
  "caps",
  "smallCaps",
  "strike",
  "dstrike",
  "outline",
  "shadow",
  "vanish",
  "color",
  "spacing",
  "position",
  "sz",
  "u",
  "shd",
  "vertAlign",
  "rtl",
  "lang",
]

/** What says that letters do not have what their style has. */
const off = new Map([
  ["sz", "24"],
  ["u", "none"],
  ["color", "auto"],
  ["spacing", "0"],
  ["position", "0"],
  ["vertAlign", "baseline"],
  ["shd", "auto"],
])

/** What letters have that others have not, and the other way round: text in RTF is as it says, whatever its style. */
export function lettersBeside(letters: Letters, base: Letters, usualFont: number): Letters {
  const own = new Map<string, string | null>()
  const of = ({ own: told }: Letters, key: string) =>
    told.has(key) ? (told.get(key) as string | null) : (off.get(key) ?? "0")
  for (const key of new Set([...letters.own.keys(), ...base.own.keys()])) {
    const value = of(letters, key)
    if (value !== of(base, key) && (letters.own.has(key) || (key !== "lang" && key !== "ulc"))) own.set(key, value)
  }
  const font = (letters.font ?? usualFont) === (base.font ?? usualFont) ? null : (letters.font ?? usualFont)
  return { ...letters, font, own }
}

export function lettersXml({ font, style, own }: Letters, { fonts }: Tables): string {
  const name = font === null ? undefined : fonts.get(font)?.name
  const face = name ? `<w:rFonts w:ascii="${escaped(name)}" w:hAnsi="${escaped(name)}" w:cs="${escaped(name)}"/>` : ""
  const parts = order.map((key) => {
    const value = own.get(key)
    if (value === undefined) return ""
    if (key === "shd") return `<w:shd w:val="clear" w:color="auto" w:fill="${value}"/>`
    const line = key === "u" && own.get("ulc") ? ` w:color="${own.get("ulc")}"` : ""
    return value === null ? `<w:${key}/>` : `<w:${key} w:val="${value}"${line}/>`
  })
  const inside = `${style === null ? "" : `<w:rStyle w:val="c${style}"/>`}${face}${parts.join("")}`
  return inside === "" ? "" : `<w:rPr>${inside}</w:rPr>`
}
