/** What is hung up, handed over or folded: a notice, a certificate, a card, a sheet laid sideways. */
import { MM, papers, paragraph, table } from "@biblon/core/document"
import { fillEdge } from "@biblon/core/editing"
import { anywhere, dressed } from "../dressing"
import { inCell, line, sample, sampled, sheetOf, today } from "./words"

const sideways = { width: papers.A4.height, height: papers.A4.width }
const middle = { align: "center" } as const

export const notice = () =>
  sheetOf(
    {
      set: "lantern",
      size: 15,
      setup: { frame: line(1.5, "#7a1f4b", 28, "double") },
      styles: {
        title: { letters: { size: 44, caps: "small", spacing: 2 }, paragraph: { ...middle, spaceBefore: 30 } },
      },
    },
    [
      sampled("title", "The ferry runs"),
      sampled("subtitle", "from Saturday 4 April, by hand and by tide", { ...middle, spaceAfter: 36 }),
      sampled(
        "body",
        "What everybody has to know, in letters that can be read from three steps away: what, where, when.",
        middle,
      ),
      table(
        [
          [inCell("Day"), inCell("From", middle), inCell("To", middle)],
          [inCell(sample("Saturday 4 April")), inCell(sample("9.10"), middle), inCell(sample("13.10"), middle)],
          [inCell(sample("Sunday 5 April")), inCell(sample("9.50"), middle), inCell(sample("13.50"), middle)],
          [inCell(sample("Monday 6 April")), inCell(sample("10.30"), middle), inCell(sample("14.30"), middle)],
        ],
        { look: "tideBoard", columns: [200, 90, 90], align: "center", alt: "Hours of the first three days" },
      ),
      paragraph("body", [sample("No crossing when the red flag flies")], {
        ...middle,
        spaceBefore: 30,
        indentLeft: 20 * MM,
        indentRight: 20 * MM,
        shading: "#f4e4eb",
        borders: { top: line(0.75, "#7a1f4b", 8), bottom: line(0.75, "#7a1f4b", 8) },
      }),
      paragraph("body", ["Ask at ", sample("the Old Toll House, Quay Lane")], { ...middle, spaceBefore: 30 }),
    ],
  )

export const certificate = () =>
  sheetOf(
    {
      set: "lantern",
      size: 16,
      setup: {
        ...sideways,
        margins: { top: 30 * MM, right: 40 * MM, bottom: 24 * MM, left: 40 * MM },
        frame: line(2, "#7a1f4b", 24, "double"),
      },
      styles: { title: { letters: { size: 46, caps: "small", spacing: 3 }, paragraph: { ...middle, spaceAfter: 14 } } },
    },
    [
      paragraph("body", [sample("Saltmarsh Ferry Trust")], { ...middle, spaceAfter: 20 }),
      sampled("title", "Certificate"),
      paragraph("body", ["This is to say that"], middle),
      paragraph("heading1", [sample("Hettie Lode")], { ...middle, spaceBefore: 8, spaceAfter: 10 }),
      sampled(
        "body",
        "has learned to haul the chain ferry in any weather in which she goes, and may take her across with passengers.",
        { ...middle, spaceAfter: 34 },
      ),
      table(
        [
          [
            inCell(today(), { ...middle, borders: { top: line(0.5, "#6b5342", 6) } }),
            inCell(sample("Imre Fallow, for the trustees"), { ...middle, borders: { top: line(0.5, "#6b5342", 6) } }),
          ],
        ],
        { look: "bare", headRows: 0, columns: [250, 250], align: "center", alt: "Day and signature" },
      ),
    ],
  )

export const card = () =>
  sheetOf(
    {
      set: "samphire",
      size: 15,
      setup: {
        ...sideways,
        margins: { top: 18 * MM, right: 16 * MM, bottom: 18 * MM, left: 16 * MM },
        columns: { count: 2, gap: 32 * MM, line: false, shares: null },
      },
      styles: { title: { letters: { size: 34 }, paragraph: { ...middle, spaceBefore: 150 } } },
    },
    [
      // The left half is the back once the sheet is folded.
      sampled("body", "Made for the first crossing of the season", { ...middle, spaceBefore: 400 }),
      paragraph("title", [sample("Come across")], { columnBefore: true }),
      sampled("subtitle", "Saturday 4 April, from nine", middle),
      paragraph(
        "body",
        [sample("Inside, what the card is to say: from whom, for whom, and that you look forward to it.")],
        {
          breakBefore: true,
          columnBefore: true,
          spaceBefore: 150,
          ...middle,
        },
      ),
    ],
  )

const hour = (...cells: string[]) => cells.map((text, i) => inCell(sample(text), i === 0 ? {} : middle))

export const sidewaysSheet = () =>
  dressed(
    sheetOf({ set: "chart", size: 11, setup: sideways, properties: { title: "Who is on duty" } }, [
      sampled("title", "Who is on duty"),
      paragraph("subtitle", ["Week of ", sample("5 April")]),
      table(
        [
          [
            inCell("Hour"),
            ...["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"].map((day) =>
              inCell(day, middle),
            ),
          ],
          hour("9 to 11", "Nell", "Imre", "Nell", "Hettie", "Imre", "Tamsin", "Jonas"),
          hour("11 to 13", "Imre", "Nell", "Hettie", "Nell", "Tamsin", "Imre", "Hettie"),
          hour("13 to 15", "Tamsin", "Jonas", "Imre", "Imre", "Nell", "Hettie", "Nell"),
        ],
        {
          look: "timetable",
          bands: true,
          columns: [80, 88, 88, 88, 88, 88, 88, 88],
          alt: "Who is on duty, by hour and day",
        },
      ),
      sampled("body", "Who cannot come finds somebody who can, and changes the name here.", { spaceBefore: 16 }),
    ]),
    anywhere(fillEdge("foot", "{title}||Sheet {page} of {pages}")),
  )
