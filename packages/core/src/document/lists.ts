/**
 * List definitions that ship. An item names a definition, a run and a level; what is written before it
 * is computed from the order of the document (numbering.ts), never kept.
 */
import { entryOf } from "./keyed"
import type { ListDefinition, ListLevel, StyleSheet } from "./shapes"

const step = 20

function level(depth: number, rest: Partial<ListLevel>): ListLevel {
  return {
    format: "•",
    kind: "mark",
    numbering: "decimal",
    start: 1,
    indent: step * (depth + 1),
    hanging: step,
    align: "left",
    follow: "tab",
    restart: 0,
    legal: false,
    tight: true,
    letters: {},
    ...rest,
  }
}

function levels(make: (depth: number) => Partial<ListLevel>): ListLevel[] {
  return Array.from({ length: 9 }, (_, depth) => level(depth, make(depth)))
}

function pick<T>(list: readonly T[], depth: number): T {
  return list[depth % list.length] as T
}

function marked(name: string, ...signs: string[]): ListDefinition {
  return { name, levels: levels((depth) => ({ format: pick(signs, depth) })) }
}

function numbered(name: string, ...kinds: [ListLevel["numbering"], string][]): ListDefinition {
  return {
    name,
    levels: levels((depth) => {
      const [numbering, after] = pick(kinds, depth)
      return { kind: "number", numbering, format: `%${depth + 1}${after}` }
    }),
  }
}

/** "%1.%2.%3" for the third level. */
const path = (depth: number) => Array.from({ length: depth + 1 }, (_, i) => `%${i + 1}`).join(".")

export const readyLists: Readonly<Record<string, ListDefinition>> = {
  marks: marked("Dots and dashes", "•", "–", "∘"),
  squares: marked("Squares", "▪", "▫", "·"),
  pointers: marked("Pointers", "▸", "›", "·"),
  dashes: marked("Dashes", "–"),
  crosses: marked("Crosses", "+", "–"),
  waves: marked("Waves", "∼", "·"),
  numbers: numbered("1.  a)  i.", ["decimal", "."], ["lowerLetter", ")"], ["lowerRoman", "."]),
  brackets: numbered("1)  a)  i)", ["decimal", ")"], ["lowerLetter", ")"], ["lowerRoman", ")"]),
  enclosed: {
    name: "(1)  (a)  (i)",
    levels: levels((depth) => ({
      kind: "number",
      numbering: pick(["decimal", "lowerLetter", "lowerRoman"] as const, depth),
      format: `(%${depth + 1})`,
      hanging: step + 4,
    })),
  },
  points: numbered("a.  i.  1.", ["lowerLetter", "."], ["lowerRoman", "."], ["decimal", "."]),
  smallRomans: numbered("i.  a)  1.", ["lowerRoman", "."], ["lowerLetter", ")"], ["decimal", "."]),
  letters: numbered("a)  i.  1.", ["lowerLetter", ")"], ["lowerRoman", "."], ["decimal", "."]),
  capitals: numbered("A.  1.  a)", ["upperLetter", "."], ["decimal", "."], ["lowerLetter", ")"]),
  romans: numbered("I.  A.  1.", ["upperRoman", "."], ["upperLetter", "."], ["decimal", "."]),
  clauses: {
    name: "1.  1.1  1.1.1",
    levels: levels((depth) => ({
      kind: "number",
      format: depth === 0 ? "%1." : path(depth),
      hanging: 22 + 9 * depth,
      indent: 22 + 9 * depth + 14 * depth,
    })),
  },
  chapters: {
    name: "Chapters 1, 1.1",
    levels: levels((depth) => ({
      kind: "number",
      format: path(depth),
      indent: 0,
      hanging: 0,
      follow: "space",
      tight: false,
    })),
  },
  appendices: {
    name: "Appendices A, A.1",
    levels: levels((depth) => ({
      kind: "number",
      numbering: depth === 0 ? "upperLetter" : "decimal",
      format: path(depth),
      indent: 0,
      hanging: 0,
      follow: "space",
      tight: false,
    })),
  },
  tasks: { name: "Things to do", levels: levels(() => ({ kind: "check", format: "" })) },
}

/** The definition of that key; an unknown key counts as plain numbers, so that no list is lost with its definition. */
export function listNamed(sheet: StyleSheet, key: string): ListDefinition {
  return entryOf(sheet.lists, key) ?? entryOf(readyLists, key) ?? (readyLists.numbers as ListDefinition)
}

export function levelOf(sheet: StyleSheet, definition: string, depth: number): ListLevel {
  const { levels } = listNamed(sheet, definition)
  return (levels[depth] ?? levels[0]) as ListLevel
}

/** A name for a run of items that is numbered by itself. */
export function newRun(): string {
  return Math.random().toString(36).slice(2, 10)
}
