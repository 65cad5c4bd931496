/** Demo documents that live by their shape: a record with tabs and hanging indents, a numbered report, a notice. */
import type { Node } from "prosemirror-model"
import {
  defaultStyles,
  letters,
  MM,
  p,
  paragraph,
  type Border,
  type ListPlace,
  type ParagraphFormat,
  type StyleSheet,
} from "@biblon/core/document"

type Parts = (string | Node)[]

const styled = (
  change: Partial<StyleSheet["defaults"]["letters"]>,
  styles: Partial<StyleSheet["styles"]> = {},
): StyleSheet => ({
  ...defaultStyles,
  defaults: { ...defaultStyles.defaults, letters: { ...defaultStyles.defaults.letters, ...change } },
  styles: { ...defaultStyles.styles, ...(styles as StyleSheet["styles"]) },
})
const own = (key: string, change: { letters?: object; paragraph?: object }): StyleSheet["styles"] => {
  const style = defaultStyles.styles[key] as StyleSheet["styles"][string]
  return {
    [key]: {
      ...style,
      letters: { ...style.letters, ...change.letters },
      paragraph: { ...style.paragraph, ...change.paragraph },
    },
  }
}

const rule: Border = { pattern: "solid", width: 0.75, colour: "#1f4f7a", distance: 3 }

// ---- a volunteer's record

const dated: Partial<ParagraphFormat> = {
  indentLeft: 32 * MM,
  indentFirst: -32 * MM,
  tabs: [{ position: 160 * MM, align: "right", leader: "none" }],
  spaceAfter: 4,
}
const post = (years: string, what: string, where: string) =>
  paragraph("body", [`${years}\t`, letters(what, { bold: true }), `\t${where}`], {
    ...dated,
    keepNext: true,
    spaceBefore: 6,
    spaceAfter: 1,
  })
const duty = (text: string) => paragraph("body", [text], { indentLeft: 32 * MM, spaceAfter: 3 })
const fact = (name: string, ...parts: Parts) => paragraph("body", [`${name}\t`, ...parts], dated)

export const record = {
  styles: styled(
    { family: "Source Sans 3", size: 10.5 },
    {
      ...own("title", {
        letters: { family: "Source Sans 3", size: 24, colour: "#173a59" },
        paragraph: { spaceAfter: 2 },
      }),
      ...own("heading1", {
        letters: { size: 11, caps: "small", spacing: 1, colour: "#1f4f7a", bold: true },
        paragraph: { spaceBefore: 14, spaceAfter: 6, borders: { bottom: rule } },
      }),
    },
  ),
  blocks: (): Node[] => [
    paragraph("title", ["Nell Caddow"]),
    p("3 Quay Lane, Saltmarsh \u2022 nell@ferry.example \u2022 01632 960 144"),
    paragraph("heading1", ["On the ferry"]),
    post("2023–today", "Ferry hand", "Saltmarsh Ferry Trust"),
    duty("Hauls and steers in turn with five others; on duty for 140 crossings a season, at half tide and above."),
    duty("Keeps the log of the chain: wear, oiling, the eleven links that were changed."),
    post("2021–2023", "Keeper of the tide board", "Harbour Office"),
    duty("Chalked the day’s hours twice a day and answered for them."),
    paragraph("heading1", ["Learned"]),
    post("2024", "Certificate of competence, small craft", "Estuary College"),
    post("2019–2022", "History, with the sea", "Saltmarsh School"),
    duty("Paper: Tides and timetables. How a hand-hauled ferry kept time in the Saltmarsh estuary."),
    paragraph("heading1", ["Can do"]),
    fact("By hand", "Splicing, caulking, reading a tide table upside down"),
    fact("By voice", "English; some Welsh; hailing over 300 metres of water"),
    fact("By heart", "The rule of twelfths: 1, 2, 3, 3, 2, 1"),
    paragraph("heading1", ["In print"]),
    paragraph("reference", [
      "Caddow, N. (2025). ",
      letters("What the board said: chalked tides at Saltmarsh, 1887–1961.", { italic: true }),
      " Saltmarsh: Ferry Trust Papers 4.",
    ]),
    paragraph("reference", [
      "Caddow, N., and Fallow, I. (2024). ",
      letters("Eleven links.", { italic: true }),
      " Estuary Notes 12, pp. 31–38. ",
      letters("https://ferry.example/links", { link: "https://ferry.example/links" }),
    ]),
  ],
}

// ---- a numbered report

const point = (text: string, place: Partial<ListPlace>): Node =>
  paragraph("body", [text], { list: { definition: "numbers", run: "measures", level: 0, ...place } })

