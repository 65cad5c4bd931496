/** Forms of numbers by the letters that stand for them. */
import type { ListLevel, NoteSettings, PageSetup } from "../../document"
import { meanings } from "../meanings"

/** Those of ours that the standard does not have are plain numbers. */
export const formLetters: Readonly<Record<ListLevel["numbering"] | NoteSettings["end"]["form"], string>> = {
  decimal: "1",
  zero: "1",
  signs: "1",
  lowerLetter: "a",
  upperLetter: "A",
  lowerRoman: "i",
  upperRoman: "I",
}

export const formMeant = meanings<PageSetup["numbering"]["form"]>({
  "1": "decimal",
  a: "lowerLetter",
  A: "upperLetter",
  i: "lowerRoman",
  I: "upperRoman",
})
