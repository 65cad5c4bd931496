/** Values as the standard writes them down. */
import type { Border } from "../../../document"
import { xml } from "../../xml/writing"

export const twips = (points: number): number => Math.round(points * 20)
export const emus = (points: number): number => Math.round(points * 12_700)
export const hex = (colour: string): string => colour.slice(1).toUpperCase()

const patterns: Readonly<Record<Border["pattern"], string>> = {
  solid: "single",
  double: "double",
  dotted: "dotted",
  dashed: "dashed",
  wavy: "wave",
}

/** A line at an edge; of null, none. */
export function border(name: string, own: Border | null): string {
  return own === null
    ? xml(name, { "w:val": "nil" })
    : xml(name, {
        "w:val": patterns[own.pattern],
        "w:sz": Math.min(96, Math.max(2, Math.round(own.width * 8))),
        "w:space": Math.min(31, Math.round(own.distance)),
        "w:color": hex(own.colour),
      })
}

export const shading = (colour: string | null): string =>
  xml("w:shd", { "w:val": "clear", "w:color": "auto", "w:fill": colour === null ? "auto" : hex(colour) })

/** On is said by being there, off has to be said. */
export const flag = (name: string, on: boolean | undefined): string =>
  on === undefined ? "" : xml(name, on ? null : { "w:val": "0" })

export const value = (name: string, own: string | number | undefined): string =>
  own === undefined ? "" : xml(name, { "w:val": own })
