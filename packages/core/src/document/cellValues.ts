/** Numbers and dates as people write them in cells, read by the language of the document. */
import { knownLanguage } from "./language"

interface Words {
  decimal: string
  /** Names of months, in lower case, long and short. */
  months: readonly string[][]
  /** Whether the month is written before the day. */
  monthFirst: boolean
}

const known = new Map<string, Words>()

function wordsOf(language: string): Words {
  let words = known.get(language)
  if (words) return words
  const tag = knownLanguage(language)
  const decimal = new Intl.NumberFormat(tag).formatToParts(1.5).find(({ type }) => type === "decimal")?.value ?? "."
  const months = Array.from({ length: 12 }, (_, month) =>
    (["long", "short"] as const).map((form) =>
      new Intl.DateTimeFormat(tag, { month: form, timeZone: "UTC" })
        .format(Date.UTC(2024, month, 15))
        .replace(/\.$/, "")
        .toLowerCase(),
    ),
  )
  const order = new Intl.DateTimeFormat(tag, { day: "numeric", month: "numeric" })
    .formatToParts(Date.UTC(2024, 10, 25))
    .map(({ type }) => type)
  words = { decimal, months, monthFirst: order.indexOf("month") < order.indexOf("day") }
  known.set(language, words)
  return words
}

/** The longest text that is looked at: longer ones are neither numbers nor dates. */
const longest = 60

/** A text as a number, with or without a sign of money or of percent; null for what is none. */
export function readNumber(text: string, language: string): number | null {
  const trimmed = text.trim()
  if (trimmed.length === 0 || trimmed.length > longest) return null
  const { decimal } = wordsOf(language)
  const bare = trimmed
    .replace(/^[\p{Sc}A-Z]{0,3}\s?(?=[-–−+\d.,(])|\s?(?:[\p{Sc}]|[A-Z]{3})$/gu, "")
    .replace(/[–−]/, "-")
  const percent = bare.endsWith("%")
  const own = percent ? bare.slice(0, -1).trim() : bare
  const grouped =
    decimal === ","
      ? /^[-+]?\d{1,3}(?:[.\s\u00a0\u202f'’]\d{3})+(?:,\d+)?$/
      : /^[-+]?\d{1,3}(?:[,\s\u00a0\u202f'’]\d{3})+(?:\.\d+)?$/
  const plain = decimal === "," ? /^[-+]?(?:\d+(?:,\d*)?|,\d+)$/ : /^[-+]?(?:\d+(?:\.\d*)?|\.\d+)$/
  const digits = grouped.test(own)
    ? own.replace(decimal === "," ? /[.\s\u00a0\u202f'’]/g : /[,\s\u00a0\u202f'’]/g, "")
    : own
  if (!plain.test(digits)) return null
  const number = Number(digits.replace(",", "."))
  return Number.isFinite(number) ? (percent ? number / 100 : number) : null
}

/** A text as a day, in days since 1970; null for what is none. */
export function readDate(text: string, language: string): number | null {
  const trimmed = text.trim().toLowerCase()
  if (trimmed.length < 4 || trimmed.length > longest) return null
  const { months, monthFirst } = wordsOf(language)
  const day = (year: number, month: number, date: number) => {
    const full = year < 100 ? year + (year < 70 ? 2000 : 1900) : year
    const time = Date.UTC(full, month - 1, date)
    const made = new Date(time)
    return month >= 1 && month <= 12 && made.getUTCDate() === date ? time / 86_400_000 : null
  }
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(trimmed)
  if (iso) return day(Number(iso[1]), Number(iso[2]), Number(iso[3]))
  const numeric = /^(\d{1,2})[./-]\s?(\d{1,2})[./-]\s?(\d{2,4})$/.exec(trimmed)
  if (numeric) {
    const [a, b, year] = [Number(numeric[1]), Number(numeric[2]), Number(numeric[3])]
    return monthFirst && trimmed.includes("/") ? day(year, a, b) : day(year, b, a)
  }
  const words = trimmed.split(/[\s,.]+/).filter((word) => word !== "" && word !== "de" && word !== "of")
  const month = months.findIndex((names) => words.some((word) => names.includes(word)))
  const numbers = words.flatMap((word) => (/^\d{1,4}(?:st|nd|rd|th)?$/.test(word) ? [Number.parseInt(word)] : []))
  if (month < 0 || numbers.length === 0) return null
  const year = numbers.find((number) => number > 31) ?? (numbers.length > 1 ? numbers.at(-1) : 2000)
  const date = numbers.find((number) => number >= 1 && number <= 31) ?? 1
  return day(year ?? 2000, month + 1, date)
}
