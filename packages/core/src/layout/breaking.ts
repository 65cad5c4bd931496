/**
 * Where lines may break: Unicode Standard Annex 14, revision of Unicode 17, with words of South-East Asian
 * scripts found by Intl.Segmenter. Rule names in comments are the annex's.
 */
import { segmenter, type TextChange } from "../document"
import { lineBreakRuns } from "./lineBreakClasses"
import { plainBreaks } from "./plainBreaks"

export interface Breaks {
  /** Offsets after which a line may end, ascending; the last is the text's length. */
  offsets: number[]
  /** Offsets at which a line must end. */
  required: Set<number> | null
  /** Whether there is anything but Latin, Greek and Cyrillic letters in it, so that text may run both ways. */
  beyond: boolean
  /** Whether neighbours alone told them. */
  plain: boolean
}

const names = [
  "al",
  "sp",
  "qu",
  "op",
  "cl",
  "cp",
  "ex",
  "sy",
  "is",
  "ns",
  "gl",
  "wj",
  "ba",
  "hy",
  "hh",
  "bb",
  "b2",
  "cb",
  "cm",
  "zw",
  "zwj",
  "nu",
  "pr",
  "po",
  "hl",
  "id",
  "eb",
  "em",
  "in",
  "jl",
  "jv",
  "jt",
  "h2",
  "h3",
  "ri",
  "ak",
  "ap",
  "as",
  "vf",
  "vi",
  "bk",
  "cr",
  "lf",
  "nl",
  "sa",
] as const
type ClassName = (typeof names)[number]
const C = Object.fromEntries(names.map((name, i) => [name, i])) as Record<ClassName, number>
const of = (...list: ClassName[]): Uint8Array => {
  const has = new Uint8Array(64)
  for (const name of list) has[C[name]] = 1
  return has
}

/** In a class byte: of full or half width. */
const WIDE = 64
const CLASS = 63
const planes = 0x20000

let table: Uint8Array | null = null

function classTable(): Uint8Array {
  if (table) return table
  table = new Uint8Array(planes)
  // LB1: what is ambiguous, unassigned or depends on the language is as most text has it.
  const resolved: Record<string, ClassName> = { ai: "al", sg: "al", xx: "al", cj: "ns", zj: "zwj" }
  let at = 0
  for (const run of lineBreakRuns.split(" ")) {
    const name = run.slice(0, 2)
    const known = resolved[name.toLowerCase()] ?? (name.toLowerCase() as ClassName)
    const end = at + parseInt(run.slice(2), 36)
    table.fill(C[known] | (name === name.toUpperCase() && /[A-Z]/.test(name) ? WIDE : 0), at, end)
    at = end
  }
  return table
}

const combining = /\p{Mn}|\p{Mc}/u
const opening = /\p{Pi}/u
const closing = /\p{Pf}/u
const unassignedPicture = /(?=\p{Cn})\p{Extended_Pictographic}/u
const DOTTED_CIRCLE = 0x25cc
const HYPHEN = 0x2010

function classOf(codePoint: number, classes: Uint8Array): number {
  if (codePoint < planes) {
    const found = classes[codePoint] as number
    return (found & CLASS) === C.sa && combining.test(String.fromCodePoint(codePoint)) ? C.cm : found
  }
  if (codePoint < 0x3fffe) return C.id | WIDE
  return codePoint >= 0xe0000 && codePoint < 0xe0200 ? C.cm : C.al
}

/** Text as characters with the marks on them (LB9). One is used again for every text, so that its memory is. */
class Characters {
  count = 0
  at = new Int32Array(4096)
  cls = new Uint8Array(4096)
  wide = new Uint8Array(4096)
  code = new Int32Array(4096)
  /** Whether the last mark on it is a joiner. */
  joins = new Uint8Array(4096)
  /** For halves of flags, which of the two it is: 1 for the first. */
  flags = new Uint8Array(4096)
  asian = false
  beyond = false

  read(text: string): this {
    if (text.length > this.at.length) {
      const size = text.length * 2
      this.at = new Int32Array(size)
      this.cls = new Uint8Array(size)
      this.wide = new Uint8Array(size)
      this.code = new Int32Array(size)
      this.joins = new Uint8Array(size)
      this.flags = new Uint8Array(size)
    }
    const { at, cls, wide, code, joins, flags } = this
    const classes = classTable()
    this.asian = false
    let highest = 0
    let n = 0
    for (let i = 0; i < text.length;) {
      let point = text.charCodeAt(i)
      if (point > highest) highest = point
      if (point >= 0xd800) point = text.codePointAt(i) as number
      const found = point < 0x300 ? (classes[point] as number) : classOf(point, classes)
      let own = found & CLASS
      const width = point > 0xffff ? 2 : 1
      const mark = own === C.cm || own === C.zwj
      if (mark && n > 0 && !alone[cls[n - 1] as number]) joins[n - 1] = own === C.zwj ? 1 : 0
      else {
        this.asian ||= own === C.sa
        joins[n] = own === C.zwj ? 1 : 0
        // LB10, and LB1 for South-East Asian letters, whose words are found apart.
        if (mark || own === C.sa) own = C.al
        at[n] = i
        cls[n] = own
        wide[n] = found & WIDE
        code[n] = point
        flags[n] = own === C.ri && (n === 0 || cls[n - 1] !== C.ri || flags[n - 1] === 0) ? 1 : 0
        n++
      }
      i += width
    }
    this.count = n
    this.beyond = highest >= 0x590
    return this
  }
}
const characters = new Characters()
const alone = of("bk", "cr", "lf", "nl", "sp", "zw")

