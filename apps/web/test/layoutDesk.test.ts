/** The page and its layout worker, without a browser: what is in sight is here, whatever comes before it and whatever was asked meanwhile. */
import fc from "fast-check"
import { document, documentAttrs, leavesOf, paragraph, valuesNow } from "@biblon/core/document"
import { Typesetter } from "@biblon/core/layout"
import { openFonts } from "@biblon/core/node"
import { EditorState } from "prosemirror-state"
import { stepText } from "../src/live/stepText"
import { LayoutClient } from "../src/workers/layoutClient"
import { LayoutDesk } from "../src/workers/layoutDesk"
import type { FromLayout, ToLayout } from "../src/workers/protocol"

const sentence = "The chain ferry crosses at slack water and rests when the tide runs hard. "
const typesetter = new Typesetter(openFonts(), null, valuesNow)
const preparing = { fetchAhead: async () => undefined, prepareCiting: async () => false }
const turn = () => new Promise((resolve) => setTimeout(resolve))

/** A page that shows some sheets, as many as there are, of a document of as many. */
async function page(count: number, made = sheetful) {
  const small = { ...documentAttrs(document([])).setup, width: 300, height: 300 }
  let state = EditorState.create({ doc: document(Array.from({ length: count }, made), { setup: small }) })
  let inTurn = Promise.resolve()
  const worker = {
    terminate: () => desk.close(),
    onmessage: null,
    postMessage(message: Exclude<ToLayout, { type: "fetch" }>) {
      inTurn = inTurn.then(() => desk.receive(structuredClone(message)))
    },
  }
  const desk: LayoutDesk = new LayoutDesk(typesetter, preparing, (message: FromLayout) => {
    const data = structuredClone(message)
    void turn().then(() => (worker as unknown as Worker).onmessage?.({ data } as MessageEvent))
  })
  let sight = { from: 0, to: 3 }
  const want = () => client.want(sight.from, Math.min(sight.to, Math.max(1, client.mirror.count)))
  const client: LayoutClient = new LayoutClient(
    { worker: worker as unknown as Worker, spec: { mode: "sheets" }, said: [] },
    (task) => task(),
    want,
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
    /** Types a letter at the end of a paragraph. */
    type(leaf: number) {
      const tr = state.tr.insertText("e", leavesOf(state.doc).end(leaf))
      state = state.apply(tr)
      client.change(tr.steps.map(stepText))
    },
    complete: () => client.mirror.complete,
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
