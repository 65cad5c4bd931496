/** Text to measure with: made-up sentences of the ferry trust, the same at every run. */
import { readFileSync } from "node:fs"
import type { Node } from "prosemirror-model"
import { EditorState } from "prosemirror-state"
import {
  defaultSetup,
  defaultStyles,
  defaultTypesetting,
  document,
  letters,
  nodes,
  p,
  paragraph,
  type Border,
  type ParagraphFormat,
  type StyleSheet,
} from "@biblon/core/document"
import { fillEdge, placeNumbers } from "@biblon/core/editing"

const words =
  "the a of and to in that it was for on with as by at from which but not this have their had been one would when who more time water tide boat chain ferry slip bank mud clock bell flag crossing passenger passengers ferryman harbour estuary channel morning evening winter spring neap slack ebb flood current hauled crossed waited landed carried remembered printed promised reckoned eleven minutes hours strong narrow familiar yellow painted wooden wet careful honest trustees letter minutes table notice timetable".split(
    " ",
  )

function* numbers(seed: number): Generator<number, never> {
  let state = seed
  for (;;) yield (state = (state * 16807) % 2147483647) / 2147483647
}

/** Syllables of which a large vocabulary is made. */
const [onsets, nuclei, codas] = [
  " b bl br c ch cl cr d dr f fl fr g gl gr h j k l m n p pl pr qu r s sc sh sl sm sn sp st str sw t th tr v w wh".split(
    " ",
  ),
  "a e i o u ai ea ee ou oa y".split(" "),
  " b ck d ft g l ld m mp n nd ng nt p r rd rk rm s st t th x".split(" "),
]

/** Words of a list by a number from 0 up to 1: the chance of one falls with its place. */
const ranked = (all: readonly string[]) => (part: number) => all[Math.floor(all.length ** part) - 1] as string

/** 20,000 made-up words, of which the first come most often, as in a real text; made of a seed, the same each time. */
function vocabulary(): (part: number) => string {
  const random = numbers(11)
  const one = <T>(list: readonly T[]) => list[Math.floor(random.next().value * list.length)] as T
  const made = new Set<string>(words)
  while (made.size < 20_000) {
    const syllables = 1 + Math.floor(random.next().value * 3.4)
    made.add(Array.from({ length: syllables }, () => one(onsets) + one(nuclei) + one(codas)).join(""))
  }
  return ranked([...made])
}

/** The same with a vocabulary of 20,000 words. */
export function wideParagraphs(total: number): string[] {
  return proseParagraphs(total, 7, vocabulary())
}

/** The same with 20,000 words of a dictionary that ships, every fiftieth with a letter too many. */
export function spelledParagraphs(total: number): string[] {
  const listed = readFileSync("node_modules/dictionary-en-gb/index.dic", "utf8").match(/^[a-z]{2,}(?=\/|$)/gm) ?? []
  const random = numbers(11)
  const all = Array.from({ length: 20_000 }, (_, n) => {
    const word = listed[Math.floor(random.next().value * listed.length)] as string
    return n % 50 === 49 ? `${word}x` : word
  })
  return proseParagraphs(total, 7, ranked(all))
}

/** A word by a number from 0 up to 1. */
const plainWord = (part: number) => words[Math.floor(part * words.length)] as string

/** Paragraphs of 40 to 120 words, so many words in all. */
export function proseParagraphs(total: number, seed = 7, wordAt = plainWord): string[] {
  const random = numbers(seed)
  const next = () => random.next().value
  const paragraphs: string[] = []
  let count = 0
  while (count < total) {
    const length = Math.min(total - count, 40 + Math.floor(next() * 80))
    // In one piece at the end, as a document that was read has it.
    const pieces: string[] = []
    let sentence = 0
    for (let i = 0; i < length; i++) {
      const word = wordAt(next())
      pieces.push(sentence === 0 ? (word[0] ?? "").toUpperCase() + word.slice(1) : word)
      sentence++
      const ends = i === length - 1 || (sentence > 6 && next() < 0.12)
      pieces.push(ends ? "." : next() < 0.07 ? "," : "")
      if (ends) sentence = 0
      if (i < length - 1) pieces.push(" ")
    }
    paragraphs.push(pieces.join(""))
    count += length
  }
  return paragraphs
}

/** The same as a document, a heading before every twelfth paragraph. */
export function prose(total: number, paragraphs = proseParagraphs(total)): Node {
  return document(
    paragraphs.flatMap((text, i) =>
      i % 12 === 0 ? [paragraph("heading1", [`Part ${i / 12 + 1}`]), p(text)] : [p(text)],
    ),
  )
}