const newline = of("bk", "cr", "lf", "nl")
const beforeOpeningQuote = of("bk", "cr", "lf", "nl", "op", "qu", "gl", "sp", "zw")
const afterClosingQuote = of("sp", "gl", "wj", "cl", "qu", "cp", "ex", "is", "sy", "bk", "cr", "lf", "nl", "zw")
const beforeWordHyphen = of("bk", "cr", "lf", "nl", "sp", "zw", "cb", "gl")
/** What may stand before a space and has no say over what comes behind it. */
const wordEnd = of("al", "nu", "is", "ex", "ba", "po")
const letter = of("al", "hl")
const hangul = of("jl", "jv", "jt", "h2", "h3")
const ideograph = of("id", "eb", "em")
const syllable = of("ak", "as")

/** Whether a line may end between the characters before and at `j`. */
function mayBreak(chars: Characters, j: number): boolean {
  const { cls, wide, code, count: n } = chars
  const i = j - 1
  const a = cls[i] as number
  const b = cls[j] as number
  if (newline[a]) return !(a === C.cr && b === C.lf) // LB4, LB5
  if (newline[b] || b === C.sp || b === C.zw) return false // LB6, LB7
  let k = i
  while (k >= 0 && cls[k] === C.sp) k--
  const c = k >= 0 ? (cls[k] as number) : -1
  if (c === C.zw) return true // LB8
  if (chars.joins[i]) return false // LB8a
  if (a === C.wj || b === C.wj || a === C.gl) return false // LB11, LB12
  if (b === C.gl && a !== C.sp && a !== C.ba && a !== C.hy && a !== C.hh) return false // LB12a
  if (b === C.cl || b === C.cp || b === C.ex || b === C.sy) return false // LB13
  if (c === C.op) return false // LB14
  const is = (at: number, pattern: RegExp) => pattern.test(String.fromCodePoint(code[at] as number))
  if (c === C.qu && is(k, opening) && (k === 0 || beforeOpeningQuote[cls[k - 1] as number])) return false // LB15a
  if (b === C.qu && is(j, closing) && (j + 1 === n || afterClosingQuote[cls[j + 1] as number])) return false // LB15b
  if (a === C.sp && b === C.is && j + 1 < n && cls[j + 1] === C.nu) return true // LB15c
  if (b === C.is) return false // LB15d
  if ((c === C.cl || c === C.cp) && b === C.ns) return false // LB16
  if (c === C.b2 && b === C.b2) return false // LB17
  if (a === C.sp) return true // LB18
  if (b === C.qu && (!is(j, opening) || !wide[i] || j + 1 === n || !wide[j + 1])) return false // LB19, LB19a
  if (a === C.qu && (!is(i, closing) || !wide[j] || i === 0 || !wide[i - 1])) return false
  if (a === C.cb || b === C.cb) return true // LB20
  if (
    (a === C.hy || a === C.hh || code[i] === HYPHEN) &&
    b === C.al &&
    (i === 0 || beforeWordHyphen[cls[i - 1] as number])
  )
    return false // LB20a
  if (b === C.ba || b === C.hh || b === C.hy || b === C.ns || a === C.bb) return false // LB21
  if ((a === C.hy || a === C.hh) && cls[i - 1] === C.hl && b !== C.hl) return false // LB21a
  if (a === C.sy && b === C.hl) return false // LB21b
  if (b === C.in) return false // LB22
  if ((letter[a] && b === C.nu) || (a === C.nu && letter[b])) return false // LB23
  if ((a === C.pr && ideograph[b]) || (ideograph[a] && b === C.po)) return false // LB23a
  if (((a === C.pr || a === C.po) && letter[b]) || (letter[a] && (b === C.pr || b === C.po))) return false // LB24
  if (inNumber(chars, i, j)) return false // LB25
  if (a === C.jl && (b === C.jl || b === C.jv || b === C.h2 || b === C.h3)) return false // LB26
  if ((a === C.jv || a === C.h2) && (b === C.jv || b === C.jt)) return false
  if ((a === C.jt || a === C.h3) && b === C.jt) return false
  if ((hangul[a] && b === C.po) || (a === C.pr && hangul[b])) return false // LB27
  if (letter[a] && letter[b]) return false // LB28
  if (aksara(chars, i)) return false // LB28a
  if (a === C.is && letter[b]) return false // LB29
  if ((letter[a] || a === C.nu) && b === C.op && !wide[j]) return false // LB30
  if (a === C.cp && !wide[i] && (letter[b] || b === C.nu)) return false
  if (a === C.ri && b === C.ri) {
    if (chars.flags[i] === 1) return false // LB30a
  }
  if (b === C.em && (a === C.eb || is(i, unassignedPicture))) return false // LB30b
  return true // LB31
}

