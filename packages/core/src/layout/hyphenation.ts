/**
 * Where words may be divided, by the pattern files of the hyphenopoly package: one WebAssembly module a
 * language, called by its own interface (a zero-terminated word in UTF-16 at address 0, the alphabet at
 * 1664), so that the platform alone decides how files are had.
 */

import { entryOf } from "../document"

/** Gives the bytes of a pattern file by its name, such as "en-gb". Throws if it cannot be had. */
export type PatternSource = (name: string) => Uint8Array<ArrayBuffer>

/** Languages whose patterns ship. */
export const hyphenated = [
  "ca",
  "cs",
  "da",
  "de",
  "en-gb",
  "en-us",
  "es",
  "et",
  "fi",
  "fr",
  "hr",
  "hu",
  "is",
  "it",
  "la",
  "lt",
  "lv",
  "nb",
  "nl",
  "pl",
  "pt",
  "ro",
  "ru",
  "sk",
  "sl",
  "sv",
  "tr",
  "uk",
] as const

const dialects: Record<string, string> = { en: "en-us", no: "nb", nn: "nb" }
const alphabetAt = 1664
const longestWord = 61
const mostRemembered = 50_000
const HYPHEN = 0xad

const files = new Map<string, string | null>()

/** The pattern file for a language; null if none ships. */
export function patternsFor(language: string): string | null {
  let name = files.get(language)
  if (name === undefined) files.set(language, (name = findPatterns(language)))
  return name
}

function findPatterns(language: string): string | null {
  const tag = language.toLowerCase()
  const base = tag.split("-")[0] ?? ""
  const known: readonly string[] = hyphenated
  return (
    [tag, base === "en" && tag !== "en" && tag !== "en-us" ? "en-gb" : "", entryOf(dialects, base) ?? "", base].find(
      (name) => known.includes(name),
    ) ?? null
  )
}

interface Engine {
  divide(word: string): number[]
}

export class Hyphenator {
  private readonly engines = new Map<string, Engine | null>()

  constructor(private readonly source: PatternSource) {}

  /** Offsets inside a word at which it may be divided, at least one letter from either end. Empty for words of unknown letters. */
  points(word: string, language: string): readonly number[] {
    const name = patternsFor(language)
    if (name === null || word.length > longestWord || word.length < 2) return []
    let engine = this.engines.get(name)
    if (engine === undefined) this.engines.set(name, (engine = createEngine(this.source(name))))
    return engine?.divide(word) ?? []
  }
}

function createEngine(bytes: Uint8Array<ArrayBuffer>): Engine {
  const { exports } = new WebAssembly.Instance(new WebAssembly.Module(bytes), {})
  const memory = (exports.mem as WebAssembly.Memory).buffer
  const hyphenate = exports.hyphenate as (least: number, last: number, hyphen: number) => number
  const letters = (exports.lct as WebAssembly.Global).value as number
  const alphabet = new Set(String.fromCharCode(...new Uint16Array(memory, alphabetAt, letters)))
  const input = new Uint16Array(memory, 0, longestWord + 2)
  const remembered = new Map<string, number[]>()
  return {
    divide: (word) => {
      const lower = word.toLowerCase()
      if (lower.length !== word.length) return []
      let points = remembered.get(lower)
      if (points) return points
      points = []
      if ([...lower].every((letter) => alphabet.has(letter))) {
        for (let i = 0; i < lower.length; i++) input[i] = lower.charCodeAt(i)
        input[lower.length] = 0
        const length = hyphenate(1, 1, HYPHEN)
        const divided = length > 0 ? new Uint16Array(memory, 0, length) : []
        divided.forEach((unit, i) => {
          if (unit === HYPHEN) points?.push(i - (points?.length ?? 0))
        })
      }
      if (remembered.size > mostRemembered) remembered.clear()
      remembered.set(lower, points)
      return points
    },
  }
}
