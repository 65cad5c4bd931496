/** Text to measure with: made-up sentences of the ferry trust, the same at every run. */
import type { Node } from "prosemirror-model"
import { document, p, paragraph } from "@biblon/core/document"

const words =
  "the a of and to in that it was for on with as by at from which but not this have their had been one would when who more time water tide boat chain ferry slip bank mud clock bell flag crossing passenger passengers ferryman harbour estuary channel morning evening winter spring neap slack ebb flood current hauled crossed waited landed carried remembered printed promised reckoned eleven minutes hours strong narrow familiar yellow painted wooden wet careful honest trustees letter minutes table notice timetable".split(
    " ",
  )

function* numbers(seed: number): Generator<number, never> {
  let state = seed
  for (;;) yield (state = (state * 16807) % 2147483647) / 2147483647
}

/** Paragraphs of 40 to 120 words, so many words in all. */
export function proseParagraphs(total: number, seed = 7): string[] {
  const random = numbers(seed)
  const next = () => random.next().value
  const paragraphs: string[] = []
  let count = 0
  while (count < total) {
    const length = Math.min(total - count, 40 + Math.floor(next() * 80))
    let text = ""
    let sentence = 0
    for (let i = 0; i < length; i++) {
      const word = words[Math.floor(next() * words.length)] as string
      text += sentence === 0 ? (word[0] ?? "").toUpperCase() + word.slice(1) : word
      sentence++
      const ends = i === length - 1 || (sentence > 6 && next() < 0.12)
      text += ends ? "." : next() < 0.07 ? "," : ""
      if (ends) sentence = 0
      if (i < length - 1) text += " "
    }
    paragraphs.push(text)
    count += length
  }
  return paragraphs
}

/** The same as a document, a heading before every twelfth paragraph. */
export function prose(total: number, seed = 7): Node {
  return document(proseParagraphs(total, seed).flatMap((text, i) => (i % 12 === 0 ? [paragraph("heading1", [`Part ${i / 12 + 1}`]), p(text)] : [p(text)])))
}
