/**
 * The trail: what gives a text its look. For each property that anything says something of, all that say
 * it, from the weakest to the strongest; the last one wins. It walks the same order as look.ts, and a
 * test holds the two together.
 */
import type { Mark, Node } from "prosemirror-model"
import { bodyStyle } from "./defaults"
import { entryOf } from "./keyed"
import { levelOf, listNamed } from "./lists"
import { chainIds, linkLook, listPlace } from "./look"
import { letterProperties, paragraphAttrs, type LetterProperty } from "./schema"
import type { LetterFormat, ParagraphFormat, StyleSheet } from "./shapes"

export type TrailSource =
  | { kind: "default" }
  | { kind: "style"; key: string; name: string }
  | { kind: "list"; name: string; level: number }
  | { kind: "link" }
  | { kind: "letterStyle"; key: string; name: string }
  | { kind: "direct" }

export interface TrailSaying {
  source: TrailSource
  value: unknown
}

export type TrailEntry =
  | { of: "letters"; property: LetterProperty; sayings: TrailSaying[] }
  | { of: "paragraph"; property: keyof ParagraphFormat; sayings: TrailSaying[] }

/** What says something, from the weakest to the strongest. */
interface Layer {
  source: TrailSource
  letters: Partial<LetterFormat>
  paragraph: Partial<ParagraphFormat>
}

function layersOf(sheet: StyleSheet, paragraph: Node, marks: readonly Mark[]): Layer[] {
  const { style, format } = paragraphAttrs(paragraph)
  const own = (key: string, kind: "style" | "letterStyle"): Layer => {
    const { name = key, letters = {}, paragraph: said = {} } = entryOf(sheet.styles, key) ?? {}
    return { source: { kind, key, name }, letters, paragraph: kind === "style" ? said : {} }
  }
  const layers: Layer[] = [{ source: { kind: "default" }, ...sheet.defaults }]
  for (const key of chainIds(sheet, entryOf(sheet.styles, style) ? style : bodyStyle).reverse())
    layers.push(own(key, "style"))
  const place = listPlace(sheet, paragraph)
  if (place) {
    const level = levelOf(sheet, place.definition, place.level)
    const said = {
      indentLeft: level.indent,
      indentFirst: -level.hanging,
      ...(level.tight ? { spaceAlike: false } : {}),
    }
    layers.push({
      source: { kind: "list", name: listNamed(sheet, place.definition).name, level: place.level },
      letters: {},
      paragraph: said,
    })
  }
  if (marks.some(({ type }) => type.name === "link"))
    layers.push({ source: { kind: "link" }, letters: linkLook, paragraph: {} })
  for (const mark of marks)
    if (mark.type.name === "letterStyle")
      for (const key of chainIds(sheet, mark.attrs.value as string).reverse()) layers.push(own(key, "letterStyle"))
  const direct = Object.fromEntries(
    marks
      .filter(({ type }) => (letterProperties as readonly string[]).includes(type.name))
      .map((mark) => [mark.type.name, mark.attrs.value]),
  )
  layers.push({ source: { kind: "direct" }, letters: direct, paragraph: format ?? {} })
  return layers
}

/** The trail of letters with these marks in a paragraph. Properties that nothing but the defaults speak of come last. */
export function trailOf(sheet: StyleSheet, paragraph: Node, marks: readonly Mark[]): TrailEntry[] {
  const layers = layersOf(sheet, paragraph, marks)
  const said = <K extends string>(of: "letters" | "paragraph", property: K): TrailSaying[] =>
    layers.flatMap((layer) => {
      const value = (layer[of] as Record<string, unknown>)[property]
      return value === undefined ? [] : [{ source: layer.source, value }]
    })
  const entries: TrailEntry[] = [
    ...letterProperties.map((property): TrailEntry => ({
      of: "letters",
      property,
      sayings: said("letters", property),
    })),
    ...(Object.keys(sheet.defaults.paragraph) as (keyof ParagraphFormat)[]).map((property): TrailEntry => ({
      of: "paragraph",
      property,
      sayings: said("paragraph", property),
    })),
  ]
  return entries.sort((a, b) => Number(a.sayings.length === 1) - Number(b.sayings.length === 1))
}

/** Direct formatting along the text of a paragraph. */
export interface DirectSpan {
  property: LetterProperty | "letterStyle"
  value: unknown
  /** Offsets in the paragraph; equal for what is left in a paragraph without text. */
  from: number
  to: number
  /** Whether it stands on nothing that can be seen: blanks, or no text at all. */
  empty: boolean
}

/** Where each piece of direct formatting of a paragraph's letters begins and ends, in the order of the text. */
export function directSpans(paragraph: Node): DirectSpan[] {
  const spans: DirectSpan[] = []
  const { letters } = paragraphAttrs(paragraph)
  for (const [property, value] of Object.entries(letters ?? {}))
    spans.push({ property: property as LetterProperty, value, from: 0, to: 0, empty: true })
  const open = new Map<string, DirectSpan>()
  paragraph.forEach((child, offset) => {
    for (const mark of child.marks) {
      const property = mark.type.name as LetterProperty
      if (mark.type.name !== "letterStyle" && !(letterProperties as readonly string[]).includes(property)) continue
      const span = open.get(property)
      const blank = child.isText && (child.text ?? "").trim() === ""
      if (span && span.to === offset && JSON.stringify(span.value) === JSON.stringify(mark.attrs.value)) {
        span.to = offset + child.nodeSize
        span.empty &&= blank
      } else {
        const next: DirectSpan = {
          property,
          value: mark.attrs.value,
          from: offset,
          to: offset + child.nodeSize,
          empty: blank,
        }
        open.set(property, next)
        spans.push(next)
      }
    }
  })
  return spans
}
