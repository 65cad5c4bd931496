/** Whatever is done to a document of all kinds, what is composed from what was there before is what is composed from nothing. */
import fc from "fast-check"
import { EditorState } from "prosemirror-state"
import { defaultProperties, document, letters, nodes, p, paragraph, table } from "../src/document"
import * as editing from "../src/editing"
import { Composition, fragmentsOf, type Layout, type LayoutSpec } from "../src/layout"
import { typesetter } from "../node/typesetting"
import { acted, anyAct } from "./anyCommand"
import { after } from "./telling"

const sentence = "The chain ferry crosses at slack water and rests when the tide runs hard. "
const item = (run: string, level: number) =>
  paragraph("list", [sentence], { list: { definition: "numbers", run, level } })
const part = (n: number) => [
  paragraph(n % 3 === 2 ? "heading2" : "heading1", [`Part ${n}`]),
  p(sentence.repeat(4), letters("Slack water. ", { bold: true }), sentence),
  item(`run ${n}`, 0),
  item(`run ${n}`, 1),
  table([
    [[p("Action")], [p("Who")]],
    [[p(sentence), item("inside", 0)], [p("Imre")]],
  ]),
  paragraph("quotation", [sentence], { borders: {}, shading: "#dcebe0" }),
]
const blocks = [
  nodes.contents.create({ levels: 2, look: "dotted" }),
  ...part(0),
  ...part(1),
  nodes.sectionBreak.create({ begins: "sheet" }),
  ...part(2),
  ...part(3),
]
const properties = { ...defaultProperties, title: "Tides and timetables", author: "Nell Caddow" }
const begun = after(
  EditorState.create({ doc: document(blocks, { properties }) }),
  editing.fillEdge("head", "{title}||{heading}"),
  editing.placeNumbers({ edge: "foot", part: 1 }, "%1 of %2"),
  editing.setCover("pier"),
)

const specs: readonly LayoutSpec[] = [{ mode: "sheets" }, { mode: "flow", width: 283, margin: 16 }]

/** What stands where. Flow is one long page: where it is cut into strips is not seen. */
function seen({ placed, spec }: Layout): string[] {
  const flow = spec.mode === "flow"
  let down = 0
  return placed.flatMap((own, sheet) => {
    const top = down
    if (flow) down += own.sheet.height
    return fragmentsOf(own).flatMap(({ part, x, y, from, to, paragraph: { text, lines } }) =>
      lines.slice(from, to).map((line) => {
        const place = [x + line.x, top + y + line.top - lines[from]!.top].map((n) => n.toFixed(1))
        return `${flow ? "" : sheet} ${part} ${place.join()} ${text.slice(line.from, line.to)}`
      }),
    )
  })
}

test("after any commands, done by halves or not, sheets and flow are as if they were composed anew", () => {
  const act = fc.tuple(anyAct(3000), fc.nat(9))
  fc.assert(
    fc.property(fc.array(act, { minLength: 1, maxLength: 8 }), (acts) => {
      const compose = (spec: LayoutSpec, doc = begun.doc, before: Layout | null = null, steps = Infinity) => {
        const composition = new Composition(typesetter(), doc, spec, before)
        for (let n = 0; n < steps && !composition.step(); n++);
        return composition.layout
      }
      const layouts = specs.map((spec) => compose(spec))
      let { doc } = begun
      let state = begun
      for (const [own, steps] of acts) {
        state = acted(state, own).state
        if (state.doc === doc) continue
        doc = state.doc
        specs.forEach((spec, i) => {
          // Now and then the next change comes before all is laid out.
          const layout = (layouts[i] = compose(spec, doc, layouts[i], steps < 3 ? steps : Infinity))
          if (layout.complete) expect(seen(layout)).toEqual(seen(compose(spec, doc)))
        })
      }
    }),
    { numRuns: Number(process.env.BIBLON_RUNS ?? 25) },
  )
})
