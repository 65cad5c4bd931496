import fc from "fast-check"
import type { Node } from "prosemirror-model"
import {
  defaultSetup,
  defaultStyles,
  document,
  documentAttrs,
  leavesOf,
  letters,
  MM,
  p,
  paragraph,
  type ParagraphFormat,
} from "../src/document"
import {
  fragmentsOf,
  caretBox,
  caretEdges,
  Composition,
  hit,
  layoutDocument,
  lineEndOffset,
  lineOfOffset,
  rangeBoxes,
  type Layout,
  type LayoutSpec,
  type Line,
} from "../src/layout"
import { lineBreaks } from "../src/layout/breaking"
import { typesetter } from "../node/typesetting"
import { shown } from "./telling"

const lay = (doc: Node, spec: LayoutSpec = { mode: "sheets" }, previous: Layout | null = null) =>
  layoutDocument(typesetter(), doc, spec, previous)
const firstParagraph = (doc: Node) => lay(doc).placed.slice(0, 1).flatMap(fragmentsOf)[0]!.paragraph
const lineTexts = (doc: Node) => {
  const { lines, text } = firstParagraph(doc)
  return lines.map((line) => text.slice(line.from, line.to))
}
const sentence =
  "The Trust has now completed the survey of the east slipway and writes to apply for the mooring rights. "
const measure = defaultSetup.width - 50 * MM

describe("lines", () => {
  test("break between words, as late as they fit", () => {
    const lines = firstParagraph(document([p(sentence.repeat(3))])).lines
    expect(lines.length).toBeGreaterThan(2)
    for (const line of lines) expect(line.width).toBeLessThanOrEqual(measure)
    expect(
      lineTexts(document([p(sentence.repeat(3))])).every((text, i, all) => i === all.length - 1 || text.endsWith(" ")),
    ).toBe(true)
  })

  test("a word wider than the line is divided between characters", () => {
    const lines = lineTexts(document([p("👩‍🚀".repeat(60))]))
    expect(lines.length).toBeGreaterThan(1)
    for (const line of lines) expect(line.length % "👩‍🚀".length).toBe(0)
  })

  test("end at line breaks, and after one at the end there is one more", () => {
    const doc = document([paragraph("body", [letters("a", {}), "b"])])
    expect(lineTexts(doc)).toEqual(["ab"])
    const broken = document([paragraph("body", [p("x").child(0), doc.type.schema.nodes.lineBreak!.create()])])
    expect(lineTexts(broken)).toEqual(["x\n", ""])
  })

  test("justified ones fill the measure, except the last and those before a line break", () => {
    const lines = firstParagraph(document([paragraph("body", [sentence.repeat(3)], { align: "justify" })])).lines
    for (const line of lines.slice(0, -1)) expect(line.x + line.width).toBeCloseTo(measure, 6)
    expect(lines.at(-1)!.width).toBeLessThan(measure)
  })

  test("stand left, right or in the middle, within the indents", () => {
    const line = (format: Partial<ParagraphFormat>) =>
      firstParagraph(document([paragraph("body", ["Toll House"], format)])).lines[0] as Line
    const width = line({}).width
    expect(line({ align: "right", indentRight: 20 }).x).toBeCloseTo(measure - 20 - width, 6)
    expect(line({ align: "center" }).x).toBeCloseTo((measure - width) / 2, 6)
    expect(line({ indentLeft: 30, indentFirst: -10 }).x).toBe(20)
  })

  test("are as high as their typeface and spacing ask", () => {
    const height = (lineSpacing: ParagraphFormat["lineSpacing"]) =>
      firstParagraph(document([paragraph("body", ["x"], { lineSpacing })])).lines[0]!.height
    const single = height({ rule: "multiple", value: 1 })
    expect(single).toBeCloseTo((12 * (1825 + 443 + 87)) / 2048, 6)
    expect(height({ rule: "multiple", value: 2 })).toBeCloseTo(single * 2, 6)
    expect(height({ rule: "exact", value: 10 })).toBe(10)
    expect(height({ rule: "atLeast", value: 5 })).toBeCloseTo(single, 6)
    expect(height({ rule: "atLeast", value: 50 })).toBe(50)
  })

  test("emoji and other scripts come from fallback faces and leave the line's height alone", () => {
    const plain = firstParagraph(document([p("ferry")])).lines[0]!
    const mixed = firstParagraph(document([p("ferry 😀 ∑ Ωμέγα Привет")])).lines[0]!
    expect(mixed.height).toBe(plain.height)
    expect(mixed.runs.map((r) => r.run.face)).toContain("NotoEmoji-regular")
    for (const { run } of mixed.runs) expect([...run.glyphs.ids]).not.toContain(0)
  })

  test("tabs lead to the next stop", () => {
    const paragraph = firstParagraph(document([p("a\tb\tc")]))
    const { leading } = caretEdges(paragraph, paragraph.lines[0]!)
    expect([leading[2], leading[4]]).toEqual([36, 72])
  })

  test("every line is what shaping its own text alone gives", () => {
    const doc = document([p("AVATAR To We office. ".repeat(30))])
    const { lines, text } = firstParagraph(doc)
    for (const line of lines.slice(0, -1)) {
      const alone = firstParagraph(document([p(text.slice(line.from, line.to))])).lines[0]!
      expect(line.width).toBeCloseTo(alone.width, 4)
    }
  })

  test("break opportunities follow Annex 14", () => {
    const parts = (text: string) => lineBreaks(text).offsets.map((end, i, all) => text.slice(all[i - 1] ?? 0, end))
    expect(parts("well-kept desk, 1,000 (one)")).toEqual(["well-", "kept ", "desk, ", "1,000 ", "(one)"])
    expect(parts("no\u00a0break here")).toEqual(["no\u00a0break ", "here"])
  })
})

