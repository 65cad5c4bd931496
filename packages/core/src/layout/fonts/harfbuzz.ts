/**
 * HarfBuzz by its C interface. The package's module is instantiated directly: its five imports
 * are process plumbing that shaping never calls, and doing without its script spares every
 * bundler the top-level await in it. Function names and struct layouts: hb.h of HarfBuzz 14.
 */

import { newGlyphs, setUnsafe, shifted, type ShapedGlyphs } from "./glyphs"
import { LetterPairs, usualSigns } from "./pairs"
import { ShapedWords } from "./words"

/** Metrics in font units, `descender` negative, as in OpenType's hhea or OS/2 table. */
export interface FontMetrics {
  upem: number
  ascender: number
  descender: number
  lineGap: number
  underlinePosition: number
  underlineThickness: number
  strikePosition: number
  strikeThickness: number
  capHeight: number
  xHeight: number
  /** Size and distance from the baseline (upwards) of raised and lowered letters. */
  superscript: { size: number; offset: number }
  subscript: { size: number; offset: number }
}

export interface Font {
  readonly metrics: FontMetrics
  has(codePoint: number): boolean
  /** Advance of a glyph by itself, in font units. */
  advance(glyph: number): number
  /** Whether it has small capitals of its own (OpenType feature smcp). */
  readonly smallCaps: boolean
  shape(text: string, from: number, to: number, options: ShapeOptions): ShapedGlyphs
  /** Outline of a glyph as SVG path data in font units, y upwards. */
  outline(glyph: number): string
  /** Gives its memory back; it may not be used afterwards. */
  release(): void
}

export interface ShapeOptions {
  language: string
  rtl?: boolean
  /** OpenType features that are not as the face has them by default. */
  features?: readonly Feature[] | undefined
  /** Tag of the script; guessed where it is not said. */
  script?: number
}
export type Feature = readonly [tag: string, value: 0 | 1]

/** Shorter text is known as a whole: numbers, labels, headings, cells. */
const leastByWords = 20
/** So many short texts of a face are known; with more, all are forgotten. */
const mostShort = 4096

/** Whether text is of ASCII and has a letter in it, so that all of it counts as Latin. */
function isLatin(text: string, from: number, to: number): boolean {
  let any = false
  for (let i = from; i < to; i++) {
    const code = text.charCodeAt(i)
    if (code > 126 && !signs.has(code)) return false
    any ||= (code | 32) > 96 && (code | 32) < 123
  }
  return any
}
const signs = new Set(usualSigns)

/** What of the options glyphs depend on. */
const keyOf = ({ language, rtl, features, script }: ShapeOptions) =>
  `${language}${rtl ? " rtl" : ""}${features ? ` ${features.join()}` : ""}${script ? ` ${script}` : ""}`

type Wasm = Record<string, (...args: number[]) => number>

const UTF16_BUFFER_UNITS = 1 << 16
const SCRATCH = 1024
const LTR = 4
const RTL = 5
const UNSAFE_TO_BREAK = 1
const CLUSTER_LEVEL_MONOTONE_CHARACTERS = 1

function tag(name: string): number {
  return (name.charCodeAt(0) << 24) | (name.charCodeAt(1) << 16) | (name.charCodeAt(2) << 8) | name.charCodeAt(3)
}

/** A JavaScript function as one that WebAssembly can call: (i32 × ints, f32 × floats, i32) → nothing. */
function callable(table: WebAssembly.Table, ints: number, floats: number, call: (...args: number[]) => void): number {
  const I32 = 0x7f
  const F32 = 0x7d
  const params = [...Array<number>(ints).fill(I32), ...Array<number>(floats).fill(F32), I32]
  const bytes = new Uint8Array([
    0,
    0x61,
    0x73,
    0x6d,
    1,
    0,
    0,
    0,
    1,
    4 + params.length,
    1,
    0x60,
    params.length,
    ...params,
    0, // type
    2,
    7,
    1,
    1,
    0x65,
    1,
    0x66,
    0,
    0, // import e.f
    7,
    5,
    1,
    1,
    0x66,
    0,
    0, // export f
  ])
  const instance = new WebAssembly.Instance(new WebAssembly.Module(bytes), { e: { f: call } })
  const index = table.grow(1)
  table.set(index, instance.exports.f)
  return index
}

