import fc from "fast-check"
import type { Node } from "prosemirror-model"
import {
  blocksOf,
  changedLeaves,
  defaultSetup,
  document,
  leavesOf,
  nodes,
  nodesBetween,
  p,
  paragraph,
  table,
  tableLooks,
  textOf,
} from "../src/document"
import { checkDocument } from "../src/document/reading"
import { formats } from "../src/formats/table"
import { Composition, fragmentsOf, layoutDocument, turnedBox, type Layout, type LayoutSpec } from "../src/layout"
import { typesetter } from "../node/typesetting"
import { shown } from "./telling"

const words = "The ferry crosses the estuary on the falling tide. "
const text = fc
  .tuple(fc.nat(40), fc.nat(9))
  .map(([n, long]) => p(long === 0 ? `${n} ${words.repeat(30)}` : `${n} ${words.repeat(long % 4)}`))
const framed = fc
  .nat(9)
  .map((n) => paragraph("body", [`framed ${n}`], { shading: "#f4e4eb", ...(n % 2 ? { keepNext: true } : {}) }))
const sectionBreak = fc
  .constantFrom(
    defaultSetup,
    { ...defaultSetup, width: defaultSetup.height, height: defaultSetup.width },
    { ...defaultSetup, height: 300 },
  )
  .map((setup) => nodes.sectionBreak.create({ setup }))

const { blocks } = fc.letrec<{ blocks: Node[]; block: Node; table: Node }>((tie) => ({
  blocks: fc.array(tie("block"), { minLength: 1, maxLength: 3 }),
  block: fc.oneof({ maxDepth: 2, withCrossShrink: true }, text, text, framed, tie("table")),
  table: fc
    .tuple(
      fc.array(
        fc.array(
          fc.record({
            blocks: tie("blocks"),
            colspan: fc.integer({ min: 1, max: 2 }),
            rowspan: fc.constantFrom(1, 1, 1, 2, 4),
            format: fc.constantFrom(
              null,
              null,
              null,
              { reading: "up" as const },
              { reading: "down" as const, vertical: "middle" as const },
            ),
          }),
          { minLength: 1, maxLength: 2 },
        ),
        { minLength: 1, maxLength: 4 },
      ),
      fc.option(
        fc.record({
          headRows: fc.nat(2),
          divides: fc.boolean(),
          look: fc.constantFrom(...tableLooks),
          totalRow: fc.boolean(),
          columns: fc.constantFrom<number[] | null>(null, [30], [90, 300, 20, 900]),
        }),
      ),
    )
    .map(([rows, format]) => table(rows, format)),
}))
const body = fc
  .array(fc.oneof({ arbitrary: blocks, weight: 5 }, { arbitrary: sectionBreak.map((own) => [own]), weight: 1 }), {
    minLength: 1,
    maxLength: 5,
  })
  .map((parts) => [...parts.flat(), p("last")])
const stories = fc
  .array(blocks, { maxLength: 3 })
  .map((all) => all.map((own, i) => nodes.story.create({ key: `s${i}`, kind: "note" }, own)))
const documents = fc.tuple(body, stories).map(([own, beside]) => document(own, {}, beside))

/** The leaves as a plain walk finds them. */
function walked(doc: Node): { node: Node; start: number; flow: Node }[] {
  const found: { node: Node; start: number; flow: Node }[] = []
  doc.descendants((node, pos) => {
    if (!node.isTextblock) return true
    const $pos = doc.resolve(pos)
    let depth = $pos.depth
    while (!["body", "cell", "story"].includes($pos.node(depth).type.name)) depth--
    found.push({ node, start: pos + 1, flow: $pos.node(depth) })
    return false
  })
  return found
}

test("a stretch is gone through as by a plain walk, wherever it begins and ends and whatever is passed over", () => {
  fc.assert(
    fc.property(documents, fc.nat(), fc.nat(), fc.nat(3), (doc, a, b, passed) => {
      const [from, to] = [a, b].map((own) => own % (doc.content.size + 1)).sort((x, y) => x - y) as [number, number]
      const said = (walk: (visit: (node: Node, pos: number, parent: Node | null) => boolean) => void) => {
        const found: unknown[] = []
        walk((node, pos, parent) => {
          found.push(node, pos, parent)
          return node.isTextblock ? passed > 0 : passed !== 3 || node.type.name !== "table"
        })
        return found
      }
      const own = said((visit) => nodesBetween(doc, from, to, visit))
      const plain = said((visit) => doc.nodesBetween(from, to, visit))
      expect(own.length === plain.length && own.every((part, n) => part === plain[n])).toBe(true)
    }),
    { numRuns: 300 },
  )
})