const border: Border = { pattern: "double", width: 0.75, colour: "#7a1f4b", distance: 6 }
const framed: Partial<ParagraphFormat> = {
  borders: { top: border, right: border, bottom: border, left: border },
  shading: "#f4e4eb",
  indentLeft: 12,
  indentRight: 12,
}
const item = (text: string, level: number, run: string, definition = "numbers") =>
  paragraph("body", [text], { list: { definition, run, level } })

/** A style sheet in which headings are numbered and text is justified and hyphenated. */
const shapedStyles: StyleSheet = {
  ...defaultStyles,
  defaults: {
    ...defaultStyles.defaults,
    paragraph: { ...defaultStyles.defaults.paragraph, align: "justify", hyphenate: true },
  },
  styles: {
    ...defaultStyles.styles,
    heading1: {
      ...defaultStyles.styles.heading1!,
      paragraph: { ...defaultStyles.styles.heading1!.paragraph, list: { definition: "chapters", run: "", level: 0 } },
    },
  },
}

/**
 * So many words with all on each sheet that shaping offers: numbered headings, lists in levels, tab stops with
 * leaders, frames, drop caps, small capitals, raised letters, highlights, text from right to left, hyphens and
 * whole-paragraph breaking.
 */
export function shaped(total: number): Node {
  const texts = proseParagraphs(total)
  const blocks = texts.flatMap((text, i): Node[] => {
    const run = `r${Math.floor(i / 6)}`
    switch (i % 6) {
      case 0:
        return [
          paragraph("heading1", [`Part ${i / 6 + 1}`]),
          paragraph("body", [text], { dropCap: { lines: 3, distance: 6, family: "Playfair Display" } }),
        ]
      case 1:
        return [
          item(text.slice(0, 90), 0, run),
          item(text.slice(90, 200), 1, run),
          item(text.slice(200), 1, run, "marks"),
        ]
      case 2:
        return [
          p(
            text.slice(0, 60),
            letters("small capitals", { caps: "small", family: "EB Garamond" }),
            text.slice(60, 120),
            letters("2", { script: "super" }),
            letters(" marked ", { highlight: "#f4e3b5", underline: "wavy", strike: "single" }),
            text.slice(120),
          ),
        ]
      case 3:
        return [
          paragraph("body", [`Crossing\t${i}.50\t9.10`], {
            tabs: [
              { position: 250, align: "decimal", leader: "dotted" },
              { position: 450, align: "right", leader: "dashed" },
            ],
            align: "left",
          }),
          p(text),
        ]
      case 4:
        return [paragraph("body", [text.slice(0, 120)], framed), paragraph("body", [text.slice(120)], framed)]
      default:
        return [p(text.slice(0, 80), " המעבורת חוצה את השפך ", letters(text.slice(80), { spacing: 0.2 }))]
    }
  })
  return document(blocks, { styles: shapedStyles, typesetting: { ...defaultTypesetting, breaking: "whole" } })
}

/** So many words make a sheet. */
export const everythingWords = 444

/** A document that uses the sheet in full: two columns, heads with fields, three notes a sheet, contents. @param words in all */
export function everything(words: number): Node {
  const stories: Node[] = []
  const blocks = proseParagraphs(words).flatMap((text, i) => {
    const half = Math.floor(text.length / 2)
    const key = `n${i}`
    // A note for every second paragraph is about three on a sheet.
    const noted = i % 2 === 0
    if (noted) stories.push(nodes.story.create({ key, kind: "note" }, paragraph("note", [`See the toll book, ${i}.`])))
    const own = noted ? p(text.slice(0, half), nodes.anchor.create({ story: key }), text.slice(half)) : p(text)
    return i % 12 === 0 ? [paragraph("heading1", [`Part ${i / 12 + 1}`]), own] : [own]
  })
  const doc = document(
    [nodes.contents.create({ levels: 2, look: "dotted" }), ...blocks],
    { setup: { ...defaultSetup, columns: { count: 2, gap: 20, line: true, shares: null } } },
    stories,
  )
  let state = EditorState.create({ doc })
  for (const command of [fillEdge("head", "{title}||{heading}"), placeNumbers({ edge: "foot", part: 1 }, "%1 of %2")])
    command(state, (tr) => (state = state.apply(tr)))
  return state.doc
}