export class HarfBuzz {
  private readonly wasm: Wasm
  private readonly memory: WebAssembly.Memory
  private readonly buffer: number
  private readonly textAt: number
  private readonly scratch: number
  private readonly languages = new Map<string, number>()
  private drawing: { funcs: number; path: string[] } | undefined

  /** @param module the bytes of harfbuzz.wasm, compiled or not */
  constructor(module: WebAssembly.Module | BufferSource) {
    const compiled = module instanceof WebAssembly.Module ? module : new WebAssembly.Module(module)
    const refuse = (name: string) => () => {
      throw new Error(`HarfBuzz called ${name}`)
    }
    const instance = new WebAssembly.Instance(compiled, {
      wasi_snapshot_preview1: { proc_exit: refuse("proc_exit") },
      env: {
        _emscripten_runtime_keepalive_clear: () => {},
        _abort_js: refuse("abort"),
        _setitimer_js: () => 0,
        emscripten_resize_heap: (size: number) => this.grow(size),
      },
    })
    this.wasm = instance.exports as unknown as Wasm
    this.memory = instance.exports.memory as WebAssembly.Memory
    this.call("__wasm_call_ctors")
    this.buffer = this.call("hb_buffer_create")
    this.textAt = this.call("malloc", UTF16_BUFFER_UNITS * 2)
    this.scratch = this.call("malloc", SCRATCH)
  }

  private grow(size: number): number {
    try {
      this.memory.grow(Math.ceil((size - this.memory.buffer.byteLength) / 65536))
      return 1
    } catch {
      return 0
    }
  }

  private call(name: string, ...args: number[]): number {
    const f = this.wasm[name]
    if (!f) throw new Error(`HarfBuzz has no ${name}`)
    return f(...args)
  }

  private language(name: string): number {
    let pointer = this.languages.get(name)
    if (pointer === undefined) {
      new Uint8Array(this.memory.buffer, this.scratch, 64).set(
        [...name.slice(0, 60)].map((c) => c.charCodeAt(0) & 0x7f).concat(0),
      )
      pointer = this.call("hb_language_from_string", this.scratch, -1)
      this.languages.set(name, pointer)
    }
    return pointer
  }

  /** @param byWords whether it does nothing across blanks but between one and the letter behind it: see words.ts */
  font(bytes: Uint8Array, byWords = false): Font {
    const at = this.call("malloc", bytes.length)
    new Uint8Array(this.memory.buffer, at, bytes.length).set(bytes)
    const MEMORY_MODE_READONLY = 1
    const blob = this.call("hb_blob_create", at, bytes.length, MEMORY_MODE_READONLY, 0, 0)
    const face = this.call("hb_face_create", blob, 0)
    const font = this.call("hb_font_create", face)
    const upem = this.call("hb_face_get_upem", face)
    this.call("hb_font_set_scale", font, upem, upem)
    const metrics = this.readMetrics(font, upem)
    const known = new Map<number, boolean>()
    const words = new Map<string, ShapedWords>()
    const short = new Map<string, ShapedGlyphs>()
    const outlines = new Map<number, string>()
    return {
      metrics,
      smallCaps: this.features(face).has("smcp"),
      has: (codePoint) => {
        let answer = known.get(codePoint)
        if (answer === undefined) known.set(codePoint, (answer = this.nominal(font, codePoint) !== 0))
        return answer
      },
      advance: (glyph) => this.call("hb_font_get_glyph_h_advance", font, glyph),
      shape: (text, from, to, options) => {
        if (to - from < leastByWords) return this.shapeShort(font, short, text.slice(from, to), from, options)
        const known = byWords ? this.shapeWords(font, words, text, from, to, options) : null
        return known ?? this.shape(font, text, from, to, options)
      },
      release: () => {
        this.call("hb_font_destroy", font)
        this.call("hb_face_destroy", face)
        this.call("hb_blob_destroy", blob)
        this.call("free", at)
      },
      outline: (glyph) => {
        let path = outlines.get(glyph)
        if (path === undefined) outlines.set(glyph, (path = this.outline(font, glyph)))
        return path
      },
    }
  }

