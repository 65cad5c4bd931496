import { execFileSync } from "node:child_process"
import fc from "fast-check"
import type { Node } from "prosemirror-model"
import { document, nodes, p, paragraph, storiesOf } from "../src/document"
import { checkDocument } from "../src/document/reading"
import { formats, readFile } from "../src/formats/table"

const read = (source: string, name = "page.html") => {
  const { doc } = readFile(new TextEncoder().encode(source), name)
  checkDocument(doc)
  return doc
}
/** The text with each note in brackets where its mark stands. */
const told = (doc: Node): string[] =>
  doc.child(0).children.map((block) => {
    let text = ""
    block.descendants((node) => {
      if (node.isText) text += node.text ?? ""
      if (node.type === nodes.anchor) {
        const story = storiesOf(doc).get(node.attrs.story as string)!.node
        text += `[${story.textBetween(0, story.content.size, "/")}]`
      }
      return true
    })
    return text
  })

const source = `Slack water[^tide] waits[^2].

- The chain[^tide] is *greased*.

[^tide]: Between *ebb*
    and flood.

    Twice a day.
[^2]: Not long.
[^nobody]: Nothing leads here.
`
const expected = [
  "Slack water[Between ebb and flood./Twice a day.] waits[Not long.].",
  "The chain[Between ebb and flood./Twice a day.] is greased.",
]

test("notes of CommonMark stand where their marks do, also one that has two", () => {
  expect(told(read(source, "notes.md"))).toEqual(expected)
})

test("notes of a page that another program made", () => {
  const html = execFileSync("pandoc", ["-f", "markdown", "-t", "html5", "-s"], { input: source, encoding: "utf8" })
  expect(told(read(html)).filter((text) => text !== "")).toEqual(expected)
})

test("notes that roles, types of books or classes tell; nothing of them is left at the foot", () => {
  const notes = (open: string, close: string) =>
    told(read(`<p>Ebb<a id="m1" href="#n%201">1</a> and flow.</p>${open}<a href="#m1">1</a> Out to sea. ${close}`))
  const expected = ["Ebb[Out to sea.] and flow."]
  expect(notes('<hr><section role="doc-endnotes"><div id="n 1" role="doc-footnote">', "</div></section>")).toEqual(
    expected,
  )
  expect(notes('<aside id="n%201" epub:type="footnote"><p>', "</p></aside>")).toEqual(expected)
  expect(notes('<hr><div class="footnotes"><ol><li id="n 1"><p>', "</p></li></ol></div>")).toEqual(expected)
})

test("links in the page that lead to no note, and notes to which nothing leads, are text", () => {
  expect(
    told(
      read('<p id="a">See <a href="#a">above</a> and <a href="#%">it</a>.</p><p class="footnote" id="x">Alone.</p>'),
    ),
  ).toEqual(["See above and it.", "Alone."])
})

test("a note that leads to itself, and one with a thousand marks, come to an end", () => {
  const own = '<p>a<a href="#n">1</a></p><div role="doc-footnote" id="n">b <a href="#n">1</a></div>'
  expect(told(read(own))).toEqual(["a[b 1]"])
  const marks = Array.from({ length: 1000 }, () => '<a href="#n">1</a>').join(" ")
  const doc = read(`<p>${marks}</p><div role="doc-footnote" id="n">${"long ".repeat(5000)}</div>`)
  expect(storiesOf(doc).size).toBe(8)
})

test("many thousand marks, notes and places for notes are read in time that grows with them alone", () => {
  const many = 5000
  const page = (n: number) =>
    `<p>${Array.from({ length: n }, (_, i) => `<a href="#n${i}">${i}</a>`).join(" ")}</p><section role="doc-endnotes">${Array.from({ length: n }, (_, i) => `<div id="n${i}" role="doc-footnote">note</div><p id="q${i}" role="doc-endnote">x</p>`).join("")}</section>`
  expect(told(read(page(many)))[0]).toContain(`[note]`)
  const holders = `<a href="#n">1</a><p id="n" role="doc-footnote">x</p>${'<hr><section class="footnotes"></section>'.repeat(50_000)}`
  expect(told(read(holders))[0]).toBe("[x]")
})

test("our own page and CommonMark bring notes back to where they were", () => {
  const word = fc.constantFrom("tide", "ebb", "the chain", "Oda & Imre", "<slack>", "a_b", "3 * 4")
  const noted = fc.array(fc.tuple(word, fc.array(word, { minLength: 1, maxLength: 2 })), { minLength: 1, maxLength: 4 })
  fc.assert(
    fc.property(noted, (all) => {
      const stories = all.map(([, lines], i) =>
        nodes.story.create(
          { key: `k${i}`, kind: "note" },
          lines.map((line) => paragraph("note", [line])),
        ),
      )
      const text = all.flatMap(([own], i) => [own, nodes.anchor.create({ story: `k${i}` }), " "])
      const doc = document([p(...text.slice(0, -1)), p("behind")], {}, stories)
      checkDocument(doc)
      for (const kind of ["html", "commonmark"] as const) {
        const file = formats[kind].write!({ name: null, doc }, () => undefined)
        expect([kind, told(readFile(file, `a${formats[kind].endings[0]}`).doc)]).toEqual([kind, told(doc)])
      }
    }),
    { numRuns: 60 },
  )
})
