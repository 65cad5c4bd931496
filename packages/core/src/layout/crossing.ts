/** Paragraphs on their way to another thread: plain data, of which the glyphs of long runs cross but once. */
import { madeGlyphs, type ShapedGlyphs } from "./fonts/glyphs"
import { packedLines, unpack, Unlined, type PackedLines, type WithoutLines } from "./packing"
import type { Line, ParagraphLayout, ShapedRun } from "./types"

/** A run of a paragraph that the other thread holds. */
interface Place {
  paragraph: number
  run: number
}

/** A run for another thread, with its glyphs or the place where that has them. */
type SentRun = Omit<ShapedRun, "glyphs"> & { glyphs: ShapedGlyphs | { first: number; held: Place } }

/** A paragraph for another thread, with its lines as numbers, which cross in one piece. */
export type SentParagraph = WithoutLines & {
  packed: Omit<PackedLines, "runs"> & { runs: readonly SentRun[] }
}

/** Runs of so many glyphs cross once: they are what a long paragraph weighs, most of it unchanged with each letter. */
const longRun = 2000

/** Knows which glyphs the other thread holds. */
export class HeldGlyphs {
  private readonly places = new WeakMap<ShapedGlyphs["advances"], { glyphs: ShapedGlyphs; place: Place }>()

  /** @param isHeld whether the other thread holds a paragraph */
  constructor(private readonly isHeld: (paragraph: number) => boolean) {}

  /** Where the other thread has the same glyphs; from now on it has them in a place. */
  placed(glyphs: ShapedGlyphs, place: Place): Place | null {
    if (glyphs.count < longRun) return null
    const known = this.places.get(glyphs.advances)
    this.places.set(glyphs.advances, { glyphs, place })
    if (!known || !this.isHeld(known.place.paragraph)) return null
    const { ids, clusters, offsets, unsafe } = known.glyphs
    const isSame =
      ids === glyphs.ids && clusters === glyphs.clusters && offsets === glyphs.offsets && unsafe === glyphs.unsafe
    return isSame ? known.place : null
  }
}

/** @param held what the other thread has of paragraphs that were sent before */
export function sentParagraph(own: ParagraphLayout, held: HeldGlyphs | null = null): SentParagraph {
  const { id, text, style, format, label, outline, anchors, height, floats } = own
  const { numbers, runs, tabs } = packedLines(own)
  const sent = ({ glyphs, ...run }: ShapedRun, i: number): SentRun => {
    const place = held?.placed(glyphs, { paragraph: id, run: i })
    return { glyphs: place ? { first: glyphs.first, held: place } : madeGlyphs(glyphs), ...run }
  }
  const packed = { numbers: new Float64Array(numbers), runs: runs.map(sent), tabs }
  return { id, text, style, format, label, outline, anchors, height, floats, packed }
}

/** A paragraph that came from another thread: its lines are made when they are first asked for. */
class ReceivedParagraph extends Unlined implements ParagraphLayout {
  readonly #packed: PackedLines
  #lines: Line[] | null = null

  constructor(sent: SentParagraph, paragraphOf: (id: number) => ParagraphLayout | undefined) {
    super(sent)
    const received = (run: SentRun): ShapedRun => {
      const { glyphs } = run
      if (!("held" in glyphs)) return run as ShapedRun
      const from = paragraphOf(glyphs.held.paragraph)
      const known = from instanceof ReceivedParagraph ? from.#packed.runs[glyphs.held.run] : undefined
      if (!known) throw new Error("A paragraph refers to glyphs that are not here")
      return { ...run, glyphs: { ...known.glyphs, first: glyphs.first } }
    }
    this.#packed = { ...sent.packed, runs: sent.packed.runs.map(received) }
  }

  get lines(): Line[] {
    return (this.#lines ??= unpack(this.#packed))
  }
}

/** @param paragraphOf those that came before and are still held */
export function receivedParagraph(
  sent: SentParagraph,
  paragraphOf: (id: number) => ParagraphLayout | undefined = () => undefined,
): ParagraphLayout {
  return new ReceivedParagraph(sent, paragraphOf)
}