  /** The glyph of a character by itself; 0 where there is none. */
  private nominal(font: number, codePoint: number): number {
    const isThere = this.call("hb_font_get_nominal_glyph", font, codePoint, this.scratch) !== 0
    return isThere ? new DataView(this.memory.buffer).getUint32(this.scratch, true) : 0
  }

  private readMetrics(font: number, upem: number): FontMetrics {
    const read = (i: number) => new DataView(this.memory.buffer).getInt32(this.scratch + 4 * i, true)
    this.call("hb_font_get_h_extents", font, this.scratch)
    const [ascender, descender, lineGap] = [read(0), read(1), read(2)]
    const metric = (name: string) => {
      this.call("hb_ot_metrics_get_position_with_fallback", font, tag(name), this.scratch)
      return read(0)
    }
    const offsets = {
      superscript: { size: metric("spys"), offset: metric("spyo") },
      subscript: { size: metric("sbys"), offset: -metric("sbyo") },
    }
    return {
      upem,
      ascender,
      descender,
      lineGap,
      underlinePosition: metric("undo"),
      // A face may say nothing of it.
      underlineThickness: metric("unds") || Math.round(upem / 20),
      strikePosition: metric("stro"),
      strikeThickness: metric("strs") || Math.round(upem / 20),
      capHeight: metric("cpht"),
      xHeight: metric("xhgt"),
      ...offsets,
    }
  }

  /** Tags of the substitution features of a face. */
  private features(face: number): Set<string> {
    const most = 200
    const at = this.scratch + 8
    new DataView(this.memory.buffer).setUint32(this.scratch, most, true)
    this.call("hb_ot_layout_table_get_feature_tags", face, tag("GSUB"), 0, this.scratch, at)
    const view = new DataView(this.memory.buffer)
    const count = Math.min(most, view.getUint32(this.scratch, true))
    return new Set(
      Array.from({ length: count }, (_, i) =>
        [24, 16, 8, 0].map((shift) => String.fromCharCode((view.getUint32(at + 4 * i, true) >> shift) & 0xff)).join(""),
      ),
    )
  }

  /** Writes features as hb_feature_t into the scratch memory; returns how many. */
  private writeFeatures(features: readonly Feature[]): number {
    const view = new DataView(this.memory.buffer)
    features.forEach(([name, value], i) => {
      const at = this.scratch + 16 * i
      view.setUint32(at, tag(name), true)
      view.setUint32(at + 4, value, true)
      view.setUint32(at + 8, 0, true)
      view.setUint32(at + 12, 0xffffffff, true)
    })
    return features.length
  }

  /** A text that may have been shaped before. @param at where it stands */
  private shapeShort(
    font: number,
    known: Map<string, ShapedGlyphs>,
    text: string,
    at: number,
    options: ShapeOptions,
  ): ShapedGlyphs {
    const key = `${keyOf(options)} ${text}`
    let own = known.get(key)
    if (!own) {
      if (known.size >= mostShort) known.clear()
      known.set(key, (own = this.shape(font, text, 0, text.length, options)))
    }
    return at === 0 ? own : shifted(own, at)
  }

  /** Text in Latin letters from the words that were shaped before; null where it is no such text, or the face wants it as a whole. */
  private shapeWords(
    font: number,
    known: Map<string, ShapedWords>,
    text: string,
    from: number,
    to: number,
    options: ShapeOptions,
  ): ShapedGlyphs | null {
    if (options.rtl || !isLatin(text, from, to)) return null
    const key = keyOf(options)
    let words = known.get(key)
    if (!words || words.isFull) {
      const latin = { ...options, script: tag("Latn") }
      known.set(
        key,
        (words = new ShapedWords(
          (own, a, b) => this.shape(font, own, a, b, latin),
          new LetterPairs((code) => this.nominal(font, code)),
        )),
      )
    }
    return words.shape(text, from, to)
  }

