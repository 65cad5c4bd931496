/**
 * Hunspell by its C interface, as hunspell-asm builds it. That package's own functions make room for each word, and give it back: for
 * the words of a long document that is a third of the time.
 */
import start from "hunspell-asm/dist/cjs/lib/node/hunspell.js"

export interface DictionaryFiles {
  affixes: Uint8Array
  words: Uint8Array
}

/** A module of Emscripten, with the C interface of Hunspell (hunspell.h). */
export interface HunspellModule {
  /** Renewed where the memory grows. */
  readonly HEAPU8: Uint8Array
  readonly HEAP32: Int32Array
  readonly FS: { writeFile(path: string, bytes: Uint8Array): void; unlink(path: string): void }
  /** It passes for a promise, but is one that comes to itself without end. */
  then?: unknown
  _malloc(bytes: number): number
  UTF8ToString(at: number): string
  _Hunspell_create(affixPath: number, wordPath: number): number
  _Hunspell_spell(handle: number, word: number): number
  _Hunspell_suggest(handle: number, list: number, word: number): number
  _Hunspell_free_list(handle: number, list: number, count: number): void
}

/** Bytes of the longest word that is looked up; Hunspell takes none that is longer. */
const room = 400
/** Milliseconds after which a module that does not start is given up. */
const patience = 30_000

const encoder = new TextEncoder()

/** The module, once it can be called. */
export function startHunspell(): Promise<HunspellModule> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error("Hunspell did not start")), patience)
    const onAbort = (reason: unknown) => {
      clearTimeout(timer)
      reject(reason instanceof Error ? reason : new Error(String(reason)))
    }
    const onRuntimeInitialized = () => {
      clearTimeout(timer)
      delete module.then
      resolve(module)
    }
    const module = start({ onAbort, onRuntimeInitialized }) as HunspellModule
  })
}

export class Hunspell {
  private readonly handle: number
  private readonly word: number
  private readonly list: number

  /** @param name other than that of any dictionary that is open */
  constructor(
    private readonly module: HunspellModule,
    name: string,
    { affixes, words }: DictionaryFiles,
  ) {
    this.word = module._malloc(room)
    this.list = module._malloc(4)
    const paths = [["aff", affixes] as const, ["dic", words] as const].map(([ending, bytes]) => {
      const path = `/${name}.${ending}`
      module.FS.writeFile(path, bytes)
      return path
    }) as [string, string]
    const [first, second] = paths.map((path) => this.kept(path)) as [number, number]
    this.handle = module._Hunspell_create(first, second)
    for (const path of paths) module.FS.unlink(path)
  }

  /** A text in the module's memory, for good. */
  private kept(text: string): number {
    const at = this.module._malloc(text.length + 1)
    this.module.HEAPU8.set([...encoder.encode(text), 0], at)
    return at
  }

  /** Whether a word had room. */
  private write(word: string): boolean {
    const { word: at, module } = this
    const { length } = word
    const { HEAPU8 } = module
    if (length >= room) return false
    for (let i = 0; i < length; i++) {
      const code = word.charCodeAt(i)
      if (code > 127) return this.encode(word)
      HEAPU8[at + i] = code
    }
    HEAPU8[at + length] = 0
    return true
  }

  private encode(word: string): boolean {
    const bytes = encoder.encode(word.normalize())
    if (bytes.length >= room) return false
    this.module.HEAPU8.set(bytes, this.word)
    this.module.HEAPU8[this.word + bytes.length] = 0
    return true
  }

  /** Whether a word is in the dictionary. */
  spell(word: string): boolean {
    return this.write(word) && this.module._Hunspell_spell(this.handle, this.word) !== 0
  }

  /** What could be meant by a word that is not. */
  suggest(word: string): string[] {
    const { module, list } = this
    if (!this.write(word)) return []
    const count = module._Hunspell_suggest(this.handle, list, this.word)
    const at = module.HEAP32[list >> 2]! >> 2
    const found = Array.from({ length: count }, (_, i) => module.UTF8ToString(module.HEAP32[at + i]!))
    module._Hunspell_free_list(this.handle, list, count)
    return found
  }
}