test("every leaf is found by every address: number, place, flow, block", () => {
  fc.assert(
    fc.property(documents, (doc) => {
      const leaves = leavesOf(doc)
      const all = walked(doc)
      expect(leaves.count).toBe(all.length)
      // Each for itself first, then all at once, and every place, also between the leaves.
      expect(leaves.between(1, 4).every((node, i) => node === all[i + 1]?.node)).toBe(true)
      expect(leaves.nodes.every((node, leaf) => node === all[leaf]?.node)).toBe(true)
      expect([leaves.nodes.length, leaves.find(all.length), leaves.find(-1)]).toEqual([all.length, null, null])
      let last = 0
      const wrong = Array.from({ length: doc.content.size }, (_, pos) => pos).filter((pos) => {
        while ((all[last + 1]?.start ?? Infinity) - 1 <= pos) last++
        return leaves.at(pos) !== last
      })
      expect(wrong).toEqual([])
      const told = all.map(({ node, start }, leaf) => {
        const own = leaves.flow(leaf)
        const found =
          leaves.node(leaf) === node && leaves.at(start) === leaf && leaves.at(start + node.content.size) === leaf
        return [
          found,
          leaves.before(leaf),
          leaves.start(leaf),
          leaves.end(leaf),
          own.kind,
          own.story,
          own.node.childCount,
        ]
      })
      expect(told).toEqual(
        all.map(({ node, start, flow }) => {
          const part = doc.resolve(start).node(1)
          const story = part.type.name === "story" ? (part.attrs.key as string) : null
          return [
            true,
            start - 1,
            start,
            start + node.content.size,
            flow.type.name === "story" ? "note" : flow.type.name,
            story,
            flow.childCount,
          ]
        }),
      )
    }),
    { numRuns: 50 },
  )
})

test("blocks of a flow and their leaves say the same both ways", () => {
  fc.assert(
    fc.property(body, (own) => {
      const flow = document(own).child(0)
      const inFlow = blocksOf(flow)
      let leaf = 0
      inFlow.nodes.forEach((node, block) => {
        expect(inFlow.leaf(block)).toBe(leaf)
        const count = node.isTextblock ? 1 : walked(document([node])).length
        for (let i = 0; i < count; i++) expect(inFlow.at(leaf + i)).toBe(block)
        leaf += count
      })
      expect([inFlow.leaf(inFlow.nodes.length), inFlow.at(leaf)]).toEqual([leaf, inFlow.nodes.length])
    }),
  )
})

/** The same document with one of its leaves, or a block, replaced, gone or doubled. */
function edited(doc: Node, [where, kind, by]: [number, "text" | "gone" | "twice", Node]): Node {
  const leaves = leavesOf(doc)
  const leaf = where % leaves.count
  const $leaf = doc.resolve(leaves.before(leaf))
  const replace = (own: Node, depth: number): Node => {
    if (depth === $leaf.depth) {
      const at = $leaf.index()
      const put =
        kind === "text" || (kind === "gone" && own.childCount === 1) ? [by] : kind === "gone" ? [] : [own.child(at), by]
      return own.copy(
        own.content
          .cut(0, $leaf.parentOffset)
          .append(own.type.create(own.attrs, put).content)
          .append(own.content.cut($leaf.parentOffset + own.child(at).nodeSize)),
      )
    }
    const at = $leaf.index(depth)
    return own.copy(own.content.replaceChild(at, replace(own.child(at), depth + 1)))
  }
  return replace(doc, 0)
}
const edit = fc.tuple(
  fc.nat(200),
  fc.constantFrom("text" as const, "gone" as const, "twice" as const),
  fc.oneof(text, framed),
)

test("what lies outside the span that differs is the same, leaf by leaf", () => {
  fc.assert(
    fc.property(documents, fc.array(edit, { minLength: 1, maxLength: 3 }), (doc, edits) => {
      const after = edits.reduce(edited, doc)
      const [a, b] = [leavesOf(doc), leavesOf(after)]
      // What one change puts in the next may take away.
      const { from, oldTo, newTo } = changedLeaves(doc, after) ?? { from: a.count, oldTo: a.count, newTo: b.count }
      const same = (some: readonly Node[], others: readonly Node[]) =>
        some.length === others.length && some.every((node, i) => node === others[i])
      expect([
        same(a.nodes.slice(0, from), b.nodes.slice(0, from)),
        same(a.nodes.slice(oldTo), b.nodes.slice(newTo)),
      ]).toEqual([true, true])
      expect(changedLeaves(after, after.copy(after.content))).toBeNull()
    }),
  )
})

const spec = fc.constantFrom<LayoutSpec>({ mode: "sheets" }, { mode: "flow", width: 360, margin: 20 })