describe("sheets", () => {
  const lineCount = (n: number, format: Partial<ParagraphFormat> = {}) =>
    paragraph("body", [Array(n).fill("M".repeat(36)).join(" ")], {
      spaceAfter: 0,
      lineSpacing: { rule: "exact", value: 20 },
      ...format,
    })
  // 247 mm of text area hold 35 lines of 20 pt.
  const perSheet = Math.floor((247 * MM) / 20)
  const split = (doc: Node) => lay(doc).placed.map((own) => fragmentsOf(own).map((f) => f.to - f.from))

  test("fill with lines and go on on the next", () => {
    expect(split(document([lineCount(perSheet + 5)]))).toEqual([[perSheet], [5]])
  })

  test("never leave one line of a paragraph alone at the head or the foot", () => {
    expect(split(document([lineCount(perSheet + 1)]))).toEqual([[perSheet - 1], [2]])
    expect(split(document([lineCount(perSheet - 1), lineCount(4)]))).toEqual([[perSheet - 1], [4]])
    expect(split(document([lineCount(perSheet - 2), lineCount(3)]))).toEqual([[perSheet - 2], [3]])
    expect(split(document([lineCount(perSheet - 1), lineCount(4, { orphans: 1 })]))).toEqual([[perSheet - 1, 1], [3]])
  })

  test("keep headings with what follows, a chain of them too, and paragraphs together that ask for it", () => {
    const keep = (n: number) => lineCount(n, { keepNext: true })
    expect(split(document([lineCount(perSheet - 2), keep(1), lineCount(4)]))).toEqual([[perSheet - 2], [1, 4]])
    expect(split(document([lineCount(perSheet - 3), keep(1), keep(1), lineCount(4)]))).toEqual([
      [perSheet - 3],
      [1, 1, 4],
    ])
    expect(split(document([lineCount(perSheet - 3), lineCount(6, { keepTogether: true })]))).toEqual([
      [perSheet - 3],
      [6],
    ])
    expect(split(document([lineCount(perSheet + 3, { keepTogether: true })]))).toEqual([[perSheet], [3]])
  })

  test("begin anew before a paragraph that asks for it, and drop space at their head but not at the document's", () => {
    expect(split(document([p("a"), lineCount(1, { breakBefore: true })]))).toEqual([[1], [1]])
    const [first, second] = lay(
      document([lineCount(1, { spaceBefore: 30 }), lineCount(1, { spaceBefore: 30, breakBefore: true })]),
    ).placed
    expect(fragmentsOf(first!)[0]!.y).toBeCloseTo(25 * MM + 30)
    expect(fragmentsOf(second!)[0]!.y).toBeCloseTo(25 * MM)
  })

  test("in flow, strips follow each other and hold every line once", () => {
    const doc = document(Array.from({ length: 80 }, () => p(sentence.repeat(3))))
    const { placed } = lay(doc, { mode: "flow", width: 260, margin: 12 })
    expect(placed.length).toBeGreaterThan(3)
    expect(placed.flatMap((own) => fragmentsOf(own)).length).toBe(80)
    for (const own of placed)
      for (const f of fragmentsOf(own)) expect(f.paragraph.lines.every((l) => l.x + l.width <= 236)).toBe(true)
  })

  test("in flow, the wide spaces of a sheet do not fill the screen", () => {
    const doc = document([p("Tides"), paragraph("body", ["far down"], { spaceBefore: 400 })])
    const gap = (spec: LayoutSpec) => {
      const [first, second] = lay(doc, spec).placed.flatMap((own) => fragmentsOf(own))
      return second!.y - first!.y
    }
    expect(gap({ mode: "sheets" })).toBeGreaterThan(400)
    expect(gap({ mode: "flow", width: 260, margin: 12 })).toBeLessThan(90)
  })
})

