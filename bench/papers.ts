/** A long paper: held against its brief, looked through for what is untidy, and cited in another style. */
import { EditorState, TextSelection } from "prosemirror-state"
import { verdicts, readyBriefs, setBrief, type World } from "@biblon/core/brief"
import { untidy } from "@biblon/core/checking"
import {
  citationFormat,
  citedIn,
  document,
  documentAttrs,
  nodes,
  p,
  paragraph,
  setEntries,
  type Source,
} from "@biblon/core/document"
import { prepareCiting } from "@biblon/core/node"
import { prose, wideParagraphs } from "./text"

export interface PaperFigures {
  /** Of about 100 sheets: at first, and after a letter was typed. */
  briefMs100: number
  briefAgainMs: number
  tidyMs100: number
  tidyAgainMs: number
  /** 600 citations of 200 sources in another style, with the list of references. */
  citationStyleMs: number
}

const words = 40_000
const counts = { sources: 200, citations: 600 }
const world: World = { sheets: 100, length: (points) => `${points} pt`, language: (tag) => tag }

function timed(work: Generator<void, unknown>): number {
  const begun = performance.now()
  while (!work.next().done);
  return performance.now() - begun
}

function cited() {
  const list = Object.fromEntries(
    Array.from({ length: counts.sources }, (_, i): [string, Source] => [
      `s${i}`,
      {
        kind: i % 2 ? "book" : "article-journal",
        names: { author: [{ family: `Author${i}`, given: "Ida" }] },
        fields: { title: `Title ${i}`, "container-title": "Journal", page: "1-9" },
        issued: String(1990 + (i % 30)),
        accessed: "",
        remarks: "",
        quotations: [],
      },
    ]),
  )
  const blocks = Array.from({ length: counts.citations }, (_, i) =>
    paragraph("body", [
      "As is known ",
      nodes.field.create({
        kind: "citation",
        format: citationFormat([{ source: `s${i % counts.sources}`, at: String(i) }]),
      }),
    ]),
  )
  const state = EditorState.create({ doc: document([...blocks, p("")]) })
  return setEntries(state.tr, null, "sources", { ...documentAttrs(state.doc).sources, list })
}

export function measurePapers(): PaperFigures {
  const begun = EditorState.create({ doc: prose(words, wideParagraphs(words)) })
  let state = begun
  setBrief(readyBriefs[0] ?? null)(begun, (tr) => (state = begun.apply(tr)))
  const briefMs100 = timed(verdicts(state.doc, world))
  const tidyMs100 = timed(untidy(state.doc))
  const at = state.doc.content.size >> 1
  const typed = state.apply(state.tr.setSelection(TextSelection.near(state.doc.resolve(at))).insertText("x"))
  const briefAgainMs = timed(verdicts(typed.doc, world))
  const tidyAgainMs = timed(untidy(typed.doc))
  const tr = cited()
  prepareCiting(tr.doc)
  citedIn(tr.doc)
  setEntries(tr, null, "sources", { ...documentAttrs(tr.doc).sources, style: "modern-language-association" })
  const citing = performance.now()
  citedIn(tr.doc)
  return { briefMs100, briefAgainMs, tidyMs100, tidyAgainMs, citationStyleMs: performance.now() - citing }
}

if (process.argv[1]?.endsWith("papers.ts")) console.log(measurePapers())
