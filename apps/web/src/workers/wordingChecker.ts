/** Looks English through. What it needs is fetched when the first passage comes. */
import { createBinaryModuleFromUrl, Dialect, LocalLinter, type LintKind } from "harper.js"
import retextEnglish from "retext-english"
import retextPassive from "retext-passive"
import { unified } from "unified"
import { VFile } from "vfile"
import type { Passage, Remark, WordingKind } from "@biblon/core/checking"

/** What the kinds of the linter are among ours; those that are not here are left to others, as spelling is. */
const kinds: Partial<Record<LintKind, WordingKind>> = {
  Agreement: "grammar",
  Grammar: "grammar",
  WordOrder: "grammar",
  Eggcorn: "meant",
  Malapropism: "meant",
  Miscellaneous: "meant",
  Nonstandard: "meant",
  Typo: "meant",
  Usage: "meant",
  WordChoice: "meant",
  BoundaryError: "signs",
  Formatting: "signs",
  Punctuation: "signs",
  Capitalization: "capitals",
  Repetition: "repeated",
  Enhancement: "wordy",
  Readability: "wordy",
  Redundancy: "wordy",
  Style: "wordy",
  Regionalism: "regional",
}

/** Rules that are not asked: spelling, blanks and long sentences are looked at elsewhere, what companies call themselves is nobody's mistake, and some are wrong more often than not. */
const silent = new Set([
  "SpellCheck",
  "LongSentences",
  "Spaces",
  "NoFrenchSpaces",
  "MassNouns",
  "QuantifierNumeralConflict",
  "SplitWords",
])
const namesOfCompanies = /Names$|Trademarks$/

/** So many words are offered. */
const most = 3

/** The linter's three kinds of suggestions. */
const removes = 1
const follows = 2

const dialects: readonly (readonly [RegExp, Dialect])[] = [
  [/^en-us\b/i, Dialect.American],
  [/^en-ca\b/i, Dialect.Canadian],
  [/^en-au\b/i, Dialect.Australian],
  [/^en-in\b/i, Dialect.Indian],
]
const dialectOf = (language: string) => dialects.find(([pattern]) => pattern.test(language))?.[1] ?? Dialect.British

const passive = unified().use(retextEnglish).use(retextPassive)

async function passiveIn(text: string): Promise<Remark[]> {
  const file = new VFile(text)
  await passive.run(passive.parse(file), file)
  return file.messages.flatMap(({ place, actual }) => {
    const [from, to] = place && "start" in place ? [place.start.offset, place.end.offset] : [undefined, undefined]
    if (from === undefined || to === undefined) return []
    return [{ from, to, kind: "passive", says: `“${actual ?? ""}”: who does it?`, instead: [] }]
  })
}

export class WordingChecker {
  private linter: Promise<LocalLinter> | null = null
  private dialect: Dialect | null = null

  /** @param address of the linter's WebAssembly */
  constructor(private readonly address: string) {}

  private open(): Promise<LocalLinter> {
    this.linter ??= this.make()
    // One that could not be fetched is asked for again the next time.
    this.linter.catch(() => (this.linter = null))
    return this.linter
  }

  private async make(): Promise<LocalLinter> {
    const linter = new LocalLinter({ binary: createBinaryModuleFromUrl(this.address) })
    await linter.setup()
    return linter
  }

  /** The linter for a dialect; changing that makes it ask all rules again. */
  private async linterFor(dialect: Dialect): Promise<LocalLinter> {
    const linter = await this.open()
    if (dialect === this.dialect) return linter
    await linter.setDialect(dialect)
    const rules = await linter.getDefaultLintConfig()
    for (const name of Object.keys(rules)) if (silent.has(name) || namesOfCompanies.test(name)) rules[name] = false
    await linter.setLintConfig(rules)
    this.dialect = dialect
    return linter
  }

  /** What is to be said of a passage, in the order of its text. */
  async remarks({ text, language }: Passage): Promise<Remark[]> {
    const linter = await this.linterFor(dialectOf(language))
    const found: Remark[] = []
    for (const lint of await linter.lint(text, { language: "plaintext" })) {
      const kind = kinds[lint.lint_kind() as LintKind]
      const { start: from, end: to } = lint.span()
      const own = text.slice(from, to)
      const instead = lint.suggestions().map((suggestion) => {
        const replacement = suggestion.get_replacement_text()
        const does = suggestion.kind() as number
        return does === removes ? "" : does === follows ? own + replacement : replacement
      })
      if (kind)
        found.push({
          from,
          to,
          kind,
          says: lint.message().replace(/`([^`]*)`/g, "“$1”"),
          instead: [...new Set(instead)].filter((words) => words !== own).slice(0, most),
        })
      lint.free()
    }
    return [...found, ...(await passiveIn(text))].sort((a, b) => a.from - b.from)
  }
}
