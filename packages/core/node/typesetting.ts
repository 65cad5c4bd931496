/** Layout and PDF in Node: for the server, the command line, measurements and tests. The only part of core that knows Node. */
import { readFileSync } from "node:fs"
import { createRequire } from "node:module"
import { dirname, join } from "node:path"
import * as zlib from "node:zlib"
import { deflateRawSync, deflateSync, inflateRawSync } from "node:zlib"
import type { Node } from "prosemirror-model"
import { valuesNow } from "../src/document"
import {
  assetOfFace,
  FontLibrary,
  furnished,
  HarfBuzz,
  Hyphenator,
  layoutDocument,
  type FaceId,
  MissingFaceError,
  shippedFaces,
  Typesetter,
  type Layout,
} from "../src/layout"
import { ReadingError } from "../src/document/reading"
import type { AssetSource, Format, NamedDocument } from "../src/formats/format"
import { pictureAddress } from "../src/formats/html/page"
import { kinds } from "../src/formats/kinds"
import { sheetPngs, startDrawing } from "../src/output/pixels"
import { sheetsNamed } from "../src/output/printing"
import { createSubsetter, writePdf, writeImposed, type PrintPlan, type Subsetter } from "../src/output"
import { prepareCiting } from "./citing"
import { deflateWith, inflateWith } from "../src/formats/zip"
import { projectRoot } from "./root"

export { prepareCiting, projectRoot }

// Older ones have no checksum of their own.
const { crc32 } = zlib as { crc32?: (bytes: Uint8Array) => number }
deflateWith((bytes) => deflateRawSync(bytes, { level: 4 }), crc32)
// One byte more than is said, so that what comes to more is told from what does not.
inflateWith((bytes, size) => inflateRawSync(bytes, { maxOutputLength: size + 1 }))

const resolve = (name: string) => createRequire(join(projectRoot(), "package.json")).resolve(name)

export function faceFile(path: string): string {
  const [folder = "", ...rest] = path.split("/")
  return join(dirname(resolve(`@expo-google-fonts/${folder}/package.json`)), ...rest)
}

/** The file of a typeface that ships. */
export function shippedFace(id: FaceId): Uint8Array {
  const path = shippedFaces().find((face) => face.id === id)?.path
  if (!path) throw new Error(`There is no typeface ${id}`)
  return readFileSync(faceFile(path))
}

/** The program that draws pictures of sheets. */
export function drawingFile(): string {
  return resolve("@resvg/resvg-wasm/index_bg.wasm")
}

export function wasmFile(name: "harfbuzz" | "harfbuzz-subset"): string {
  return resolve(`harfbuzzjs/dist/${name}.wasm`)
}

export function openFonts(assets: AssetSource = () => undefined): FontLibrary {
  const paths = new Map(shippedFaces().map((face) => [face.id, face.path]))
  return new FontLibrary(new HarfBuzz(readFileSync(wasmFile("harfbuzz"))), (id) => {
    const asset = assetOfFace(id)
    if (asset !== null) {
      const bytes = assets(asset)
      if (!bytes) throw new MissingFaceError(`The font ${asset} is not here`)
      return bytes
    }
    const path = paths.get(id)
    if (!path) throw new Error(`There is no typeface ${id}`)
    return readFileSync(faceFile(path))
  })
}

export function openHyphenator(): Hyphenator {
  const folder = dirname(resolve("hyphenopoly/package.json"))
  return new Hyphenator((name) => new Uint8Array(readFileSync(join(folder, "patterns", `${name}.wasm`))))
}

export function openTypesetter(assets?: AssetSource): Typesetter {
  return new Typesetter(openFonts(assets), openHyphenator(), valuesNow)
}

let shared: Typesetter | undefined
/** One typesetter for the whole process. */
export function typesetter(): Typesetter {
  return (shared ??= openTypesetter())
}

let subset: Subsetter | undefined

/** A finished layout as the bytes of a PDF. */
export function pdfOf(
  layout: Layout,
  name: string,
  fonts: FontLibrary = typesetter().fonts,
  assets: AssetSource = () => undefined,
  archive = false,
): Uint8Array {
  subset ??= createSubsetter(readFileSync(wasmFile("harfbuzz-subset")))
  const writing = writePdf(layout, {
    fonts,
    subset,
    name,
    assets,
    archive,
    deflate: (bytes) => deflateSync(bytes, { level: 4 }),
  })
  let step = writing.next()
  while (!step.done) step = writing.next()
  return step.value
}

/** The PDF as a format among others. */
export const pdfFormat: Format = {
  ...kinds.pdf,
  write: ({ name, doc }, assets) => {
    const setter = assets ? openTypesetter(assets) : typesetter()
    return pdfOf(layoutOf(doc, setter, name ?? ""), name ?? "", setter.fonts, assets)
  },
}

/** The same for archives. */
export function archiveFile({ name, doc }: NamedDocument, assets?: AssetSource): Uint8Array {
  const setter = assets ? openTypesetter(assets) : typesetter()
  return pdfOf(layoutOf(doc, setter, name ?? ""), name ?? "", setter.fonts, assets, true)
}

/** @param name what the document is called */
export function layoutOf(doc: Node, setter: Typesetter = typesetter(), name = ""): Layout {
  prepareCiting(doc)
  return furnished(setter, layoutDocument(setter, doc, { mode: "sheets", name }), valuesNow)
}

/** A document as a PDF of its sheets as they lie on paper. @throws ReadingError where the plan names no sheets */
export function printFile({ name, doc }: NamedDocument, plan: PrintPlan, assets?: AssetSource): Uint8Array {
  const setter = assets ? openTypesetter(assets) : typesetter()
  subset ??= createSubsetter(readFileSync(wasmFile("harfbuzz-subset")))
  const writing = writeImposed(layoutOf(doc, setter, name ?? ""), plan, {
    fonts: setter.fonts,
    subset,
    name: name ?? "",
    assets: assets ?? (() => undefined),
    deflate: (bytes) => deflateSync(bytes, { level: 4 }),
  })
  let step = writing.next()
  while (!step.done) step = writing.next()
  if (!step.value) throw new ReadingError(`There are no sheets "${plan.sheets}" in it`)
  return step.value
}

/** Sheets of a document as PNG files, by their numbers from 1. @throws ReadingError where `sheets` names none */
export async function pngsOf(
  { name, doc }: NamedDocument,
  sheets: string,
  dpi: number,
  assets?: AssetSource,
): Promise<Map<number, Uint8Array>> {
  const setter = assets ? openTypesetter(assets) : typesetter()
  await startDrawing(() => readFileSync(drawingFile()))
  const layout = layoutOf(doc, setter, name ?? "")
  const numbers = sheetsNamed(sheets, layout.placed.length)
  if (!numbers) throw new ReadingError(`There are no sheets "${sheets}" in it`)
  const address = (asset: string) => ((bytes) => (bytes ? pictureAddress(bytes) : null))(assets?.(asset))
  const drawing = sheetPngs(layout, numbers, { fonts: setter.fonts, address, dpi })
  let step = drawing.next()
  while (!step.done) step = drawing.next()
  return new Map([...step.value].map(([file, bytes]) => [Number.parseInt(file), bytes]))
}
