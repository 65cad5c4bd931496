/** Letters, a receipt, a record of one's life. */
import { formulaFormat, MM, nodes, p, paragraph, table } from "@biblon/core/document"
import { fillEdge } from "@biblon/core/editing"
import { anywhere, dressed } from "../dressing"
import { inCell, line, sample, sampled, sheetOf, today } from "./words"

const close = { spaceAfter: 0 }

export const letter = () =>
  dressed(
    sheetOf(
      {
        set: "slipway",
        size: 11,
        setup: { margins: { top: 40 * MM, right: 25 * MM, bottom: 28 * MM, left: 25 * MM } },
        properties: { organisation: "Saltmarsh Ferry Trust" },
      },
      [
        sampled("body", "Harbour Authority", close),
        sampled("body", "For the harbour master", close),
        sampled("body", "1 Custom House Quay", close),
        sampled("body", "Saltmarsh", { spaceAfter: 28 }),
        paragraph("body", [today()], { align: "right", spaceAfter: 24 }),
        sampled("heading3", "Mooring rights at the east slipway", { spaceAfter: 10 }),
        p("Dear ", sample("Ms Caddow"), ","),
        sampled("body", "Say here what the letter is about, in one sentence: what has happened, and what you ask for."),
        sampled(
          "body",
          "Then what the reader has to know to decide: facts in their order, one paragraph for each. The ferry is to cross from April on, two hours either side of high water.",
        ),
        sampled("body", "End with what happens next, who does it, and by when.", { spaceAfter: 18 }),
        paragraph("body", ["Yours sincerely,"], { spaceAfter: 44, keepNext: true }),
        sampled("body", "Imre Fallow", { ...close, keepNext: true }),
        sampled("body", "Secretary to the trustees", { spaceAfter: 18 }),
        paragraph("body", ["Enclosed: ", sample("plan of the slipway")]),
      ],
    ),
    anywhere(fillEdge("head", "Saltmarsh Ferry Trust||Old Toll House, Quay Lane, Saltmarsh")),
    anywhere(fillEdge("foot", "|Registered charity · ferry.example|")),
  )

const money = { align: "right" } as const
const sum = (expression: string) =>
  nodes.field.create({ kind: "formula", format: formulaFormat({ expression, decimals: 2 }) })

export const receipt = () =>
  dressed(
    sheetOf({ set: "ledger", size: 11 }, [
      sampled("title", "Thank you for your gift"),
      paragraph("subtitle", ["Receipt no. ", sample("27/014")]),
      paragraph("body", ["Received from\t", sample("Hettie Lode, 3 Quay Lane, Saltmarsh")], {
        indentLeft: 40 * MM,
        indentFirst: -40 * MM,
        spaceAfter: 4,
      }),
      paragraph("body", ["On\t", today()], { indentLeft: 40 * MM, indentFirst: -40 * MM, spaceAfter: 18 }),
      table(
        [
          [inCell("For"), inCell("How many", money), inCell("Each", money), inCell("Amount", money)],
          [
            inCell(sample("Links of chain")),
            inCell(sample("11"), money),
            inCell(sample("40"), money),
            inCell(sum("B2*C2"), money),
          ],
          [
            inCell(sample("Lamp for the east landing")),
            inCell(sample("1"), money),
            inCell(sample("65"), money),
            inCell(sum("B3*C3"), money),
          ],
          [inCell("In all"), inCell(""), inCell(""), inCell(sum("sum(column)"), money)],
        ],
        { look: "ledger", totalRow: true, columns: [220, 78, 78, 78], alt: "What the gift is for, and its amount" },
      ),
      sampled(
        "body",
        "Your gift goes to what it was given for. Whoever gives more than a hundred is shown the chain, and may haul.",
        { spaceBefore: 18 },
      ),
      paragraph("body", ["For the trustees"], { spaceBefore: 30, spaceAfter: 40, keepNext: true }),
      sampled("body", "Jonas Weir, treasurer", { borders: { top: line(0.5, "#3b3b3b", 6) }, indentRight: 90 * MM }),
    ]),
    anywhere(fillEdge("foot", "Saltmarsh Ferry Trust||Please keep this receipt")),
  )

const dated = { indentLeft: 34 * MM, indentFirst: -34 * MM, spaceAfter: 3 }
const post = (years: string, what: string, text: string) => [
  paragraph("body", [sample(years), "\t", sample(what)], { ...dated, keepNext: true }),
  sampled("body", text, { indentLeft: 34 * MM, spaceAfter: 9 }),
]

export const life = () =>
  sheetOf(
    {
      set: "chart",
      size: 10.5,
      setup: { margins: { top: 20 * MM, right: 22 * MM, bottom: 18 * MM, left: 22 * MM } },
      styles: {
        title: { paragraph: { spaceAfter: 2 } },
        heading1: {
          letters: { size: 12, caps: "small", spacing: 1 },
          paragraph: { spaceBefore: 14, spaceAfter: 6, borders: { bottom: line(0.75, "#0f5560", 2) } },
        },
      },
    },
    [
      sampled("title", "Nell Caddow"),
      sampled("subtitle", "Ferry hand, keeper of the tide board"),
      paragraph("body", [
        sample("3 Quay Lane, Saltmarsh"),
        " · ",
        sample("nell@ferry.example"),
        " · ",
        sample("01632 960 144"),
      ]),
      paragraph("heading1", ["In a few words"]),
      sampled(
        "body",
        "Two or three sentences on what you do best, and what you look for next. Everything below bears them out.",
      ),
      paragraph("heading1", ["Work"]),
      ...post(
        "2023 to today",
        "Ferry hand, Saltmarsh Ferry Trust",
        "What you answered for, with a number in it: 140 crossings a season, none of them cancelled for want of a hand.",
      ),
      ...post("2021 to 2023", "Keeper of the tide board, Harbour Office", "What changed because you were there."),
      paragraph("heading1", ["Learned"]),
      ...post("2024", "Certificate of competence, small craft", "Estuary College"),
      paragraph("heading1", ["Can do"]),
      paragraph("body", ["Languages\t", sample("English; some Welsh")], dated),
      paragraph("body", ["By hand\t", sample("Splicing, caulking, reading a tide table upside down")], dated),
      paragraph("heading1", ["Who can be asked"]),
      sampled("body", "Imre Fallow, secretary to the trustees, imre@ferry.example"),
    ],
  )
