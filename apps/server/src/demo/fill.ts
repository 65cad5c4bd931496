import type { Node } from "prosemirror-model"
import {
  defaultProperties,
  defaultSetup,
  defaultStyles,
  document,
  MM,
  nodes,
  p,
  type PartName,
  type StyleSheet,
} from "@biblon/core/document"
import { divideEdges, fillEdge, placeNumbers, setCover } from "@biblon/core/editing"
import type { AssetStore } from "../store/assets"
import type { DocumentStore } from "../store/documents"
import { actions, firstWeek } from "./boarded"
import { estuary } from "./drawing"
import { anywhere, contentsBefore, dressed, note } from "../dressing"
import { messy } from "./messy"
import { notice, record, report } from "./shaped"
import { readDemo } from "./writing"

const day = 24 * 60 * 60 * 1000

/** The default styles with another body. */
function styles(body: StyleSheet["styles"][string]["paragraph"], family?: string): StyleSheet {
  const { defaults } = defaultStyles
  return {
    ...defaultStyles,
    defaults: family === undefined ? defaults : { ...defaults, letters: { ...defaults.letters, family } },
    styles: {
      ...defaultStyles.styles,
      body: { ...(defaultStyles.styles.body as StyleSheet["styles"][string]), paragraph: body },
    },
  }
}

/** A work in parts: a new one begins with each first heading, under its words. */
function inParts(blocks: readonly Node[], signs: readonly PartName["sign"][]): Node[] {
  const left = [...signs]
  return blocks.flatMap((block) => {
    if (block.attrs.style !== "heading1") return [block]
    const part = { name: block.textContent, sign: left.shift() ?? null }
    return [nodes.sectionBreak.create({ setup: { ...defaultSetup, begins: "sheet" }, part }), block]
  })
}

/** @param picture of the estuary, by its SHA-256 */
const demo = (picture: string) => [
  {
    name: "The first week",
    ago: 6,
    doc: document(firstWeek(picture), {
      styles: styles({}, "Source Serif 4"),
      properties: { ...defaultProperties, title: "The first week", author: "Tamsin Reed" },
    }),
  },
  {
    name: "What passengers ask, draft",
    ago: 8,
    doc: document(messy(), { properties: { ...defaultProperties, title: "What passengers ask" } }),
  },
  {
    name: "Notice for the slipway",
    ago: 3,
    doc: document(notice.blocks(), {
      styles: notice.styles,
      properties: { ...defaultProperties, title: "The ferry runs", author: "Imre Fallow" },
    }),
  },
  {
    name: "Risk report",
    ago: 4,
    doc: dressed(
      document(report.blocks(), {
        styles: report.styles,
        properties: {
          title: "Risks of the trial season",
          subtitle: "What can go wrong with a chain ferry, and what is done about it",
          author: "Nell Caddow",
          organisation: "Saltmarsh Ferry Trust",
          date: "November 2026",
        },
      }),
      contentsBefore("What can go wrong", 2),
      anywhere(fillEdge("head", "{title}||{heading}")),
      anywhere(placeNumbers({ edge: "foot", part: 2 }, "Sheet %1")),
      anywhere(setCover("pier")),
    ),
  },
  {
    name: "Record of a ferry hand",
    ago: 5,
    doc: document(record.blocks(), {
      styles: record.styles,
      properties: { ...defaultProperties, title: "Nell Caddow", author: "Nell Caddow" },
    }),
  },
  {
    name: "Tides and timetables",
    ago: 1,
    doc: dressed(
      document(readDemo("paper"), {
        styles: styles({
          align: "left",
          lineSpacing: { rule: "multiple", value: 2 },
          spaceAfter: 0,
          indentFirst: 10 * MM,
        }),
        setup: { ...defaultSetup, margins: { top: 32 * MM, right: 37 * MM, bottom: 32 * MM, left: 37 * MM } },
        properties: { ...defaultProperties, title: "Tides and timetables", author: "Nell Caddow" },
      }),
      anywhere(fillEdge("head", "||Caddow {page}")),
      anywhere(divideEdges("firstOwn", true)),
      note(
        "a mark for the state of the tide.",
        "The marks are a full moon, a half moon and a stroke; no key to them survives.",
      ),
      note("by men who slept there", "The bunk is still in the Toll House, behind the stove."),
    ),
  },
  {
    name: "Handbook for ferry hands",
    ago: 7,
    doc: dressed(
      document(inParts(readDemo("handbook"), ["anchor", "waves", "lifebuoy"]), {
        styles: styles({}, "Source Serif 4"),
        part: { name: "Opening", sign: "book" },
        properties: { ...defaultProperties, title: "For those who work the ferry", author: "Tamsin Reed" },
      }),
      anywhere(fillEdge("foot", "{heading}||Sheet {page} of {pages}")),
    ),
  },
  {
    name: "Minutes, 3 November",
    ago: 2,
    doc: dressed(
      document([...readDemo("minutes"), ...actions(), p()], {
        styles: styles({}, "Source Serif 4"),
        properties: { ...defaultProperties, title: "Minutes of the trustees, 3 November", author: "Imre Fallow" },
      }),
      anywhere(fillEdge("foot", "Saltmarsh Ferry Trust||Sheet {page} of {pages}")),
    ),
  },
  {
    name: "Letter to the harbour master",
    ago: 0,
    doc: document(readDemo("letter", { align: "justify" }), {
      properties: { ...defaultProperties, title: "Mooring rights at the east slipway", author: "Imre Fallow" },
    }),
  },
]

/** Puts the demo documents on an empty shelf; a shelf with documents is left alone. */
export function fillShelf(store: DocumentStore, assets: AssetStore, now = Date.now()): void {
  if (store.list().length > 0) return
  const picture = assets.put(estuary(), "image/png")
  for (const { name, ago, doc } of demo(picture)) store.create(doc, name, now - ago * day)
}
