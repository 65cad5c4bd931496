/** What was said of passages: kept with their words, and given back to the programs that it came from. */
import { execFileSync } from "node:child_process"
import { mkdtempSync, writeFileSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import fc from "fast-check"
import type { Node } from "prosemirror-model"
import { TextSelection } from "prosemirror-state"
import {
  bodyOf,
  commentsAt,
  commentsOf,
  document,
  leavesOf,
  marks,
  p,
  schema,
  table,
  type Comments,
} from "../src/document"
import { checkDocument } from "../src/document/reading"
import { editHistory, pasteSlice, removeComment, selectedSlice, undo, withoutForeignComments } from "../src/editing"
import { readOfficeOpenXml } from "../src/formats/officeopenxml/reading"
import { writeOfficeOpenXml } from "../src/formats/officeopenxml/writing"
import { readOpenDocument } from "../src/formats/opendocument/reading"
import { writeOpenDocument } from "../src/formats/opendocument/writing"
import { officeFile } from "./office"
import { EditorState } from "prosemirror-state"
import { after } from "./telling"

const sources = { name: "Tides", asset: () => undefined }
const said = (author: string, text: string, at = "2026-11-12T09:30:00Z") => ({ author, at, text })
const words = (text: string, ...keys: string[]) =>
  schema.text(
    text,
    keys.map((value) => marks.comment.create({ value })),
  )
/** What was said, of which words. */
const told = (doc: Node) =>
  commentsOf(doc).map(({ author, text, at, from, to }) => [author, at, text, doc.textBetween(from, to, "|")])

const minutes = () =>
  document(
    [
      p("The ", words("chain", "a", "b"), words(" lies", "b"), " on the bed."),
      table([[[p(words("Ropes", "c"))], [p("Tides", words(" twice", "d"))]]]),
      p(words("a day", "d"), "."),
    ],
    {
      comments: {
        a: said("Nell Caddow", "Which chain?\nThe old one?"),
        b: said("Imre <Fallow>", "Lay & lie."),
        c: said("", "", ""),
        d: said("Tamsin Reed", "Once at neaps.", "2026-11-12"),
        gone: said("Nobody", "Of nothing."),
      },
    },
  )

const expected = [
  ["Nell Caddow", "2026-11-12T09:30:00Z", "Which chain?\nThe old one?", "chain"],
  ["Imre <Fallow>", "2026-11-12T09:30:00Z", "Lay & lie.", "chain lies"],
  ["", "", "", "Ropes"],
  ["Tamsin Reed", "2026-11-12", "Once at neaps.", " twice|a day"],
]

test("what was said stands with its words, several on the same, over paragraphs and cells", () => {
  expect(told(checkDocument(minutes()))).toEqual(expected)
  const chain = leavesOf(minutes()).start(0) + 5
  expect(commentsAt(minutes(), chain).map(({ key }) => key)).toEqual(["a", "b"])
})

test.each([
  ["Office Open XML", (doc: Node) => readOfficeOpenXml(writeOfficeOpenXml(doc, sources))],
  ["OpenDocument", (doc: Node) => readOpenDocument(writeOpenDocument(doc, sources))],
])("%s gives it back", (_name, around) => {
  const { doc, left } = around(minutes())
  expect(told(doc)).toEqual(expected)
  expect(left).toEqual([])
})

test("an independent program finds what was said, by whom and where", () => {
  const path = join(mkdtempSync(join(tmpdir(), "biblon-said-")), "a.docx")
  writeFileSync(path, writeOfficeOpenXml(minutes(), sources))
  const found = execFileSync("pandoc", [["--tra", "ck-changes=all"].join(""), "-t", "native", path], {
    encoding: "utf8",
  })
  for (const piece of ['"comment-start"', '"Nell Caddow"', '"Imre <Fallow>"', '"2026-11-12T09:30:00Z"'])
    expect(found).toContain(piece)
  expect(found.match(/"comment-end"/g)).toHaveLength(4)
})

const comments = (content: string) =>
  `<w:comment w:id="0" w:author="Nell" w:date="2026-01-02T03:04:05Z"><w:p><w:r><w:annotationRef/></w:r><w:r><w:t>First</w:t></w:r></w:p><w:p><w:r><w:t>line</w:t></w:r></w:p></w:comment><w:comment w:id="1" w:author="Imre" w:date="yesterday"><w:p><w:r><w:t>Second</w:t></w:r></w:p></w:comment>${content}`
const reference = (id: number) => `<w:r><w:commentReference w:id="${id}"/></w:r>`

test("comments of a place are of the words before it, or else of the next; those of nothing are counted", () => {
  const body =
    `<w:p><w:r><w:t>Ropes</w:t></w:r>${reference(0)}<w:r><w:t> and chains</w:t></w:r></w:p>` +
    `<w:p><w:commentRangeStart w:id="1"/><w:commentRangeEnd w:id="1"/>${reference(1)}<w:r><w:t>Tides</w:t></w:r></w:p>` +
    `<w:p>${reference(2)}${reference(7)}</w:p>`
  const third = `<w:comment w:id="2" w:author="Reed"><w:p/></w:comment>`
  const { doc, left } = readOfficeOpenXml(
    officeFile({
      body,
      relations: [["c", "comments", "comments.xml"]],
      files: { "word/comments.xml": wrapped(comments(third)) },
    }),
  )
  expect(told(doc)).toEqual([
    ["Nell", "2026-01-02T03:04:05Z", "First\nline", "Ropes"],
    ["Imre", "", "Second", "Tides"],
  ])
  expect(left).toEqual([{ what: "comments of nothing that is here", count: 1, leaves: [] }])
})

const wrapped = (content: string) =>
  `<w:comments xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main">${content}</w:comments>`

test("very many comments, none of which ends, are read as far as words can have them", () => {
  const count = 20_000
  const numbers = Array.from({ length: count }, (_, i) => i)
  const body = `${numbers.map((i) => `<w:commentRangeStart w:id="${i}"/>`).join("")}${`<w:p><w:r><w:t>Tides</w:t></w:r></w:p>`.repeat(2000)}`
  const { doc, left } = readOfficeOpenXml(
    officeFile({
      body,
      relations: [["c", "comments", "comments.xml"]],
      files: { "word/comments.xml": wrapped(numbers.map((i) => `<w:comment w:id="${i}"/>`).join("")) },
    }),
  )
  expect(commentsOf(checkDocument(doc))).toHaveLength(40)
  expect(left).toEqual([{ what: "comments of nothing that is here", count: count - 40, leaves: [] }])
})

test("a comment is taken away with its marks; cut words bring theirs back, copies have none", () => {
  const begun = EditorState.create({ doc: minutes(), plugins: [editHistory()] })
  const less = after(begun, removeComment("b"))
  expect(told(less.doc)).toEqual(expected.filter(([author]) => author !== "Imre <Fallow>"))
  expect(told(after(less, undo).doc)).toEqual(expected)
  expect(removeComment("constructor")(begun)).toBe(false)

  const start = leavesOf(begun.doc).start(0)
  const chosen = begun.apply(begun.tr.setSelection(TextSelection.create(begun.doc, start + 4, start + 9)))
  const slice = selectedSlice(chosen)
  expect(JSON.stringify(withoutForeignComments(slice, begun.doc))).not.toContain("comment")
  const cut = chosen.apply(chosen.tr.deleteSelection())
  expect(told(cut.doc).map(([author]) => author)).toEqual(["Imre <Fallow>", "", "Tamsin Reed"])
  const back = after(cut, pasteSlice(withoutForeignComments(slice, cut.doc)))
  expect(told(back.doc)[0]).toEqual(expected[0])
  expect(JSON.stringify(withoutForeignComments(slice, document([p("Elsewhere")])))).not.toContain("comment")
})

test("whatever was said of whatever words comes back from both formats", () => {
  const key = fc.constantFrom("a", "b", "c")
  const piece = fc.tuple(fc.stringMatching(/^[a-z]{1,5}$/), fc.uniqueArray(key, { maxLength: 3 }), fc.boolean())
  const paragraph = fc.array(piece, { maxLength: 5 })
  const all: Comments = Object.fromEntries(["a", "b", "c"].map((own) => [own, said(own, `said of ${own}`)]))
  fc.assert(
    fc.property(fc.array(paragraph, { minLength: 1, maxLength: 4 }), (paragraphs) => {
      const doc = document(
        paragraphs.map((pieces) =>
          p(
            ...pieces.map(([text, keys, bold]) => {
              const own = words(text, ...keys)
              return bold ? own.mark(marks.bold.create({ value: true }).addToSet(own.marks)) : own
            }),
          ),
        ),
        { comments: all },
      )
      for (const back of [
        readOfficeOpenXml(writeOfficeOpenXml(doc, sources)).doc,
        readOpenDocument(writeOpenDocument(doc, sources)).doc,
      ]) {
        // What stands between words with the same comment has it too, since a passage is one.
        expect(told(back)).toEqual(told(doc))
        expect(bodyOf(back).textContent).toBe(bodyOf(doc).textContent)
      }
    }),
  )
})

test("the last comment goes, and comes back, and what is left is a document like others", () => {
  const doc = document([p(words("said", "a"))], { comments: { a: said("Oda", "Is it?") } })
  let state = EditorState.create({ doc, plugins: [editHistory()] })
  removeComment("a")(state, (tr) => (state = state.apply(tr)))
  expect([state.doc.attrs.comments, commentsOf(state.doc)]).toEqual([{}, []])
  checkDocument(state.doc)
  undo(state, (tr) => (state = state.apply(tr)))
  expect(state.doc.toJSON()).toEqual(doc.toJSON())
})
