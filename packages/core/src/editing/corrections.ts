/**
 * Corrections of what is being typed. Each is looked for when a character comes in, works on the text
 * before the caret, and is a change of its own, so that one undo takes back the correction and leaves
 * what was typed.
 */
import type { EditorState } from "prosemirror-state"
import { documentAttrs, entryOf, knownLanguage, letterLook, listPlace, marks, paragraphLook, textOf } from "../document"
import type { Command } from "./command"
import { named, quoted } from "./history"
import { readAddress } from "./links"
import { listFromTyping } from "./lists"
import { typingMarks } from "./typingMarks"

export const correctionKinds = [
  "quotes",
  "dashes",
  "ellipsis",
  "signs",
  "sentences",
  "capitals",
  "slips",
  "fractions",
  "ordinals",
  "arrows",
  "lists",
  "links",
] as const
export type CorrectionKind = (typeof correctionKinds)[number]

export interface CorrectionSettings {
  off: readonly CorrectionKind[]
  /** A person's own slips: what is typed, and what is meant. */
  own: Readonly<Record<string, string>>
}

/** What is typed and what is meant; lower case, so that capitals are kept as typed. */
export const commonSlips: Readonly<Record<string, string>> = Object.fromEntries(
  "teh the|adn and|taht that|thier their|recieve receive|recieved received|beleive believe|occured occurred|untill until|wich which|becuase because|definately definitely|seperate separate|goverment government|accomodate accommodate|acheive achieve|accross across|adress address|agian again|alot a lot|apparant apparent|begining beginning|calender calendar|commitee committee|concious conscious|dont don’t|doesnt doesn’t|didnt didn’t|cant can’t|wont won’t|isnt isn’t|embarass embarrass|enviroment environment|existance existence|foward forward|freind friend|gaurd guard|happend happened|harrass harass|immediatly immediately|independant independent|knowlege knowledge|liason liaison|maintainance maintenance|neccessary necessary|necesary necessary|noticable noticeable|occassion occasion|occurence occurrence|oppurtunity opportunity|persistant persistent|posession possession|prefered preferred|publically publicly|reccomend recommend|recomend recommend|refered referred|relevent relevant|responsability responsibility|rythm rhythm|sieze seize|suprise surprise|tommorow tomorrow|tommorrow tomorrow|truely truly|unfortunatly unfortunately|wierd weird|writting writing"
    .split("|")
    .map((pair) => [pair.slice(0, pair.indexOf(" ")), pair.slice(pair.indexOf(" ") + 1)]),
)

/** Opening and closing double and single quotation marks by language. */
const quotes: Record<string, [string, string, string, string]> = {
  en: ["“", "”", "‘", "’"],
  de: ["„", "“", "‚", "‘"],
  fr: ["«\u00a0", "\u00a0»", "“", "”"],
  it: ["«", "»", "“", "”"],
  es: ["«", "»", "“", "”"],
  nl: ["“", "”", "‘", "’"],
  pl: ["„", "”", "‚", "’"],
  sv: ["”", "”", "’", "’"],
  da: ["»", "«", "›", "‹"],
}

const signs: Record<string, string> = {
  "(c)": "©",
  "(r)": "®",
  "(tm)": "™",
  "+-": "±",
  "!=": "≠",
  "<=": "≤",
  ">=": "≥",
}
const arrows: Record<string, string> = { "->": "→", "<-": "←", "=>": "⇒", "←>": "↔" }
const fractions: Record<string, string> = {
  "1/2": "½",
  "1/3": "⅓",
  "2/3": "⅔",
  "1/4": "¼",
  "3/4": "¾",
  "1/8": "⅛",
  "3/8": "⅜",
  "5/8": "⅝",
  "7/8": "⅞",
}

interface Correction {
  kind: CorrectionKind
  /** Offset in the text at which it begins, and what stands there instead, up to the end of the text. */
  from: number
  insert: string
  /** How many letters before the last character are to be raised. */
  raised?: number
}

/** Characters of a word that are looked at. */
const longestWord = 2100

