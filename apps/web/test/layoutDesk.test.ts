/** The page and its layout worker, without a browser: what is in sight is here, whatever comes before it and whatever was asked meanwhile. */
import fc from "fast-check"
import { document, documentAttrs, leavesOf, paragraph, valuesNow } from "@biblon/core/document"
import { fragmentsOf, layoutDocument, Typesetter, type PlacedSheet } from "@biblon/core/layout"
import { openFonts } from "@biblon/core/node"
import { EditorState } from "prosemirror-state"
import { stepText } from "../src/live/stepText"
import { LayoutClient } from "../src/workers/layoutClient"
import { LayoutDesk } from "../src/workers/layoutDesk"
import type { FromLayout, LayoutReport, ToLayout } from "../src/workers/protocol"

const sentence = "The chain ferry crosses at slack water and rests when the tide runs hard. "
const typesetter = new Typesetter(openFonts(), null, valuesNow)
const preparing = { fetchAhead: async () => undefined, prepareCiting: async () => false }
const turn = () => new Promise((resolve) => setTimeout(resolve))

const spare = 2

/** What a sheet says, and where. */
const told = (placed: PlacedSheet) =>
  fragmentsOf(placed).map(({ leaf, from, to, x, y, paragraph }) => [
    leaf,
    x,
    y,
    paragraph.lines.slice(from, to).map(({ from, to }) => [from, to]),
  ])

/** A page that shows some sheets, as many as there are, of a document of as many paragraphs. */
async function page(count: number, made = sheetful, judging = false) {
  const small = { ...documentAttrs(document([])).setup, width: 300, height: 300 }
  let state = EditorState.create({ doc: document(Array.from({ length: count }, made), { setup: small }) })
  let inTurn = Promise.resolve()
  const worker = {
    terminate: () => desk.close(),
    onmessage: null,
    postMessage(message: Exclude<ToLayout, { type: "openAhead" }>) {
      inTurn = inTurn.then(() => desk.receive(structuredClone(message)))
    },
  }
  const desk: LayoutDesk = new LayoutDesk(typesetter, preparing, (message: FromLayout) => {
    const data = structuredClone(message)
    void turn().then(() => (worker as unknown as Worker).onmessage?.({ data } as MessageEvent))
  })
  let sight = { from: 0, to: 3 }
  const partly: number[] = []
  const wrong: unknown[] = []
  const want = () => {
    const from = Math.max(0, sight.from - spare)
    const [seen, to] = [sight.to, sight.to + spare].map((to) => Math.min(to, Math.max(1, client.mirror.count)))
    client.want(from, to!, { from: sight.from, to: seen! })
  }
  /** What is here of the document as it is now must be what a layout from nothing has there. */
  const check = ({ held, wanted }: LayoutReport) => {
    if (!judging || !client.current) return
    if (held.to < Math.min(wanted.to, client.mirror.count)) partly.push(held.to)
    const { placed } = layoutDocument(typesetter, state.doc)
    for (let i = held.from; i < held.to; i++) {
      const here = client.mirror.placed(i)
      const right = placed[i]
      if (JSON.stringify(here && told(here)) !== JSON.stringify(right && told(right))) wrong.push([i, held, wanted])
    }
  }
  const client: LayoutClient = new LayoutClient(
    { worker: worker as unknown as Worker, spec: { mode: "sheets" }, said: [] },
    (task) => task(),
    (report) => {
      check(report)
      want()
    },
    (message) => {
      throw new Error(message)
    },
  )
  client.listen()
  client.open(JSON.stringify(state.doc.toJSON()), false, { mode: "sheets" })
  return {
    /** Shows other sheets. */
    look(from: number) {
      sight = { from, to: from + 3 }
      want()
    },
    /** Puts paragraphs before all others. */
    insert(paragraphs: number) {
      const tr = state.tr.insert(leavesOf(state.doc).before(0), Array.from({ length: paragraphs }, sheetful))
      state = state.apply(tr)
      client.change(tr.steps.map(stepText))
    },
    /** Types at the end of a paragraph. */
    type(leaf: number, text = "e") {
      const tr = state.tr.insertText(text, leavesOf(state.doc).end(leaf))
      state = state.apply(tr)
      client.change(tr.steps.map(stepText))
    },
    complete: () => client.mirror.complete,
    /** Reports that did not hold all that was wanted yet, and sheets that were not right. */
    partly,
    wrong,
    turn,
    close: () => client.close(),
    async rest() {
      for (let n = 0; n < 400 && !(client.current && client.mirror.complete); n++) await turn()
      for (let n = 0; n < 10; n++) await turn()
      const { mirror } = client
      const wanted = Array.from({ length: 3 }, (_, i) => sight.from + i).filter((i) => i < mirror.count)
      return { wanted, here: wanted.filter((i) => mirror.placed(i)?.leaf === mirror.firstLeaf(i)), mirror }
    },
  }
}
/** A paragraph that begins a sheet, so that those behind it stay as they are wherever they come to be. */
const sheetful = () => paragraph("body", [sentence.repeat(2)], { breakBefore: true })

test("sheets that come before what is in sight leave nothing out of it, also for who stays at the beginning", async () => {
  const own = await page(12)
  await own.rest()
  own.insert(8)
  const { wanted, here } = await own.rest()
  own.close()
  expect([wanted, here]).toEqual([
    [0, 1, 2],
    [0, 1, 2],
  ])
})

test("changes that keep coming do not keep it from its end", async () => {
  const own = await page(1500, () => paragraph("body", [sentence.repeat(3)]))
  await own.rest()
  own.insert(1)
  await own.turn()
  await own.turn()
  let letters = 0
  for (; !own.complete() && letters < 2000; letters++) {
    own.type(2)
    for (let n = 0; n < 8; n++) await own.turn()
  }
  own.close()
  expect([own.complete(), letters > 1]).toEqual([true, true])
})

test("what a report holds is right, also while what is near sight is still to come", async () => {
  const act = fc.oneof(
    fc.record({ look: fc.nat(9) }),
    fc.record({ leaf: fc.nat(59), text: fc.constantFrom("e", sentence, sentence.repeat(4)) }),
    fc.constant({ turn: true }),
  )
  let partly = 0
  await fc.assert(
    fc.asyncProperty(fc.array(act, { minLength: 2, maxLength: 8 }), async (acts) => {
      const own = await page(60, () => paragraph("body", [sentence.repeat(3)]), true)
      await own.rest()
      for (const one of acts)
        if ("look" in one) own.look(one.look)
        else if ("leaf" in one) own.type(one.leaf, one.text)
        else await own.turn()
      await own.rest()
      own.close()
      partly += own.partly.length
      expect(own.wrong).toEqual([])
    }),
    { numRuns: 10, examples: [[[{ leaf: 0, text: sentence }]]] },
  )
  expect(partly).toBeGreaterThan(0)
})

test("what is in sight is here in the end, in any order of looking and writing", async () => {
  const act = fc.oneof(
    fc.record({ look: fc.nat(14) }),
    fc.record({ insert: fc.integer({ min: 1, max: 6 }) }),
    fc.constant({ turn: true }),
  )
  await fc.assert(
    fc.asyncProperty(fc.array(act, { maxLength: 8 }), async (acts) => {
      const own = await page(8)
      for (const one of acts)
        if ("look" in one) own.look(one.look)
        else if ("insert" in one) own.insert(one.insert)
        else await own.turn()
      const { wanted, here } = await own.rest()
      own.close()
      expect(here).toEqual(wanted)
    }),
    { numRuns: 15 },
  )
})
