/** What is painted over what was there before, held against what is painted from nothing. */
import "./page"
import fc from "fast-check"
import type { Node } from "prosemirror-model"
import { document as makeDocument, letters, p, paragraph, table, valuesNow } from "@biblon/core/document"
import { fragmentsOf, layoutDocument, Typesetter, type Layout, type LayoutSpec } from "@biblon/core/layout"
import { openFonts } from "@biblon/core/node"
import { PaintedSheet } from "../src/desk/view/painter"

const typesetter = new Typesetter(openFonts(), null, valuesNow)

const words = fc
  .tuple(fc.constantFrom("The ferry waits. ", "Tide, ", "שלום ", ""), fc.integer({ min: 1, max: 9 }))
  .map(([own, times]) => own.repeat(times))
const marks = fc.constantFrom({}, { bold: true }, { highlight: "#f5e6a8" }, { underline: "wavy" as const })
const inParagraph = fc.array(
  fc.tuple(words, marks).map(([own, look]) => (own === "" ? "" : letters(own, look))),
  { maxLength: 3 },
)
const looks = fc.constantFrom(
  null,
  { shading: "#dcebe0" },
  { dropCap: { lines: 3, distance: 6, family: null } },
  { borders: { left: { pattern: "dotted" as const, width: 1, colour: "#7a1f4b", distance: 4 } } },
  { list: { definition: "bullets", run: "a", level: 0 } },
  { list: { definition: "numbers", run: "b", level: 1 } },
  { breakBefore: true },
)
const text = fc.tuple(fc.constantFrom("body", "body", "heading1"), inParagraph, looks).map(([style, inside, look]) =>
  paragraph(
    style,
    inside.filter((own) => own !== ""),
    look,
  ),
)
const cell = fc.array(text, { minLength: 1, maxLength: 2 })
const tables = fc
  .array(fc.tuple(cell, cell), { minLength: 1, maxLength: 3 })
  .chain((rows) => fc.tuple(fc.constant(rows), fc.option(fc.tuple(cell, cell))))
  .map(([rows, inner]) => table(inner ? [...rows, [[p("x"), table([inner])], [p("y")]]] : rows))
const block = fc.oneof({ weight: 4, arbitrary: text }, tables)

/** Texts that follow on one another: each has some blocks of the one before. */
const texts = fc
  .tuple(
    fc.array(block, { minLength: 1, maxLength: 9 }),
    fc.array(fc.tuple(fc.nat(9), fc.nat(3), fc.array(block, { maxLength: 2 })), { minLength: 1, maxLength: 4 }),
  )
  .map(([first, changes]) => {
    const all = [first]
    for (const [at, gone, put] of changes) {
      const next = [...(all.at(-1) as Node[])]
      next.splice(at, gone, ...put)
      all.push(next.length > 0 ? next : [p("")])
    }
    return all.map((blocks) => makeDocument(blocks))
  })

test.each<[string, LayoutSpec]>([
  ["sheets", { mode: "sheets" }],
  ["flow", { mode: "flow", width: 260, margin: 12 }],
])("%s look the same, whatever they showed before and however little was painted at a time", (_, spec) => {
  fc.assert(
    fc.property(texts, fc.array(fc.nat(6), { minLength: 1, maxLength: 6 }), fc.boolean(), (docs, rooms, signs) => {
      const painted = new PaintedSheet()
      let layout: Layout | null = null
      for (const [n, doc] of docs.entries()) {
        layout = layoutDocument(typesetter, doc, spec, layout)
        for (const [i, placed] of layout.placed.entries()) {
          const withSigns = signs && (n + i) % 2 === 0
          painted.paint(placed, withSigns, { lines: rooms[(n + i) % rooms.length] as number })
          // What is done is done at once the next time.
          if ((n + i) % 3 > 0) continue
          expect(painted.paint(placed, withSigns)).toBe(true)
          const fresh = new PaintedSheet()
          fresh.paint(placed, withSigns)
          expect(painted.element.innerHTML).toBe(fresh.element.innerHTML)
          expect(painted.element.querySelectorAll(".text .block").length).toBe(fragmentsOf(placed).length)
        }
      }
    }),
    { numRuns: 40 },
  )
})
