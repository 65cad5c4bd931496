/** Demo texts with tables and a picture: the passengers of the first week, and the actions of the minutes. */
import type { Node } from "prosemirror-model"
import { formulaFormat, letters, nodes, p, paragraph, table, type ParagraphFormat } from "@biblon/core/document"

const close: Partial<ParagraphFormat> = { spaceBefore: 0, spaceAfter: 0 }
const word = (text: string) => [paragraph("body", [text], close)]
const number = (text: string) => [paragraph("body", [text], { ...close, align: "right" })]
const computed = (expression: string) => [
  paragraph("body", [nodes.field.create({ kind: "formula", format: formulaFormat({ expression, decimals: null }) })], {
    ...close,
    align: "right",
  }),
]

const week = [
  ["Saturday 4 April", "14", "212", "31"],
  ["Sunday 5 April", "16", "264", "40"],
  ["Monday 6 April", "15", "187", "22"],
  ["Tuesday 7 April", "9", "58", "6"],
  ["Wednesday 8 April", "8", "49", "9"],
] as const

/** @param asset the picture of the estuary, by its SHA-256 */
export const firstWeek = (asset: string): Node[] => [
  paragraph("title", ["The first week"]),
  paragraph("subtitle", ["Who crossed, and how often"]),
  p(
    nodes.picture.create({
      asset,
      pixels: [480, 480],
      format: {
        width: 150,
        shape: "round",
        wrap: "beside",
        distance: 12,
        alt: "The chain ferry at the east slip in the evening",
      },
    }),
    "On the first day there was a queue from the Toll House to the lane. Nobody had counted on the children, who crossed to be across, and crossed back to be home. The chain ran smoothly once it was wet; the brake was needed twice. By Tuesday the queue was gone and the ferry carried those who wanted to be on the other bank, which is what she is for.",
  ),
  p(
    "What was carried is in ",
    nodes.field.create({ kind: "reference", format: "number The first week in numbers" }),
    ". The log was kept by whoever hauled; where two hands wrote, the larger number was taken. Bicycles were counted by Hettie Lode, who had nothing else to do on Sunday.",
  ),
  paragraph(
    "caption",
    [
      letters("Table ", { place: "The first week in numbers" }),
      nodes.field.create({ kind: "caption", format: "Table" }),
      ": Crossings, passengers and bicycles",
    ],
    { keepNext: true },
  ),
  table(
    [
      [word("Day"), number("Crossings"), number("Passengers"), number("Bicycles")],
      ...week.map(([day, ...counts]) => [word(day), ...counts.map(number)]),
      [word("In all"), computed("sum(column)"), computed("sum(column)"), computed("sum(column)")],
    ],
    {
      look: "tideBoard",
      totalRow: true,
      bands: true,
      columns: [190, 88, 88, 88],
      alt: "Crossings, passengers and bicycles by day",
    },
  ),
  p(
    "The busiest hour was the one before high water on Sunday. Two donors who came to see what they had paid for were asked to haul, and did.",
  ),
]

/** The actions of a meeting as a table, most urgent first. */
export const actions = (): Node[] => [
  paragraph("heading1", ["Actions"]),
  table(
    [
      [word("What"), word("Who"), word("By")],
      [word("Send the list of donors"), word("Tamsin Reed"), word("10 November")],
      [word("Send the letter to the harbour authority"), word("Imre Fallow"), word("14 November")],
      [word("Write the letter of thanks"), word("Hettie Lode"), word("1 December")],
      [word("Bring the report as adopted"), word("Jonas Weir"), word("1 December")],
    ],
    { columns: [250, 110, 94] },
  ),
]
