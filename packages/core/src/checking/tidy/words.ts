/** Slips of the hand in every language: words and blanks written twice, blanks before a comma. */
import type { Node } from "prosemirror-model"
import { leavesOf, textOf } from "../../document"
import type { Finding, Rule } from "./rule"
import { matches, textRule } from "./text"

export const doubleWords = textRule(
  {
    id: "doubleWords",
    name: "Words written twice",
    why: "The same word stands twice, one behind the other.",
    act: "Once",
  },
  // Some are meant: "had had", "that that", and names of places.
  (text) =>
    matches(text, /(?<![\p{L}\p{N}])(\p{L}{2,30}) \1(?![\p{L}\p{N}'’-])/gu, ([, word]) => word ?? "").filter(
      ({ text: word }) => !/^(had|that|so|very|sous|nous|vous|die|der|das)$/i.test(word) && !/^\p{Lu}/u.test(word),
    ),
)

export const doubleBlanks = textRule(
  {
    id: "doubleBlanks",
    name: "Two blanks between words",
    why: "One blank is enough; typefaces make the space behind a full stop themselves.",
    act: "One blank",
  },
  (text) => matches(text, /(?<=[^\s])  (?=[^\s])/g, () => " "),
)

export const blankBeforeSign = textRule(
  {
    id: "blankBeforeSign",
    name: "Blanks before a comma or full stop",
    why: "The sign would stand alone at the beginning of a line.",
    act: "Without the blank",
  },
  (text) => matches(text, /(?<=[\p{L}\p{N})])[ \t]{1,3}(?=[,.](?:\s|$))/gu, () => ""),
)

export const blanksAtEnd = textRule(
  {
    id: "blanksAtEnd",
    name: "Blanks at the end of a paragraph",
    why: "They are not seen, and shift text that is centred or ends at the right.",
    act: "Take them away",
  },
  (text) => {
    const to = text.length
    let from = to
    while (from > 0 && (text[from - 1] === " " || text[from - 1] === "\t")) from--
    return from > 0 && to - from > 1 ? [{ from, to, text: "" }] : []
  },
)

const curved = /[“”„‘’«»]/
const curvedIn = new WeakMap<Node, boolean>()

function isCurved(paragraph: Node): boolean {
  let found = curvedIn.get(paragraph)
  if (found === undefined) curvedIn.set(paragraph, (found = curved.test(textOf(paragraph))))
  return found
}

/** Straight marks with the curved ones that belong there. Behind a figure they are inches or minutes. */
const straightMarks = textRule(
  {
    id: "mixedMarks",
    name: "Straight quotation marks among curved ones",
    why: "Marks of two kinds look as if the text came from two hands.",
    act: "Curved ones",
  },
  (text) =>
    [
      ...matches(text, /(?<!\d)"/g, ({ index = 0 }) => (/^$|[\s([{–—“]/.test(text.charAt(index - 1)) ? "“" : "”")),
      ...matches(text, /(?<=\p{L})'(?=\p{L})/gu, () => "’"),
    ].sort((a, b) => a.from - b.from),
)

export const mixedMarks: Rule = {
  ...straightMarks,
  find: (doc) => (leavesOf(doc).nodes.some(isCurved) ? straightMarks.find(doc) : []),
}

const closing: Readonly<Record<string, string>> = { "(": ")", "[": "]", "“": "”", "«": "»" }

/** Offsets of brackets and quotation marks that nothing closes. */
function unclosed(text: string): number[] {
  const open: { at: number; sign: string }[] = []
  for (let at = 0; at < text.length; at++) {
    const sign = text.charAt(at)
    if (Object.hasOwn(closing, sign)) open.push({ at, sign })
    else if (open.length > 0 && closing[open.at(-1)?.sign ?? ""] === sign) open.pop()
  }
  return open.map((own) => own.at)
}

export const openBrackets: Rule = {
  id: "openBrackets",
  name: "Brackets and quotation marks that nothing closes",
  why: "Who reads waits for the end of what was begun. Where it ends, only you know.",
  act: "Close it",
  find(doc) {
    const leaves = leavesOf(doc)
    return leaves.nodes.flatMap((paragraph, leaf) =>
      unclosed(textOf(paragraph)).map((at): Finding => {
        const from = leaves.start(leaf) + at
        return { leaf, from, to: from + 1, mend: null }
      }),
    )
  },
}
