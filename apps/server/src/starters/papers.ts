/** A report with a cover, a student's paper, a booklet. */
import { MM, p, papers, paragraph, type ListPlace } from "@biblon/core/document"
import { divideEdges, fillEdge, insertContents, placeNumbers, setCover } from "@biblon/core/editing"
import { anywhere, contentsBefore, dressed, note } from "../dressing"
import { sample, sampled, sheetOf } from "./words"

const measure = (place: Partial<ListPlace> = {}) => ({
  list: { definition: "numbers", run: "measures", level: 0, ...place },
})

export const report = () =>
  dressed(
    sheetOf(
      {
        set: "slipway",
        size: 11,
        properties: {
          title: "Title of the report",
          subtitle: "What it looks into, in a line",
          author: "Nell Caddow",
          organisation: "Saltmarsh Ferry Trust",
          date: "November 2026",
        },
        styles: {
          heading1: { paragraph: { list: { definition: "chapters", run: "", level: 0 } } },
          heading2: { paragraph: { list: { definition: "chapters", run: "", level: 1 } } },
        },
      },
      [
        paragraph("heading1", ["In short"]),
        sampled(
          "body",
          "What was asked, what was found, what should be done: so that who reads only this knows it. Five sentences, no more.",
        ),
        paragraph("heading1", ["What was asked"]),
        sampled("body", "Why the report was written, for whom, and what it leaves aside."),
        paragraph("heading1", ["What was found"]),
        paragraph("heading2", ["The chain"]),
        sampled(
          "body",
          "One finding for each heading, the weightiest first: what was seen, how it was measured, and what follows from it.",
        ),
        paragraph("heading2", ["The tide"]),
        sampled("body", "At springs the stream runs at 2.3 knots for an hour and a half."),
        paragraph("heading1", ["What should be done"]),
        sampled("body", "Something that one person can do, by a day that is named.", measure()),
        sampled("body", "The next thing.", measure()),
      ],
    ),
    contentsBefore("In short", 2),
    anywhere(fillEdge("head", "{title}||{heading}")),
    anywhere(placeNumbers({ edge: "foot", part: 2 }, "%1")),
    anywhere(setCover("slipway")),
  )

export const paper = () =>
  dressed(
    sheetOf(
      {
        set: "quay",
        styles: {
          body: { paragraph: { lineSpacing: { rule: "multiple", value: 2 }, spaceAfter: 0, indentFirst: 36 } },
          title: {
            letters: { family: "Tinos", size: 12, bold: true },
            paragraph: { align: "center", lineSpacing: { rule: "multiple", value: 2 }, spaceAfter: 0 },
          },
          heading1: {
            letters: { size: 12 },
            paragraph: { align: "center", spaceBefore: 0, spaceAfter: 0, lineSpacing: { rule: "multiple", value: 2 } },
          },
          quotation: {
            letters: { italic: false },
            paragraph: {
              indentLeft: 36,
              indentRight: 0,
              spaceBefore: 0,
              spaceAfter: 0,
              lineSpacing: { rule: "multiple", value: 2 },
            },
          },
          reference: {
            paragraph: { indentLeft: 36, indentFirst: -36, spaceAfter: 0, lineSpacing: { rule: "multiple", value: 2 } },
          },
        },
        properties: { author: "Caddow" },
      },
      [
        sampled("body", "Nell Caddow", { indentFirst: 0 }),
        sampled("body", "History, with the sea", { indentFirst: 0 }),
        sampled("body", "27 November 2026", { indentFirst: 0 }),
        sampled("title", "Tides and Timetables at Saltmarsh"),
        sampled(
          "body",
          "The first paragraph says what the paper shows. Here it would be that the ferry kept the estuary’s time, and the railway had to follow.",
        ),
        sampled(
          "body",
          "Each paragraph that follows carries one step of it, with where it is known from. A note stands at the foot of its sheet.",
        ),
        sampled(
          "quotation",
          "A passage of more than four lines stands by itself, without quotation marks, and says in the end where it was taken from.",
        ),
        sampled("body", "The last paragraph says what is known now that was not known before."),
        paragraph("heading1", ["Works cited"], { breakBefore: true }),
        sampled(
          "reference",
          "Caddow, N. (2025). What the board said: chalked tides at Saltmarsh, 1887–1961. Saltmarsh: Ferry Trust Papers 4.",
        ),
        sampled("reference", "Fallow, I. (2024). Eleven links. Estuary Notes 12, pp. 31–38."),
      ],
    ),
    note("with where it is known from", "So that a reader can look it up."),
    anywhere(fillEdge("head", "||{author} {page}")),
  )

export const booklet = () =>
  dressed(
    sheetOf(
      {
        set: "lantern",
        size: 10.5,
        setup: {
          ...papers.A5,
          mirrored: true,
          gutter: 4 * MM,
          margins: { top: 18 * MM, right: 16 * MM, bottom: 20 * MM, left: 16 * MM },
        },
        properties: {
          title: "Across by chain",
          subtitle: "A booklet for passengers",
          organisation: "Saltmarsh Ferry Trust",
          date: "Season of 2027",
        },
        styles: { body: { paragraph: { align: "justify", hyphenate: true } } },
      },
      [
        sampled("heading1", "How she crosses"),
        sampled(
          "body",
          "A booklet lies open in the hand: short chapters, each beginning on its own. Print it as a booklet, fold the sheets together once, and staple them in the fold.",
        ),
        sampled("heading1", "Who hauls", { breakBefore: true }),
        sampled("body", "Tell something in each chapter that can be seen from the ferry while it is being read."),
        sampled("heading1", "When she runs", { breakBefore: true }),
        p("From ", sample("4 April"), " to ", sample("31 October"), ", two hours either side of high water."),
      ],
    ),
    { at: "", command: insertContents({ levels: 1, look: "dotted" }) },
    anywhere(divideEdges("leftRight", true)),
    anywhere(placeNumbers({ edge: "foot", part: "outer" }, "%1")),
    anywhere(setCover("slipway")),
  )
