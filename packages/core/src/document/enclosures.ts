/** Enclosures: files that go along with a document, each shown in the text by a field with its name, kind and size. */
import { limits } from "./bounds"
import { knownLanguage } from "./language"

export interface Enclosure {
  /** SHA-256 of its bytes, under which they are kept. */
  asset: string
  /** In bytes. */
  size: number
  /** What it is called, with its ending. */
  name: string
}

/** Largest file that is taken, in bytes. */
export const largestEnclosure = 25 * 1048576

/** How a field of the kind "enclosure" is written down. Control characters and strokes of paths are no part of a name. */
export function enclosureFormat({ asset, size, name }: Enclosure): string {
  const own = [...name.replace(/[\u0000-\u001f\u007f/\\]+/g, " ").trim()].slice(0, limits.enclosure).join("")
  return `${asset} ${size} ${own || "file"}`
}

/** @returns null where it is not written so */
export function enclosureOf(format: string): Enclosure | null {
  const [, asset, size, name] = /^([0-9a-f]{64}) (\d{1,10}) (.+)$/s.exec(format) ?? []
  return asset && size && name ? { asset, size: Number(size), name } : null
}

/** A number of bytes as people say it: in kB below a megabyte, at least one. */
export function sizeWords(bytes: number, language: string): string {
  const [value, unit] = bytes < 999_500 ? [Math.max(1, Math.round(bytes / 1000)), "kB"] : [bytes / 1e6, "MB"]
  return `${new Intl.NumberFormat(knownLanguage(language), { maximumFractionDigits: 1 }).format(value)} ${unit}`
}

/** What a field of that kind shows. */
export function enclosureWords(format: string, language: string): string {
  const own = enclosureOf(format)
  if (!own) return "–"
  const ending = /\.([A-Za-z0-9]{1,8})$/.exec(own.name)?.[1]
  return `${own.name} (${ending ? `${ending.toUpperCase()}, ` : ""}${sizeWords(own.size, language)})`
}
