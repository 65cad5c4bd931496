/**
 * Where lines may end in text of letters, figures, blanks and the usual signs, told by neighbours alone: what the rules of
 * breaking.ts come to there. Anything else is left to them.
 */

import { firstWhere, type TextChange } from "../document"

const start = 0
const letter = 1
const figure = 2
const blank = 3
/** Full stop, comma, semicolon, colon. */
const stop = 4
const apostrophe = 5
/** Opening quotation mark or bracket. */
const opening = 6
const closing = 7
const hyphen = 8
/** Exclamation and question mark. */
const call = 9
const kindCount = 10
const foreign = 10

function kindOf(char: string): number {
  if (/[A-Za-z]/.test(char)) return letter
  if (/\d/.test(char)) return figure
  if (char === " ") return blank
  if (".,;:".includes(char)) return stop
  if (char === "!" || char === "?") return call
  if (char === "’") return apostrophe
  if (char === "“" || char === "(") return opening
  if (char === "”" || char === ")") return closing
  return char === "-" ? hyphen : foreign
}

const ascii = Uint8Array.from({ length: 128 }, (_, code) => kindOf(String.fromCharCode(code)))

const isUnknown = 0
const isKept = 1
const isBreak = 2

/** By what stands before and behind. */
const between = new Uint8Array(kindCount * kindCount)
const say = (before: number, behind: readonly number[], what: number) =>
  behind.forEach((own) => (between[before * kindCount + own] = what))
const inWords = [letter, figure, blank, stop, call, apostrophe, closing, hyphen]
const behindSigns = [blank, stop, call, apostrophe, closing]
say(start, [letter, figure, blank, opening], isKept)
say(letter, inWords, isKept)
say(figure, inWords, isKept)
say(apostrophe, inWords, isKept)
say(blank, [blank], isKept)
say(blank, [letter, figure, opening], isBreak)
say(stop, [...behindSigns, letter, figure], isKept)
say(call, behindSigns, isKept)
say(closing, behindSigns, isKept)
say(opening, [letter, figure], isKept)
say(hyphen, [figure, blank], isKept)
say(hyphen, [letter], isBreak)

function kindAt(text: string, at: number): number {
  const code = text.charCodeAt(at)
  return code < 128 ? ascii[code]! : kindOf(text.charAt(at))
}

/** An older text of which these are known, and what was changed in it. */
export interface KnownBreaks {
  offsets: readonly number[]
  change: TextChange
}

/** Offsets after which a line may end, the last being the text's length; null where text has more in it than is known here. */
export function plainBreaks(text: string, known: KnownBreaks | null = null): number[] | null {
  const { from, oldTo, newTo } = known?.change ?? { from: 0, oldTo: 0, newTo: text.length }
  // Each is told by its two neighbours.
  const offsets = known
    ? known.offsets.slice(
        0,
        firstWhere(known.offsets, (at) => at >= from),
      )
    : []
  const end = Math.min(text.length, newTo + 1)
  let before = from > 0 ? kindAt(text, from - 1) : start
  for (let i = from; i < end; i++) {
    const kind = kindAt(text, i)
    if (kind === foreign) return null
    const what = between[before * kindCount + kind]
    if (what === isUnknown) return null
    if (what === isBreak) offsets.push(i)
    before = kind
  }
  if (!known || end === text.length) {
    offsets.push(text.length)
    return offsets
  }
  // A copy that is counted on, which for so many is much quicker than one by one.
  const behind = known.offsets.slice(firstWhere(known.offsets, (at) => at > oldTo))
  for (let k = 0; k < behind.length; k++) behind[k]! += newTo - oldTo
  return offsets.concat(behind)
}
