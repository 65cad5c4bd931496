/** What is looked for in the wording of a text. */

interface About {
  name: string
  /** Why it is told. */
  why: string
  /** Whether it is looked for until somebody says otherwise. */
  on: boolean
  /** Whether English alone is looked through for it. */
  english: boolean
}

export const wordingKinds = {
  grammar: {
    name: "Grammar",
    why: "The words do not go together: a verb in the wrong form, one person or many, the order of words.",
    on: true,
    english: true,
  },
  meant: {
    name: "Words that may stand for others",
    why: "The word is right, but another one that sounds or looks like it is usual here.",
    on: true,
    english: true,
  },
  signs: {
    name: "Signs between words",
    why: "Commas, hyphens, apostrophes and blanks that are missing or stand where they should not.",
    on: true,
    english: true,
  },
  capitals: {
    name: "Capitals",
    why: "A sentence or name without its capital.",
    on: true,
    english: true,
  },
  repeated: {
    name: "Words repeated",
    why: "The same word stands twice, one behind the other.",
    on: true,
    english: true,
  },
  wordy: {
    name: "Said in more words than needed",
    why: "Fewer or plainer words say the same. It is a matter of taste.",
    on: false,
    english: true,
  },
  regional: {
    name: "Words of another English",
    why: "The word is usual in another country than the one whose English this text is in.",
    on: false,
    english: true,
  },
  long: {
    name: "Long sentences",
    why: "By the end of it the beginning is forgotten. Two sentences are easier to follow.",
    on: false,
    english: false,
  },
  passive: {
    name: "Nobody does it",
    why: "The sentence says what is done and not who does it. Where that matters, say who.",
    on: false,
    english: true,
  },
} as const satisfies Record<string, About>

export type WordingKind = keyof typeof wordingKinds

export const wordingKindNames = Object.keys(wordingKinds) as WordingKind[]
