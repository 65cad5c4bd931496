/**
 * What is written before the items of lists, computed from the order of the document. Nothing of it is
 * kept in the document, so it is right after any change whatever.
 */
import type { Node } from "prosemirror-model"
import { changedLeaves, leavesOf } from "./leaves"
import { levelOf } from "./lists"
import { listPlace } from "./look"
import { documentAttrs } from "./schema"
import type { ListLevel, ListPlace, StyleSheet } from "./shapes"

const romans: [number, string][] = [
  [1000, "m"],
  [900, "cm"],
  [500, "d"],
  [400, "cd"],
  [100, "c"],
  [90, "xc"],
  [50, "l"],
  [40, "xl"],
  [10, "x"],
  [9, "ix"],
  [5, "v"],
  [4, "iv"],
  [1, "i"],
]

/** A number in letters (a … z, aa, ab …), Roman figures or decimal. */
export function formatNumber(n: number, numbering: ListLevel["numbering"]): string {
  switch (numbering) {
    case "decimal":
      return String(n)
    case "zero":
      return String(n).padStart(2, "0")
    case "lowerLetter":
    case "upperLetter": {
      let text = ""
      for (let rest = n; rest > 0; rest = Math.floor((rest - 1) / 26))
        text = String.fromCharCode(97 + ((rest - 1) % 26)) + text
      return numbering === "upperLetter" ? text.toUpperCase() : text || "0"
    }
    case "lowerRoman":
    case "upperRoman": {
      let text = ""
      let rest = n
      for (const [value, sign] of romans) for (; rest >= value && n < 5000; rest -= value) text += sign
      text ||= String(n)
      return numbering === "upperRoman" ? text.toUpperCase() : text
    }
  }
}

/** Counters of one run by level; undefined where no item has been counted yet, or the level is to start anew. */
type Counters = (number | undefined)[]

/** Counts an item and returns what is written before it. */
function count(sheet: StyleSheet, counters: Counters, place: ListPlace): string {
  const own = levelOf(sheet, place.definition, place.level)
  const before = counters[place.level]
  const n = place.start ?? (before === undefined ? own.start : before + 1)
  counters[place.level] = n
  for (let deeper = place.level + 1; deeper < 9; deeper++) {
    const { restart } = levelOf(sheet, place.definition, deeper)
    if (restart !== null && (restart === 0 || place.level < restart)) counters[deeper] = undefined
  }
  if (own.kind === "check") return place.done ? "☑" : "☐"
  if (own.kind === "mark") return own.format
  return own.format.replace(/%([1-9])/g, (_, digit: string) => {
    const at = Number(digit) - 1
    const level = levelOf(sheet, place.definition, at)
    // A level above that was never counted stands as if its first item were there.
    return formatNumber(counters[at] ?? level.start, own.legal && at !== place.level ? "decimal" : level.numbering)
  })
}

/** For each leaf what is written before it, or null. */
export type Labels = readonly (string | null)[]

function countAll(doc: Node, sheet: StyleSheet): Labels {
  const leaves = leavesOf(doc)
  const runs = new Map<string, Counters>()
  return leaves.nodes.map((node, leaf) => {
    const place = listPlace(sheet, node)
    if (!place) return null
    // Each story has lists of its own.
    const key = JSON.stringify([leaves.flow(leaf).story, place.definition, place.run])
    let counters = runs.get(key)
    if (!counters) runs.set(key, (counters = []))
    return count(sheet, counters, place)
  })
}

/** The number of an item among those of its level, whatever its label makes of it; null for a leaf that is no item. */
export function itemNumber(doc: Node, leaf: number): number | null {
  const sheet = documentAttrs(doc).styles
  const leaves = leavesOf(doc)
  const own = listPlace(sheet, leaves.node(leaf))
  if (!own) return null
  const { story } = leaves.flow(leaf)
  const counters: Counters = []
  leaves.nodes.slice(0, leaf + 1).forEach((other, i) => {
    const place = listPlace(sheet, other)
    if (place?.definition === own.definition && place.run === own.run && leaves.flow(i).story === story)
      count(sheet, counters, place)
  })
  return counters[own.level] ?? null
}

/** For each style sheet the document whose labels were asked for last. */
const last = new WeakMap<StyleSheet, { doc: WeakRef<Node>; labels: Labels }>()
const known = new WeakMap<Node, { sheet: StyleSheet; labels: Labels }>()

/** The labels of a document. As long as no item of a list comes, goes or changes its place, they are those of before. */
export function labelsOf(doc: Node): Labels {
  const sheet = documentAttrs(doc).styles
  const remembered = known.get(doc)
  if (remembered?.sheet === sheet) return remembered.labels
  const before = last.get(sheet)
  const older = before?.doc.deref()
  const labels = (before && older ? carriedOver(older, doc, before.labels, sheet) : null) ?? countAll(doc, sheet)
  last.set(sheet, { doc: new WeakRef(doc), labels })
  known.set(doc, { sheet, labels })
  return labels
}

function carriedOver(older: Node, newer: Node, labels: Labels, sheet: StyleSheet): Labels | null {
  const change = changedLeaves(older, newer)
  if (!change) return labels
  const { from, oldTo, newTo } = change
  const places = (doc: Node, to: number) =>
    leavesOf(doc)
      .between(from, to)
      .map((leaf) => listPlace(sheet, leaf))
  const [before, now] = [places(older, oldTo), places(newer, newTo)]
  if (before.length === now.length && now.every((place, i) => same(place, before[i] ?? null))) return labels
  if ([...before, ...now].some((place) => place !== null)) return null
  return [...labels.slice(0, from), ...now.map(() => null), ...labels.slice(oldTo)]
}

function same(a: ListPlace | null, b: ListPlace | null): boolean {
  return (
    a === b ||
    (a !== null &&
      b !== null &&
      a.definition === b.definition &&
      a.run === b.run &&
      a.level === b.level &&
      a.start === b.start &&
      a.done === b.done)
  )
}
