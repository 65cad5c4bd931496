/** Rules of paper, margins, and what stands at heads and feet. */
import {
  edgeStory,
  edgeText,
  partsOfLine,
  sectionsOf,
  storiesOf,
  papers,
  type EdgeVariant,
  type PageSetup,
  type Section,
} from "../document"
import type { Node } from "prosemirror-model"
import { near, type Asked, type Judge, type Judgement } from "./judging"

/** The sections that a brief speaks of, with their numbers: all but a cover. */
export function plainSections(doc: Node): { section: Section; number: number }[] {
  return sectionsOf(doc)
    .map((section, number) => ({ section, number }))
    .filter(({ section }) => section.setup.cover === null)
}

function judgeSetup(doc: Node, agrees: (setup: PageSetup) => boolean, told: (setup: PageSetup) => string): Judgement {
  const other = plainSections(doc).filter(({ section }) => !agrees(section.setup))
  const places = other.flatMap(({ section: { pos } }) => (pos === null ? [] : [{ leaf: 0, from: pos, to: pos }]))
  return { agrees: other.length === 0, found: other[0] ? told(other[0].section.setup) : "", places, mends: true }
}

/** What paper of a size is called. */
export function paperName({ width, height }: { width: number; height: number }, length: (points: number) => string) {
  const known = Object.entries(papers).find(([, own]) => near(own.width, width) && near(own.height, height))
  return known?.[0] ?? `${length(width)} by ${length(height)}`
}

const upright = ({ width, height }: PageSetup) => ({ width: Math.min(width, height), height: Math.max(width, height) })

export const judgePaper: Judge<"paper"> = (doc, asked, world) =>
  judgeSetup(
    doc,
    // A sheet that lies on its side is of the same paper.
    (setup) => near(upright(setup).width, asked.width) && near(upright(setup).height, asked.height),
    (setup) => paperName(upright(setup), world.length),
  )

const sides = ["top", "right", "bottom", "left"] as const

/** Margins in words: one length where all are alike. */
export function marginWords(margins: Asked<"margins">, length: (points: number) => string): string {
  if (sides.every((side) => near(margins[side], margins.top))) return length(margins.top)
  return sides.map((side) => `${side} ${length(margins[side])}`).join(", ")
}

export const judgeMargins: Judge<"margins"> = (doc, asked, world) =>
  judgeSetup(
    doc,
    ({ margins }) => sides.every((side) => near(margins[side], asked[side])),
    ({ margins }) => marginWords(margins, world.length),
  )

/** What a part of a head or foot of a section shows, written out; null where there is no such line. */
export function edgeWords(
  doc: Node,
  section: number,
  { edge, part }: Pick<Asked<"numbers">, "edge" | "part">,
  variant: EdgeVariant,
): string | null {
  const key = edgeStory(sectionsOf(doc), section, edge, variant)
  const line = key === null ? null : storiesOf(doc).get(key)?.node.firstChild
  return line?.isTextblock ? edgeText(partsOfLine(line)[part] ?? []) : null
}

/** Judges what stands in one part of the heads or feet. */
export const judgeEdge: Judge<"numbers" | "runningHead"> = (doc, asked) => {
  const all = plainSections(doc)
  const wrong = (words: string): Judgement => ({ agrees: false, found: words, places: [], mends: true })
  for (const { section, number } of all) {
    const { firstOwn, leftRight } = section.setup
    for (const variant of leftRight ? (["all", "left"] as const) : (["all"] as const)) {
      const words = edgeWords(doc, number, asked, variant)
      if (words !== asked.text) return wrong(words ? `“${words}”` : "nothing there")
    }
    if (number !== all[0]?.number) continue
    const first = firstOwn ? edgeWords(doc, number, asked, "first") === asked.text : true
    if (first !== asked.first) return wrong(first ? "on the first sheet too" : "not on the first sheet")
  }
  return { agrees: true, found: "", places: [], mends: true }
}