/** Words that end with a point without ending a sentence. */
const abbreviation =
  /(?:^|[\s(])(?:e\.g|i\.e|etc|cf|vs|no|nr|mr|mrs|ms|dr|st|prof|approx|fig|vol|pp?|\p{Lu}|z\.b|d\.h|bzw|usw)\.\s$/iu

/** What is to be corrected in the text before the caret, of which the last character was just typed. */
export function correctionOf(text: string, language: string, settings: CorrectionSettings): Correction | null {
  const typed = text.at(-1) ?? ""
  const before = text.slice(0, -1)
  const on = (kind: CorrectionKind) => !settings.off.includes(kind)
  const here = /\S*$/.exec(text.slice(-longestWord))?.[0] ?? ""
  // Nothing is corrected in an address.
  if (/^[("'“‘[<]*(?:https?:|www\.|mailto:|[^\s@]+@)/i.test(here)) return null
  const make = (kind: CorrectionKind, from: number, insert: string): Correction | null =>
    on(kind) && text.slice(from) !== insert ? { kind, from, insert } : null

  if (typed === '"' || typed === "'") {
    const [open, close, openSingle, closeSingle] =
      entryOf(quotes, language.split("-")[0] ?? "en") ?? (quotes.en as [string, string, string, string])
    const opens = before === "" || /[\s([{\u2013\u2014«„“‘-]$/u.test(before)
    return make(
      "quotes",
      before.length,
      typed === '"'
        ? opens
          ? open
          : close
        : opens
          ? openSingle
          : language.startsWith("en") || /\p{L}$/u.test(before)
            ? "’"
            : closeSingle,
    )
  }
  // What is left out at the start of a word has a sign that closes.
  const leftOut =
    on("quotes") && language.startsWith("en")
      ? /(?:^|[\s([])(‘)(?:\d\ds?|(?:tis|twas|em|til|cause|bout)[^\p{L}])$/iu.exec(text)
      : null
  if (leftOut) {
    const from = leftOut.index + leftOut[0].indexOf("‘")
    return make("quotes", from, `’${text.slice(from + 1)}`)
  }
  if (text.endsWith("...")) return make("ellipsis", text.length - 3, "…")
  for (const [from, to] of Object.entries(arrows))
    if (text.endsWith(from)) return make("arrows", text.length - from.length, to)
  // A dash is known once a letter or a space follows it.
  const dash = /([^\s-]?)( ?)(--+)( |\p{L}|\p{N})$/u.exec(text)
  if (dash?.[1]) {
    const [, left = "", space = "", hyphens = "", right = ""] = dash
    // From one number to another, and set off by blanks, it is the shorter one.
    const short = hyphens.length === 2 && (space !== "" || (/\p{N}/u.test(left) && /\p{N}/u.test(right)))
    if (hyphens.length <= 3)
      return make("dashes", text.length - hyphens.length - right.length, (short ? "–" : "—") + right)
  }
  for (const [from, to] of Object.entries(signs))
    if (text.toLowerCase().endsWith(from)) return make("signs", text.length - from.length, to)

  // The rest waits for the end of a word.
  if (/[\p{L}\p{N}'’]/u.test(typed)) {
    const sentence = /(?:^|(?:[!?]|(?<!\.)\.)["'”’)]*\s+)(\p{Ll})$/u.exec(text)
    if (!sentence || (text.length > 1 && abbreviation.test(before))) return null
    // A letter alone at the start of a paragraph is an item of a list as often as a word: that waits too.
    return text.length === 1 ? null : make("sentences", text.length - 1, upper(typed, language))
  }
  const word = /(\S+)$/u.exec(before)?.[1] ?? ""
  if (!word) return null
  const at = before.length - word.length
  if (/\s/.test(typed)) {
    const fraction = entryOf(fractions, word)
    if (fraction) return make("fractions", at, fraction + typed)
    const ordinal = /^(\d+)(st|nd|rd|th)$/.exec(word)
    if (ordinal && on("ordinals") && language.startsWith("en"))
      return { kind: "ordinals", from: at, insert: word + typed, raised: (ordinal[2] as string).length }
  }
  const bare = /^[("'“‘]*(\p{L}+)$/u.exec(word)?.[1]
  const begins = at === 0 && before === word
  if (bare) {
    const start = before.length - bare.length
    const lower = bare.toLowerCase()
    const meant = entryOf(settings.own, lower) ?? (language.startsWith("en") ? entryOf(commonSlips, lower) : undefined)
    if (meant && on("slips"))
      return make("slips", start, (begins && on("sentences") ? upper(meant, language) : likeTyped(meant, bare)) + typed)
    if (isSlippedCapital(bare))
      return make("capitals", start, bare.charAt(0) + bare.slice(1).toLocaleLowerCase(knownLanguage(language)) + typed)
  }
  // An address, too, may begin with letters: what follows them says so. In "iX" the capital is where it is meant to be.
  if (begins && /\s/.test(typed) && /^\p{Ll}{2}/u.test(word) && !/[./@:_]\S/.test(word))
    return make("sentences", 0, upper(word, language) + typed)
  return null
}

function upper(text: string, language: string): string {
  return text.charAt(0).toLocaleUpperCase(knownLanguage(language)) + text.slice(1)
}

/** Short words in which a second capital is a slip; in others it may be meant (OKed, BSc). */
const shortWords = new Set(
  "the and for but you are was she his her our not all can had one out who its new teh adn".split(" "),
)

function isSlippedCapital(word: string): boolean {
  if (!/^\p{Lu}{2}(?!s$)\p{Ll}+$/u.test(word) || word.startsWith("OK")) return false
  return word.length > 4 || shortWords.has(word.toLowerCase())
}

/** What is meant, with a capital if it was typed with one. */
function likeTyped(meant: string, typed: string): string {
  return /^\p{Lu}/u.test(typed) ? meant.charAt(0).toLocaleUpperCase() + meant.slice(1) : meant
}

/** Corrects what was just typed before the caret, or makes an address that was just ended a link. Does not apply where nothing is to be corrected. */
export function correct(settings: CorrectionSettings): Command {
  return (state, dispatch) => {
    const { $head, empty } = state.selection as EditorState["selection"] & { $head: typeof state.selection.$from }
    if (!empty || !$head.parent.isTextblock) return false
    const text = textOf($head.parent).slice(0, $head.parentOffset)
    if (text === "") return false
    const typing = typingMarks(state)
    if (typing.some((mark) => mark.type === marks.link)) return false
    if (!settings.off.includes("lists") && listFromTyping(state, dispatch)) return true
    const { styles } = documentAttrs(state.doc)
    const { language } = letterLook(styles, paragraphLook(styles, $head.parent).letters, typing)
    const found = correctionOf(text, language, settings)
    // Items of a list often go on in the sentence that leads to it.
    const inList = listPlace(styles, $head.parent) !== null
    if (found && !(found.kind === "sentences" && inList && text.slice(0, found.from).trim() === "")) {
      const { tr } = state
      if (found.raised) tr.addMark($head.pos - 1 - found.raised, $head.pos - 1, marks.script.create({ value: "super" }))
      else tr.insertText(found.insert, $head.start() + found.from, $head.pos)
      dispatch?.(
        named(tr, `${found.raised ? "Raised letters of" : "Corrected to"} ${quoted(found.insert)}`).setMeta(
          "correction",
          true,
        ),
      )
      return true
    }
    return !settings.off.includes("links") && linkAddress(state, text, dispatch)
  }
}

/** An address of the web or of e-mail that a space has just ended. */
function linkAddress(state: EditorState, text: string, dispatch: Parameters<Command>[1]): boolean {
  const match = /(?:^|[\s(])((?:https?:\/\/|www\.)\S+?|[^\s@]+@[^\s@]+\.\p{L}{2,})[.,;:!?)]*\s$/u.exec(text)
  const word = match?.[1]
  const href = word ? readAddress(word) : null
  if (!word || !href) return false
  const from = state.selection.$head.start() + text.lastIndexOf(word)
  if (state.doc.rangeHasMark(from, from + word.length, marks.link)) return false
  dispatch?.(
    named(
      state.tr.addMark(from, from + word.length, marks.link.create({ value: href })),
      `Link on ${quoted(word)}`,
    ).setMeta("correction", true),
  )
  return true
}