test("layout from before equals layout from nothing, in tables, sections and beside stories, also from half-made layouts", () => {
  fc.assert(
    fc.property(
      documents,
      fc.array(fc.tuple(edit, fc.nat(6)), { minLength: 1, maxLength: 4 }),
      spec,
      (doc, edits, how) => {
        const from = doc
        let before: Layout | null = null
        for (const [own, steps] of edits) {
          // At first from nothing, which may not come to its end before the first change.
          doc = before ? edited(doc, own) : from
          const composition: Composition = new Composition(typesetter(), doc, how, before)
          for (let n = 0; n < steps && !composition.step(); n++);
          before = composition.layout
        }
        const now = layoutDocument(typesetter(), doc, how, before)
        const anew = layoutDocument(typesetter(), doc, how)
        expect(textsOf(now)).toEqual(textsOf(anew))
        if (how.mode === "sheets") expect(shown(now)).toEqual(shown(anew))
      },
    ),
    { numRuns: 40 },
  )
})

/** What each leaf shows, in the order of the sheets. */
function textsOf(layout: Layout): string[] {
  const lines: string[] = []
  for (const placed of layout.placed)
    for (const { leaf, part, paragraph: own, from, to } of fragmentsOf(placed))
      for (const line of part === "repeated" ? [] : own.lines.slice(from, to))
        lines[leaf] = (lines[leaf] ?? "") + own.text.slice(line.from, line.to)
  return lines
}

test("in flow view too every leaf shows its own text, also where a table is divided between two strips", () => {
  fc.assert(
    fc.property(documents, (doc) => {
      const shownText = textsOf(layoutDocument(typesetter(), doc, { mode: "flow", width: 360, margin: 20 }))
      const inBody = walked(doc).filter(({ start }) => start < doc.child(0).nodeSize)
      expect(shownText).toEqual(inBody.map(({ node }) => node.textContent))
    }),
    { numRuns: 40, examples: [[document([table([[[p(words.repeat(30))]], [[p("second row")]]]), p("last")])]] },
  )
})

test("all text of the body is on the sheets, once and in order, on paper of its section, and above the foot", () => {
  fc.assert(
    fc.property(documents, (doc) => {
      const layout = layoutDocument(typesetter(), doc)
      const inBody = walked(doc).filter(({ start }) => start < doc.child(0).nodeSize)
      expect(textsOf(layout)).toEqual(inBody.map(({ node }) => node.textContent))
      for (const placed of layout.placed) {
        const { sheet } = placed
        expect([sheet.width, sheet.height]).toEqual([sheet.start.paper!.setup.width, sheet.start.paper!.setup.height])
        const section = doc
          .child(0)
          .children.reduce<{ leaf: number; setup: unknown }>(
            ({ leaf, setup }, node) =>
              leaf > placed.leaf
                ? { leaf, setup }
                : node.type.name === "sectionBreak"
                  ? { leaf, setup: node.attrs.setup as unknown }
                  : { leaf: leaf + (node.isTextblock ? 1 : walked(document([node])).length), setup },
            { leaf: 0, setup: doc.attrs.setup as unknown },
          )
        expect(sheet.start.paper!.setup).toBe(section.setup)
        const foot = sheet.height - sheet.start.paper!.setup.margins.bottom + 0.01
        for (const { paragraph: own, from, to, x, y: top, width, turn } of fragmentsOf(placed)) {
          const height = own.lines[to - 1]!.top + own.lines[to - 1]!.height - own.lines[from]!.top
          const seen = turnedBox(turn, { x, y: top, width, height })
          if (to - from > 1 || turn) expect(seen.y + seen.height).toBeLessThanOrEqual(foot)
        }
      }
    }),
    { numRuns: 40 },
  )
})

test("what is nested deeper than anybody could read is refused, also when it gets there step by step", () => {
  let own: Node = p("deep")
  for (let n = 0; n < 15; n++) {
    own = table([[[own]]])
    expect(() => checkDocument(document([own]))).not.toThrow()
  }
  for (let n = 0; n < 20; n++) own = table([[[own]]])
  expect(() => checkDocument(document([own]))).toThrow(/inside one another/)
})

test("a break of sections in a cell, as two people may leave one, is nothing: what stands round it is set, and can be edited", () => {
  const inCell = document([
    p("above"),
    table([[[p("before"), nodes.sectionBreak.create({ setup: defaultSetup }), p("behind")], [p("beside")]]]),
    p("below"),
  ])
  checkDocument(inCell)
  for (const own of [{ mode: "sheets" }, { mode: "flow", width: 360, margin: 20 }] as const) {
    const seen = layoutDocument(typesetter(), inCell, own).placed.flatMap(fragmentsOf)
    expect(seen.map(({ paragraph: { text: said } }) => said)).toEqual(["above", "before", "behind", "beside", "below"])
  }
  for (const { write, endings } of Object.values(formats)) {
    const bytes = write?.({ name: "Two people", doc: inCell })
    if (bytes) expect([endings, bytes.length > 10]).toEqual([endings, true])
  }
  for (const format of [formats.docx, formats.odt, formats.rtf]) {
    const again = format.read!(format.write!({ name: "", doc: inCell }), {}).doc
    expect(leavesOf(again).nodes.map(textOf).filter(Boolean)).toEqual(["above", "before", "behind", "beside", "below"])
  }
})