describe("layout after a change", () => {
  const long = (n: number, text = sentence) => p(text.repeat(n))

  test("keeps the identity of every sheet that a keystroke does not touch", () => {
    const blocks = Array.from({ length: 300 }, (_, i) => long(1 + (i % 5)))
    const before = lay(document(blocks))
    blocks[150] = p("x" + leavesOf(before.doc).node(150).textContent)
    const now = lay(document(blocks), { mode: "sheets" }, before)
    const kept = now.placed.filter(({ sheet }) => before.placed.some((old) => old.sheet === sheet)).length
    expect(kept).toBeGreaterThanOrEqual(now.placed.length - 2)
  })

  test("stopped half way it can go on, and shows the sheets of before until then", () => {
    const blocks = Array.from({ length: 200 }, (_, i) => long(1 + (i % 5)))
    const before = lay(document(blocks))
    const changed = document([long(9), ...blocks])
    const composition = new Composition(typesetter(), changed, { mode: "sheets" }, before)
    composition.step()
    const half = composition.layout
    expect(half.settled).toBe(1)
    expect(Math.abs(half.placed.length - before.placed.length)).toBeLessThanOrEqual(2)
    const again = document([long(9), ...blocks.slice(0, 120), p("Here too."), ...blocks.slice(120)])
    expect(shown(lay(again, { mode: "sheets" }, half))).toEqual(shown(lay(again)))
  })

  test("comes to its end though it is given up for a letter again and again", () => {
    const blocks = Array.from({ length: 400 }, (_, i) => long(1 + (i % 5)))
    let layout = lay(document(blocks))
    const settled: number[] = []
    for (let i = 1; !layout.complete || i === 1; i++) {
      // The first letter makes a line more, so that all that follows moves; those behind it change nothing else.
      const doc = document([long(3), p(`${"ferry ".repeat(12)}${"e".repeat(i)}`), ...blocks])
      const composition = new Composition(typesetter(), doc, { mode: "sheets" }, layout)
      for (let n = 0; n < 5 && !composition.step(); n++);
      layout = composition.layout
      settled.push(layout.settled)
      expect(settled.length).toBeLessThan(layout.placed.length / 3)
    }
    expect(settled).toEqual([...settled].sort((a, b) => a - b))
    expect(settled.length).toBeGreaterThan(3)
    expect(shown(layout)).toEqual(shown(lay(layout.doc)))
  })

  test("equals a layout from nothing, whatever was changed", () => {
    const edit = fc.record({
      at: fc.nat(1000),
      remove: fc.nat(3),
      insert: fc.array(
        fc.record({ n: fc.nat(6), style: fc.constantFrom("body", "heading1", "quotation"), breakBefore: fc.boolean() }),
        { maxLength: 3 },
      ),
      steps: fc.oneof(fc.nat(12), fc.constant(Infinity)),
    })
    fc.assert(
      fc.property(fc.array(edit, { minLength: 1, maxLength: 6 }), (edits) => {
        let blocks = Array.from({ length: 40 }, (_, i) =>
          i % 7 === 0 ? paragraph("heading1", ["Part"]) : long(1 + (i % 4)),
        )
        let layout: Layout | null = lay(document(blocks))
        for (const { at, remove, insert, steps } of edits) {
          const from = at % (blocks.length + 1)
          const added = insert.map(({ n, style, breakBefore }) =>
            paragraph(style, [sentence.repeat(n)], breakBefore && n === 0 ? { breakBefore } : null),
          )
          blocks = [...blocks.slice(0, from), ...added, ...blocks.slice(from + remove)]
          const doc = document(blocks)
          const composition: Composition = new Composition(typesetter(), doc, { mode: "sheets" }, layout)
          for (let n = 0; n < steps && !composition.step(); n++);
          layout = composition.layout
          if (layout.complete) expect(shown(layout)).toEqual(shown(lay(doc)))
        }
        const doc = document(blocks)
        expect(shown(lay(doc, { mode: "sheets" }, layout))).toEqual(shown(lay(doc)))
      }),
      { numRuns: 60 },
    )
  })

  describe("after a change of the whole document", () => {
    const body = defaultStyles.styles.body!
    const sized = (size: number) => ({
      ...defaultStyles,
      styles: { ...defaultStyles.styles, body: { ...body, letters: { size } } },
    })
    const sizes = (layout: Layout, from: number, to: number) =>
      new Set(
        layout.placed
          .slice(from, to)
          .flatMap((placed) =>
            fragmentsOf(placed).flatMap(({ paragraph: own }) =>
              own.lines.flatMap(({ runs }) => runs.map(({ run }) => run.look.size)),
            ),
          ),
      )
    const blocks = Array.from({ length: 400 }, (_, i) => long(2 + (i % 5)))
    const before = lay(document(blocks))

    test("the sheets in sight show it at once, far down and before those above them; in the end all is as from nothing", () => {
      const doc = document(blocks, { styles: sized(15) })
      const composition = new Composition(typesetter(), doc, { mode: "sheets" }, before)
      const middle = Math.floor(before.placed.length / 2)
      const sight = { from: middle, to: middle + 3 }
      expect(composition.look(sight)).toBe(true)
      expect([sizes(composition.layout, middle, middle + 3), sizes(composition.layout, middle - 4, middle)]).toEqual([
        new Set([15]),
        new Set([12]),
      ])
      // What is seen begins with the same words; nothing before it is gone.
      expect(composition.layout.placed[middle]!.leaf).toBe(before.placed[middle]!.leaf)
      expect(composition.settled).toBe(0)
      const seen = composition.layout.placed[middle]!.sheet
      expect(composition.look(sight) && composition.layout.placed[middle]!.sheet).toBe(seen)
      for (let i = 0; i < 5; i++) composition.step()
      // Those above now take more sheets; the one in sight has moved down and is the same.
      expect(composition.layout.placed.findIndex(({ sheet }) => sheet === seen)).toBeGreaterThan(middle)
      while (!composition.step());
      expect(shown(composition.layout)).toEqual(shown(lay(doc)))
    })

    test("a document that is not laid out yet has to be composed in turn", () => {
      const composition = new Composition(typesetter(), document(blocks), { mode: "sheets" })
      expect(composition.look({ from: 0, to: 2 })).toBe(false)
      composition.step()
      composition.step()
      expect(composition.look({ from: 0, to: 2 })).toBe(true)
    })

    test("blocks stay in order, whatever is changed, looked at and done by halves", () => {
      const act = fc.record({
        size: fc.constantFrom(9, 12, 20),
        sight: fc.nat(80),
        steps: fc.nat(12),
        at: fc.nat(400),
        remove: fc.nat(3),
        add: fc.nat(2),
      })
      fc.assert(
        fc.property(
          fc.array(act, { minLength: 1, maxLength: 5 }),
          fc.constantFrom<LayoutSpec>({ mode: "sheets" }, { mode: "flow", width: 300, margin: 12 }),
          (acts, spec) => {
            let own = blocks.slice(0, 120)
            let layout: Layout = lay(document(own), spec)
            for (const { size, sight, steps, at, remove, add } of acts) {
              const from = at % (own.length - remove)
              own = [...own.slice(0, from), ...Array.from({ length: add }, () => p("new")), ...own.slice(from + remove)]
              const doc = document(own, { styles: sized(size) })
              const composition = new Composition(typesetter(), doc, spec, layout)
              const looked = composition.look({ from: sight, to: sight + 3 })
              if (looked && composition.settled === 0 && sight < composition.layout.placed.length)
                expect(sizes(composition.layout, sight, sight + 3)).toEqual(new Set([size]))
              for (let i = 0; i < steps && !composition.step(); i++);
              layout = composition.layout
              const starts = layout.placed.map(({ leaf }) => leaf)
              expect(starts).toEqual([...starts].sort((a, b) => a - b))
              expect(starts.at(-1)).toBeLessThan(own.length)
            }
            const last = document(own, { styles: documentAttrs(layout.doc).styles })
            expect(shown(lay(last, spec, layout))).toEqual(shown(lay(last, spec)))
          },
        ),
        { numRuns: 40 },
      )
    })
  })

  test("follows the style sheet and the page", () => {
    const blocks = [long(4), long(4)]
    const before = lay(document(blocks))
    const body = defaultStyles.styles.body!
    const large = { ...defaultStyles, styles: { ...defaultStyles.styles, body: { ...body, letters: { size: 24 } } } }
    for (const attrs of [{ styles: large }, { setup: { ...defaultSetup, width: 300 } }]) {
      const doc = document(blocks, attrs)
      expect(shown(lay(doc, { mode: "sheets" }, before))).toEqual(shown(lay(doc)))
      expect(shown(lay(doc))).not.toEqual(shown(before))
    }
  })
})