export const report = {
  styles: styled(
    { family: "Gelasio", size: 11 },
    Object.fromEntries(
      ["heading1", "heading2", "heading3"].map((key, level) => [
        key,
        own(key, {
          letters: { family: "Inter", colour: "#7c2d12", size: [16, 12.5, 11][level] },
          paragraph: { list: { definition: "chapters", run: "", level } },
        })[key] as StyleSheet["styles"][string],
      ]),
    ),
  ),
  blocks: (): Node[] => [
    paragraph("title", ["Risks of the trial season"]),
    paragraph("subtitle", ["For the trustees of the Saltmarsh Ferry Trust"]),
    paragraph("heading1", ["What can go wrong"]),
    paragraph("heading2", ["The chain"]),
    p(
      "A chain that lies on the bed is safe from weather and open to anchors. Eleven of its links were changed in October; the rest have been measured and none has lost more than a tenth.",
    ),
    paragraph("heading2", ["The tide"]),
    p("At springs the stream runs at 2.3 knots for an hour and a half. The haul is then beyond two hands."),
    paragraph("heading3", ["Fog"]),
    p("The far bank cannot be seen on about nine mornings a season."),
    paragraph("heading1", ["What is done about it"]),
    point("Before each crossing:", {}),
    point("the chain is lifted and looked at along its first ten metres;", { level: 1 }),
    point("the board shows", { level: 1 }),
    point("the hours of the day,", { definition: "marks", level: 2, run: "board" }),
    point("who is on duty;", { definition: "marks", level: 2, run: "board" }),
    point("life jackets are counted.", { level: 1 }),
    point("No crossing when the stream is above 2 knots, or the far flag cannot be seen.", {}),
    point("After each day the log is signed:", {}),
    point("crossings and passengers;", { definition: "marks", level: 1, run: "log" }),
    point("anything found on the chain.", { definition: "marks", level: 1, run: "log" }),
    paragraph("heading1", ["Still to do"]),
    point("Order a second lamp for the east landing", { definition: "tasks", run: "todo", done: true }),
    point("Ask the harbour master for the night notice", { definition: "tasks", run: "todo", done: false }),
    point("Train two more hands before Easter", { definition: "tasks", run: "todo", done: false }),
  ],
}

// ---- a notice

const frame: Border = { pattern: "double", width: 0.75, colour: "#7a1f4b", distance: 10 }
const boxed: Partial<ParagraphFormat> = {
  borders: { top: frame, right: frame, bottom: frame, left: frame },
  indentLeft: 12 * MM,
  indentRight: 12 * MM,
  align: "center",
  spaceAfter: 4,
}
const hour = (day: string, hours: string) =>
  paragraph("body", [`${day}\t${hours}`], {
    tabs: [{ position: 150 * MM, align: "right", leader: "dotted" }],
    indentLeft: 10 * MM,
    spaceAfter: 4,
  })

export const notice = {
  styles: styled(
    { family: "EB Garamond", size: 14 },
    own("title", {
      letters: { family: "EB Garamond", size: 40, bold: false, caps: "small", spacing: 2, colour: "#7a1f4b" },
      paragraph: { align: "center", spaceAfter: 4 },
    }),
  ),
  blocks: (): Node[] => [
    paragraph("title", ["The ferry runs"]),
    paragraph("subtitle", ["from Saturday 4 April, by hand and by tide"], { align: "center" }),
    paragraph(
      "body",
      [
        "On Saturday the fourth of April the chain ferry crosses the estuary for the first time in sixty-four years. She leaves the Toll House slip two hours before high water and goes back and forth until two hours after, as long as there is somebody on either bank who wants to be on the other. The crossing takes nine minutes and costs nothing; who wants to haul may haul.",
      ],
      {
        align: "justify",
        hyphenate: true,
        dropCap: { lines: 3, distance: 6, family: "Playfair Display" },
        spaceAfter: 16,
      },
    ),
    hour("Saturday 4 April", "9.10 to 13.10"),
    hour("Sunday 5 April", "9.50 to 13.50"),
    hour("Monday 6 April", "10.30 to 14.30"),
    paragraph("body", [letters("No crossing", { bold: true }), " when the red flag flies"], {
      ...boxed,
      spaceBefore: 22,
    }),
    paragraph(
      "body",
      ["Dogs are welcome, ", letters("bicycles", { strike: "single" }), " one bicycle at a time"],
      boxed,
    ),
    paragraph("body", ["Ask at the Old Toll House, Quay Lane"], { ...boxed, spaceAfter: 18 }),
    paragraph("body", [], { borders: { bottom: { pattern: "wavy", width: 0.75, colour: "#1f4f7a", distance: 0 } } }),
    paragraph(
      "body",
      [
        letters("H", { size: 10.5 }),
        letters("2", { size: 10.5, script: "sub" }),
        letters("O in the estuary rises by the rule of twelfths: the 3", { size: 10.5 }),
        letters("rd", { size: 10.5, script: "super" }),
        letters(" and 4", { size: 10.5 }),
        letters("th", { size: 10.5, script: "super" }),
        letters(" hours bring half of it.", { size: 10.5 }),
      ],
      { align: "center" },
    ),
  ],
}
