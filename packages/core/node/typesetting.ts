/** Layout and PDF in Node: for the server, the command line, measurements and tests. The only part of core that knows Node. */
import { readFileSync } from "node:fs"
import { createRequire } from "node:module"
import { dirname, join } from "node:path"
import type { Node } from "prosemirror-model"
import { FontLibrary, HarfBuzz, Hyphenator, layoutDocument, shippedFaces, Typesetter, type Layout } from "../src/layout"
import { createSubsetter, writePdf, type Subsetter } from "../src/output"

const require = createRequire(join(process.cwd(), "package.json"))

export function faceFile(path: string): string {
  const [folder = "", ...rest] = path.split("/")
  return join(dirname(require.resolve(`@expo-google-fonts/${folder}/package.json`)), ...rest)
}

export function wasmFile(name: "harfbuzz" | "harfbuzz-subset"): string {
  return require.resolve(`harfbuzzjs/dist/${name}.wasm`)
}

export function openFonts(): FontLibrary {
  const paths = new Map(shippedFaces().map((face) => [face.id, face.path]))
  return new FontLibrary(new HarfBuzz(readFileSync(wasmFile("harfbuzz"))), (id) => {
    const path = paths.get(id)
    if (!path) throw new Error(`There is no typeface ${id}`)
    return readFileSync(faceFile(path))
  })
}

export function openHyphenator(): Hyphenator {
  const folder = dirname(require.resolve("hyphenopoly/package.json"))
  return new Hyphenator((name) => new Uint8Array(readFileSync(join(folder, "patterns", `${name}.wasm`))))
}

let shared: Typesetter | undefined
/** One typesetter for the whole process. */
export function typesetter(): Typesetter {
  return (shared ??= new Typesetter(openFonts(), openHyphenator()))
}

let subset: Subsetter | undefined

/** A finished layout as the bytes of a PDF. */
export function pdfOf(layout: Layout, name: string, fonts: FontLibrary = typesetter().fonts): Uint8Array {
  subset ??= createSubsetter(readFileSync(wasmFile("harfbuzz-subset")))
  const writing = writePdf(layout, { fonts, subset, name })
  let step = writing.next()
  while (!step.done) step = writing.next()
  return step.value
}

export function layoutOf(doc: Node): Layout {
  return layoutDocument(typesetter(), doc)
}