describe("places", () => {
  const doc = document([paragraph("body", [sentence.repeat(4)], { align: "justify" }), p(), p("office fi")])
  const sheet = lay(doc).placed[0]!

  test("a caret's box and what lies there are one another's inverse", () => {
    for (const fragment of fragmentsOf(sheet))
      for (let offset = 0; offset <= fragment.paragraph.text.length; offset++) {
        const box = caretBox(fragment, offset)!
        const found = hit(sheet, box.x, box.y + box.height / 2)!
        const line = fragment.paragraph.lines[lineOfOffset(fragment.paragraph, offset)]!
        // The place behind the space that hangs at a line's end is the start of the next line.
        expect([found.leaf, found.offset]).toEqual([fragment.leaf, Math.min(offset, Math.max(line.from, offset))])
      }
  })

  test("carets go forward along a line, and inside ligatures", () => {
    for (const fragment of fragmentsOf(sheet))
      for (const line of fragment.paragraph.lines) {
        const edges = [...caretEdges(fragment.paragraph, line).leading]
        expect(edges).toEqual([...edges].sort((a, b) => a - b))
      }
  })

  test("the end of a line is before the space that hangs there", () => {
    const { paragraph: long } = fragmentsOf(sheet)[0]!
    const end = lineEndOffset(long, 0)
    expect(long.text[end]).toBe(" ")
    expect(lineOfOffset(long, end)).toBe(0)
    expect(lineOfOffset(long, long.lines[0]!.to)).toBe(1)
    expect(lineOfOffset(long, long.lines[0]!.to, -1)).toBe(0)
  })

  test("a selection covers its lines, and the mark of a paragraph's end where it goes through", () => {
    const [first, empty] = fragmentsOf(sheet)
    expect(rangeBoxes(first!, 0, first!.paragraph.text.length, true).length).toBe(first!.paragraph.lines.length)
    expect(rangeBoxes(empty!, 0, 0, false)).toEqual([])
    expect(rangeBoxes(empty!, 0, 0, true)[0]!.width).toBeGreaterThan(0)
  })

  test("points beside the text mean the nearest line", () => {
    expect(hit(sheet, 0, 0)).toEqual({ leaf: 0, offset: 0, bias: 1 })
    expect(hit(sheet, 9999, 9999)).toEqual({ leaf: 2, offset: 9, bias: 1 })
  })
})