/** Numbers with their signs, as one (LB25). */
function inNumber({ cls, count }: Characters, i: number, j: number): boolean {
  const a = cls[i] as number
  const b = cls[j] as number
  const sign = b === C.po || b === C.pr
  if (sign || b === C.nu) {
    let k = sign && (a === C.cl || a === C.cp) ? i - 1 : i
    while (cls[k] === C.sy || cls[k] === C.is) k--
    if (cls[k] === C.nu) return true
  }
  if (a === C.po || a === C.pr)
    return (
      b === C.nu ||
      (b === C.op &&
        j + 1 < count &&
        (cls[j + 1] === C.nu || (j + 2 < count && cls[j + 1] === C.is && cls[j + 2] === C.nu)))
    )
  return (a === C.hy || a === C.is) && b === C.nu
}

/** Whether two characters belong to one orthographic syllable of a Brahmic script (LB28a). */
function aksara({ cls, code, count }: Characters, i: number): boolean {
  const base = (at: number) =>
    at >= 0 && at < count && (syllable[cls[at] as number] === 1 || code[at] === DOTTED_CIRCLE)
  const j = i + 1
  if (cls[i] === C.ap && base(j)) return true
  if (base(i) && (cls[j] === C.vf || cls[j] === C.vi)) return true
  if (cls[i] === C.vi && base(i - 1) && (cls[j] === C.ak || code[j] === DOTTED_CIRCLE)) return true
  return base(i) && base(j) && j + 1 < count && cls[j + 1] === C.vf
}

const southEastAsian =
  /[\u0e00-\u0e7f]{2,}|[\u0e80-\u0eff]{2,}|[\u1000-\u109f\ua9e0-\ua9ff\uaa60-\uaa7f]{2,}|[\u1780-\u17ff]{2,}|[\u1950-\u19df]{2,}|[\u1a20-\u1aaf]{2,}/g

/** Units of such a stretch that are divided into words at once: for long ones the platform takes more than its share of time. */
const wordsAtOnce = 1000
/** Words at the end of what was looked at that may go on behind it. */
const unsure = 3

/** Ends of words inside stretches of scripts that write no spaces between them. */
function wordEnds(text: string): Set<number> {
  const ends = new Set<number>()
  for (const { 0: stretch, index } of text.matchAll(southEastAsian))
    for (let from = 0; from < stretch.length;) {
      const to = Math.min(stretch.length, from + wordsAtOnce)
      const found = [...segmenter("word").segment(stretch.slice(from, to))]
        .map((segment) => from + segment.index)
        .filter((at) => at > from)
      const sure = to < stretch.length && found.length > unsure ? found.slice(0, -unsure) : found
      for (const at of sure) ends.add(index + at)
      from = to === stretch.length ? to : (sure.at(-1) ?? to)
    }
  return ends
}

/** @param before those of an older text, and what was changed in that */
export function lineBreaks(text: string, before: { breaks: Breaks; change: TextChange } | null = null): Breaks {
  const known = before?.breaks.plain ? { offsets: before.breaks.offsets, change: before.change } : null
  const offsets = plainBreaks(text, known)
  return offsets ? { offsets, required: null, beyond: false, plain: true } : breaksByRules(text)
}

/** The same by the rules alone, for any text. */
export function breaksByRules(text: string): Breaks {
  const chars = characters.read(text)
  const { at, cls, count } = chars
  const between = chars.asian ? wordEnds(text) : null
  const offsets: number[] = []
  let required: Set<number> | null = null
  const { al, sp } = C
  for (let j = 1; j < count; j++) {
    const a = cls[j - 1] as number
    const b = cls[j] as number
    const offset = at[j] as number
    // LB28, LB7 and LB18, ahead of the rest because most text is words.
    const inWord = (b === al && a === al) || (b === sp && !newline[a])
    if (
      inWord
        ? !between?.has(offset)
        : !(b === al && a === sp && j > 1 && wordEnd[cls[j - 2] as number]) &&
          !mayBreak(chars, j) &&
          !between?.has(offset)
    )
      continue
    offsets.push(offset)
    if (newline[cls[j - 1] as number]) (required ??= new Set()).add(offset)
  }
  if (text.length > 0 || offsets.length === 0) offsets.push(text.length)
  return { offsets, required, beyond: chars.beyond, plain: false }
}

/** Offsets of the ends of what people see as one character, for a short text. */
export function graphemeEnds(text: string): number[] {
  return [...segmenter("grapheme").segment(text)].map((s) => s.index + s.segment.length)
}
