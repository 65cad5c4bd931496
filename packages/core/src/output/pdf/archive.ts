/** What makes a PDF one for archives (PDF/A-3b, ISO 19005-3): it says so, and what its colours mean. Its fonts are embedded anyway. */
import { ref, type PdfFile } from "./objects"

/** Colours of screens (IEC 61966-2-1) adapted to D50, as the standard of profiles wants them: X, Y and Z of white and of each primary. */
const white = [0.9642, 1, 0.8249] as const
const primaries = [
  ["rXYZ", [0.43607, 0.22249, 0.01392]],
  ["gXYZ", [0.38515, 0.71687, 0.09708]],
  ["bXYZ", [0.14307, 0.06061, 0.7141]],
] as const
const name = "sRGB IEC61966-2.1"
/** So many places the curve of brightness is told at. */
const curvePlaces = 1024

/** How much light a value gives, both from 0 to 1. */
const light = (value: number) => (value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4)

class Bytes {
  readonly all: number[] = []
  text(text: string): this {
    for (const sign of text) this.all.push(sign.charCodeAt(0))
    return this
  }
  u32(value: number): this {
    this.all.push((value >>> 24) & 255, (value >>> 16) & 255, (value >>> 8) & 255, value & 255)
    return this
  }
  u16(value: number): this {
    this.all.push((value >>> 8) & 255, value & 255)
    return this
  }
  /** Numbers of 16 bits before and behind the point. */
  fixed(...values: readonly number[]): this {
    for (const value of values) this.u32(Math.round(value * 65536))
    return this
  }
}

/** A profile of sRGB (ICC.1:2001-04, version 2.4, 7). */
export function colourProfile(): Uint8Array {
  const curve = new Bytes().text("curv").u32(0).u32(curvePlaces)
  for (let i = 0; i < curvePlaces; i++) curve.u16(Math.round(light(i / (curvePlaces - 1)) * 65535))
  const described = new Bytes()
    .text("desc")
    .u32(0)
    .u32(name.length + 1)
    .text(`${name}\0`)
    .u32(0)
    .u32(0)
    .u16(0)
  for (let i = 0; i < 68; i++) described.all.push(0)
  const tags: [string, Bytes][] = [
    ["desc", described],
    ["cprt", new Bytes().text("text").u32(0).text("Public domain\0")],
    [
      "wtpt",
      new Bytes()
        .text("XYZ ")
        .u32(0)
        .fixed(...white),
    ],
    ...primaries.map(([key, parts]): [string, Bytes] => [
      key,
      new Bytes()
        .text("XYZ ")
        .u32(0)
        .fixed(...parts),
    ]),
    ["rTRC", curve],
    ["gTRC", curve],
    ["bTRC", curve],
  ]
  const head = 128 + 4 + tags.length * 12
  const table = new Bytes().u32(tags.length)
  const data: number[] = []
  const places = new Map<Bytes, number>()
  for (const [key, own] of tags) {
    let at = places.get(own)
    if (at === undefined) {
      at = head + data.length
      places.set(own, at)
      for (const byte of own.all) data.push(byte)
      while (data.length % 4 !== 0) data.push(0)
    }
    table.text(key).u32(at).u32(own.all.length)
  }
  const header = new Bytes()
    .u32(head + data.length)
    .u32(0)
    .u32(0x02400000)
    .text("mntrRGB XYZ ")
    // Made on the first day of 2000, wherever and whenever that is.
    .u16(2000)
    .u16(1)
    .u16(1)
    .u16(0)
    .u16(0)
    .u16(0)
    .text("acsp")
    .u32(0)
    .u32(0)
    .u32(0)
    .u32(0)
    .u32(0)
    .u32(0)
    .u32(0)
    .fixed(...white)
    .u32(0)
  while (header.all.length < 128) header.all.push(0)
  return Uint8Array.from([...header.all, ...table.all, ...data])
}

/** What the catalog says of colours. */
export function outputIntent(file: PdfFile): string {
  const profile = file.addStream(colourProfile(), "/N 3")
  const intent = file.add(
    `<</Type/OutputIntent/S/GTS_PDFA1/OutputConditionIdentifier(${name})/Info(${name})/DestOutputProfile ${ref(profile)}>>`,
  )
  return `/OutputIntents[${ref(intent)}]`
}

/** What its description says of itself. */
export const archiveDescription =
  '<rdf:Description rdf:about="" xmlns:pdfaid="http://www.aiim.org/pdfa/ns/id/"><pdfaid:part>3</pdfaid:part><pdfaid:conformance>B</pdfaid:conformance></rdf:Description>'
