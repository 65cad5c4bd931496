/** A document that uses the sheet in full: two columns, heads with fields, three notes a sheet, contents. */
import { EditorState } from "prosemirror-state"
import type { Node } from "prosemirror-model"
import { leavesOf, valuesNow } from "@biblon/core/document"
import { Composition, Furnisher, layoutDocument, type Layout, type Typesetter } from "@biblon/core/layout"
import { openTypesetter } from "@biblon/core/node"
import { percentile } from "./figures"
import { everything, everythingWords } from "./text"

export interface EverythingFigures {
  everythingKeystrokeMs1000: number
  everythingKeystroke1000Vs1: number
  /** Time a sheet in 2,000 sheets against 20. */
  linear2000: number
  /** New margins, and a letter in a head, in 1,000 sheets, to the sheets that are in sight. */
  marginsMs1000: number
  headerKeyMs1000: number
}

function timed<T>(act: () => T): [ms: number, result: T] {
  const start = performance.now()
  const result = act()
  return [performance.now() - start, result]
}

/** The sheets in sight after a change, with heads and feet: those composed anew, or ahead of their turn. */
function sightMs(typesetter: Typesetter, layout: Layout, doc: Node, from: number): number {
  return timed(() => {
    const composition = new Composition(typesetter, doc, { mode: "sheets" }, layout)
    if (!composition.look({ from, to: from + 3 })) while (composition.settled < from + 3 && !composition.step());
    const furnisher = new Furnisher(typesetter, composition.layout, valuesNow)
    for (let i = from; i < from + 3; i++) furnisher.of(i)
  })[0]
}

function keystrokeMs(doc: Node): number {
  const typesetter = openTypesetter()
  let state = EditorState.create({ doc })
  let layout = layoutDocument(typesetter, state.doc)
  const middle = Math.floor(leavesOf(doc).count / 3)
  const times: number[] = []
  for (let i = 0; i < 120; i++) {
    state = state.apply(state.tr.insertText("e", leavesOf(state.doc).start(middle) + 1 + (i % 10)))
    const [ms, next] = timed(() => layoutDocument(typesetter, state.doc, { mode: "sheets" }, layout))
    times.push(ms)
    layout = next
  }
  return percentile(times, 0.5)
}

export function measureEverything(): EverythingFigures {
  const words = everythingWords
  const [one, thousand] = [keystrokeMs(everything(words * 0.8)), keystrokeMs(everything(words * 1000))]
  const typesetter = openTypesetter()
  const perSheet = (sheets: number) => {
    const doc = everything(words * sheets)
    const setter = openTypesetter()
    return Math.min(...[1, 2].map(() => timed(() => layoutDocument(setter, doc))[0])) / sheets
  }
  const doc = everything(words * 1000)
  const layout = layoutDocument(typesetter, doc)
  const setup = { ...layout.doc.attrs.setup, margins: { top: 80, right: 80, bottom: 80, left: 80 } } as unknown
  const headed = leavesOf(doc)
  const head =
    Array.from({ length: headed.count }, (_, i) => i).find((leaf) => headed.flow(leaf).kind === "header") ?? 0
  const state = EditorState.create({ doc })
  return {
    everythingKeystrokeMs1000: thousand,
    everythingKeystroke1000Vs1: thousand / one,
    linear2000: perSheet(2000) / perSheet(20),
    marginsMs1000: sightMs(typesetter, layout, doc.type.create({ ...doc.attrs, setup }, doc.content), 500),
    headerKeyMs1000: sightMs(typesetter, layout, state.apply(state.tr.insertText("e", headed.start(head))).doc, 500),
  }
}

if (process.argv[1]?.endsWith("everything.ts")) console.log(JSON.stringify(measureEverything(), null, 2))
