/** Minutes, and notes taken on the way. */
import { paragraph, table, type ListPlace } from "@biblon/core/document"
import { fillEdge, placeNumbers } from "@biblon/core/editing"
import { anywhere, dressed } from "../dressing"
import { inCell, sample, sampled, sheetOf, today } from "./words"

const label = { indentLeft: 84, indentFirst: -84, spaceAfter: 3 }
const item = (run: string, place: Partial<ListPlace> = {}) => ({
  list: { definition: "numbers", run, level: 0, ...place },
  spaceAlike: true,
})

export const minutes = () =>
  dressed(
    sheetOf({ set: "quay", size: 11, properties: { title: "Minutes of the trustees" } }, [
      sampled("title", "Minutes of the trustees"),
      paragraph("subtitle", [sample("Meeting at the Old Toll House"), ", ", today()]),
      paragraph("body", ["Present\t", sample("Imre Fallow (chair), Tamsin Reed, Jonas Weir")], label),
      paragraph("body", ["Absent\t", sample("Hettie Lode, with apologies")], label),
      paragraph("body", ["Minutes\t", sample("Nell Caddow")], { ...label, spaceAfter: 12 }),
      paragraph("heading2", ["What was dealt with"]),
      sampled("body", "Minutes of the last meeting. They were read and adopted.", item("agenda")),
      sampled(
        "body",
        "The chain. Eleven links were changed. It was moved by Tamsin Reed that the rest be measured each spring; carried, none against.",
        item("agenda"),
      ),
      sampled("body", "Money. Jonas Weir showed the books; there is enough for the season.", item("agenda")),
      sampled("body", "Any other matter.", item("agenda")),
      paragraph("heading2", ["Who does what"]),
      table(
        [
          [inCell("What"), inCell("Who"), inCell("By")],
          [
            inCell(sample("Send the letter to the harbour authority")),
            inCell(sample("Imre Fallow")),
            inCell(sample("14 November")),
          ],
          [inCell(sample("Bring the report as adopted")), inCell(sample("Jonas Weir")), inCell(sample("1 December"))],
        ],
        { look: "manifest", columns: [244, 116, 94], alt: "Actions, who does them and by when" },
      ),
      paragraph("body", ["Next meeting: ", sample("first Tuesday of December, at seven")], { spaceBefore: 16 }),
    ]),
    anywhere(fillEdge("head", "Saltmarsh Ferry Trust||{title}")),
    anywhere(placeNumbers({ edge: "foot", part: 2 }, "Sheet %1 of %2")),
  )

const task = (text: string) =>
  sampled("body", text, { list: { definition: "tasks", run: "todo", level: 0, done: false } })
const point = (text: string) => sampled("body", text, { list: { definition: "marks", run: "points", level: 0 } })

export const meetingNotes = () =>
  sheetOf({ set: "samphire", size: 11 }, [
    sampled("title", "Meeting about the slipway"),
    paragraph("body", [today(), ", with ", sample("Tamsin, Jonas and the harbour master")], { spaceAfter: 14 }),
    paragraph("heading2", ["What it was about"]),
    sampled("body", "One sentence, so that it is understood in a year."),
    paragraph("heading2", ["What was said"]),
    point("The slipway is free from April to October."),
    point("The lamp at the east landing has to be seen from the water."),
    paragraph("heading2", ["What was decided"]),
    sampled("body", "The ferry lands at the east slipway; the west one is for bad weather."),
    paragraph("heading2", ["To do"]),
    task("Ask for the night notice (Imre)"),
    task("Measure the ramp at low water (Nell)"),
    paragraph("heading2", ["Still open"]),
    sampled("body", "Who pays for the lamp."),
  ])
