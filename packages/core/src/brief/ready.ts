/** Briefs that ship, in our own words: what the current editions of the common style guides ask of a student's paper, and two for offices. */
import { MM, papers, type Brief } from "../document"

const inch = 72
const all = (margin: number) => ({ top: margin, right: margin, bottom: margin, left: margin })
const heading = (align: "left" | "center", bold: boolean, italic: boolean, size = 12) => ({ align, bold, italic, size })

/** What most style guides for papers share. */
const paper: Brief = {
  typeface: "Tinos",
  size: 12,
  lineSpacing: 2,
  spaceBetween: 0,
  indentFirst: inch / 2,
  align: "left",
  paper: papers.Letter,
  margins: all(inch),
}

export const readyBriefs: readonly Brief[] = [
  {
    ...paper,
    name: "Paper in psychology, 7th edition",
    titleBlock: { ownSheet: true, align: "center", size: 12, lines: ["title", "author", "organisation", "date"] },
    numbers: { edge: "head", part: 2, text: "{page}", first: true },
    headings: [heading("center", true, false), heading("left", true, false), heading("left", true, true)],
    references: { heading: "References", ownSheet: true, hanging: inch / 2, sorted: true },
    quotations: { words: 40, indent: inch / 2 },
    captions: { figures: "above", tables: "above" },
  },
  {
    ...paper,
    name: "Paper in the humanities, 9th edition",
    titleBlock: { ownSheet: false, align: "left", size: 12, lines: ["author", "organisation", "date", "title"] },
    numbers: { edge: "head", part: 2, text: "{author} {page}", first: true },
    headings: [heading("left", true, false), heading("left", false, true), heading("left", false, false)],
    references: { heading: "Works Cited", ownSheet: true, hanging: inch / 2, sorted: true },
    quotations: { words: 60, indent: inch / 2 },
    captions: { figures: "below", tables: "above" },
  },
  {
    ...paper,
    name: "Paper with notes and bibliography, 18th edition",
    titleBlock: { ownSheet: true, align: "center", size: 12, lines: ["title", "subtitle", "author", "date"] },
    numbers: { edge: "head", part: 2, text: "{page}", first: false },
    headings: [heading("center", true, false), heading("center", false, true), heading("left", true, false)],
    references: { heading: "Bibliography", ownSheet: true, hanging: inch / 2, sorted: true },
    quotations: { words: 100, indent: inch / 2 },
    captions: { figures: "below", tables: "above" },
  },
  {
    ...paper,
    name: "Paper with numbered sources",
    lineSpacing: 1.5,
    spaceBetween: 6,
    indentFirst: 0,
    paper: papers.A4,
    margins: all(25 * MM),
    titleBlock: { ownSheet: false, align: "left", size: 18, lines: ["title", "author"] },
    numbers: { edge: "foot", part: 1, text: "{page}", first: true },
    headings: [heading("left", true, false, 14), heading("left", true, false), heading("left", false, true)],
    references: { heading: "References", ownSheet: false, hanging: 18, sorted: false },
    quotations: { words: 40, indent: 28 },
    captions: { figures: "below", tables: "above" },
  },
  {
    name: "Office letter",
    typeface: "Carlito",
    size: 11,
    lineSpacing: 1.15,
    spaceBetween: 8,
    indentFirst: 0,
    align: "left",
    paper: papers.A4,
    margins: all(25 * MM),
    numbers: { edge: "foot", part: 2, text: "Sheet {page} of {pages}", first: false },
    length: { unit: "sheets", least: 0, most: 2 },
  },
  {
    name: "Minutes",
    typeface: "Carlito",
    size: 11,
    lineSpacing: 1.15,
    spaceBetween: 6,
    indentFirst: 0,
    align: "left",
    paper: papers.A4,
    margins: all(20 * MM),
    runningHead: { edge: "head", part: 0, text: "{name}", first: false },
    numbers: { edge: "foot", part: 2, text: "{page} of {pages}", first: true },
    headings: [heading("left", true, false, 14), heading("left", true, false, 12)],
    captions: { figures: "below", tables: "above" },
    length: { unit: "sheets", least: 0, most: 6 },
  },
]
