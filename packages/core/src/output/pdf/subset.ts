/** Font subsets by HarfBuzz (hb-subset.h), from the WebAssembly module without imports that the package ships. */

type Wasm = Record<string, (...args: number[]) => number>

const GLYPH_INDICES = 0
const DROP_TABLES = 3
const RETAIN_GIDS = 0x2
const NOTDEF_OUTLINE = 0x40
const NO_LAYOUT_CLOSURE = 0x200
const MEMORY_MODE_WRITABLE = 2

function tag(name: string): number {
  return (
    ((name.charCodeAt(0) << 24) | (name.charCodeAt(1) << 16) | (name.charCodeAt(2) << 8) | name.charCodeAt(3)) >>> 0
  )
}

/** Makes a TrueType file that holds only these glyphs, under the same numbers. */
export type Subsetter = (font: Uint8Array, glyphs: Iterable<number>) => Uint8Array

export function createSubsetter(module: WebAssembly.Module | BufferSource): Subsetter {
  const compiled = module instanceof WebAssembly.Module ? module : new WebAssembly.Module(module)
  const { exports } = new WebAssembly.Instance(compiled, {})
  const wasm = exports as unknown as Wasm
  const memory = exports.memory as WebAssembly.Memory
  const call = (name: string, ...args: number[]) => {
    const f = wasm[name]
    if (!f) throw new Error(`HarfBuzz has no ${name}`)
    return f(...args)
  }
  call("_initialize")
  return (font, glyphs) => {
    const at = call("malloc", font.length)
    new Uint8Array(memory.buffer, at, font.length).set(font)
    const blob = call("hb_blob_create", at, font.length, MEMORY_MODE_WRITABLE, 0, 0)
    const face = call("hb_face_create", blob, 0)
    call("hb_blob_destroy", blob)
    const input = call("hb_subset_input_create_or_fail")
    call("hb_subset_input_set_flags", input, RETAIN_GIDS | NOTDEF_OUTLINE | NO_LAYOUT_CLOSURE)
    const kept = call("hb_subset_input_set", input, GLYPH_INDICES)
    for (const glyph of glyphs) call("hb_set_add", kept, glyph)
    const dropped = call("hb_subset_input_set", input, DROP_TABLES)
    for (const table of ["GSUB", "GPOS", "GDEF", "DSIG", "STAT"]) call("hb_set_add", dropped, tag(table))
    const subset = call("hb_subset_or_fail", face, input)
    call("hb_subset_input_destroy", input)
    call("hb_face_destroy", face)
    if (!subset) {
      call("free", at)
      throw new Error("A font could not be cut down to the glyphs in use")
    }
    const result = call("hb_face_reference_blob", subset)
    const start = call("hb_blob_get_data", result, 0)
    const bytes = new Uint8Array(memory.buffer, start, call("hb_blob_get_length", result)).slice()
    call("hb_blob_destroy", result)
    call("hb_face_destroy", subset)
    call("free", at)
    return bytes
  }
}