  private shape(font: number, text: string, from: number, to: number, options: ShapeOptions): ShapedGlyphs {
    const length = to - from
    if (length > UTF16_BUFFER_UNITS) throw new RangeError("A run of text is too long to shape at once")
    const units = new Uint16Array(this.memory.buffer, this.textAt, length)
    for (let i = 0; i < length; i++) units[i] = text.charCodeAt(from + i)
    const { buffer } = this
    this.call("hb_buffer_clear_contents", buffer)
    this.call("hb_buffer_set_cluster_level", buffer, CLUSTER_LEVEL_MONOTONE_CHARACTERS)
    this.call("hb_buffer_add_utf16", buffer, this.textAt, length, 0, length)
    this.call("hb_buffer_set_language", buffer, this.language(options.language))
    this.call("hb_buffer_set_direction", buffer, options.rtl ? RTL : LTR)
    if (options.script) this.call("hb_buffer_set_script", buffer, options.script)
    else this.call("hb_buffer_guess_segment_properties", buffer)
    const features = options.features ? this.writeFeatures(options.features) : 0
    this.call("hb_shape", font, buffer, this.scratch, features)
    const count = this.call("hb_buffer_get_length", buffer)
    const infoAt = this.call("hb_buffer_get_glyph_infos", buffer, 0)
    const positionAt = this.call("hb_buffer_get_glyph_positions", buffer, 0)
    const words = new Int32Array(this.memory.buffer)
    const { ids, advances: narrow, unsafe } = newGlyphs(count)
    const counted = () => Uint32Array.from({ length: count }, (_, n) => n)
    let clusters: Uint32Array | null = count === length ? null : counted()
    let advances: Int16Array | Int32Array = narrow
    let offsets: Int32Array | null = null
    // hb_glyph_info_t and hb_glyph_position_t are five 32-bit words each.
    for (let i = 0, info = infoAt >> 2, position = positionAt >> 2; i < count; i++, info += 5, position += 5) {
      ids[i] = words[info] as number
      if ((words[info + 1] as number) & UNSAFE_TO_BREAK) setUnsafe(unsafe, i)
      const cluster = words[info + 2] as number
      if (clusters === null && cluster !== i) clusters = counted()
      if (clusters !== null) clusters[i] = cluster
      const advance = words[position] as number
      if (advance !== (advance << 16) >> 16 && advances instanceof Int16Array) advances = Int32Array.from(advances)
      advances[i] = advance
      const dx = words[position + 2] as number
      const dy = words[position + 3] as number
      if (dx !== 0 || dy !== 0) {
        offsets ??= new Int32Array(count * 2)
        offsets[2 * i] = dx
        offsets[2 * i + 1] = dy
      }
    }
    return { count, ids, first: from, clusters, advances, offsets, unsafe }
  }

  private outline(font: number, glyph: number): string {
    if (!this.drawing) {
      const path: string[] = []
      const funcs = this.call("hb_draw_funcs_create")
      const table = this.wasm.__indirect_function_table as unknown as WebAssembly.Table
      const add = (name: string, letter: string, numbers: number) => {
        // (funcs, data, state, …coordinates, user data)
        const call = (...args: number[]) =>
          void path.push(
            letter +
              args
                .slice(3, 3 + numbers)
                .map((n) => Math.round(n))
                .join(" "),
          )
        this.call(`hb_draw_funcs_set_${name}_func`, funcs, callable(table, 3, numbers, call), 0, 0)
      }
      add("move_to", "M", 2)
      add("line_to", "L", 2)
      add("quadratic_to", "Q", 4)
      add("cubic_to", "C", 6)
      add("close_path", "Z", 0)
      this.drawing = { funcs, path }
    }
    this.drawing.path.length = 0
    this.call("hb_font_draw_glyph", font, glyph, this.drawing.funcs, 0)
    return this.drawing.path.join("")
  }
}
