/** What is pressed on sheets that are behind is found where it is by now. */
import fc from "fast-check"
import { document, leavesOf, p } from "@biblon/core/document"
import { EditorState, type Transaction } from "prosemirror-state"
import { SeenText } from "../src/desk/view/seenText"

/** Paragraphs of letters that all differ. */
const letters = (count: number) => Array.from({ length: count }, (_, i) => String.fromCharCode(0x4e00 + i)).join("")

/** A desk whose layout shows the text as it was first, until it is told that it shows more. */
function desk(lengths: readonly number[]) {
  const all = letters(lengths.reduce((a, b) => a + b, 0))
  let at = 0
  const doc = document(lengths.map((length) => p(all.slice(at, (at += length)))))
  let editor = EditorState.create({ doc })
  const seen = new SeenText(() => editor)
  let seq = 0
  return {
    seen,
    get doc() {
      return editor.doc
    },
    change(make: (tr: Transaction) => Transaction) {
      const tr = make(editor.tr)
      const before = editor.doc
      editor = editor.apply(tr)
      seen.changed(++seq, before, tr.steps)
    },
    shows: (n: number) => seen.shows(n),
  }
}

const charAt = (doc: EditorState["doc"], pos: number) => doc.textBetween(pos, Math.min(doc.content.size, pos + 1))

test("a letter that is seen is the same letter by now, whatever was put in, divided or taken away, and however much of it is shown", () => {
  const change = fc.record({
    at: fc.double({ min: 0, max: 1, noNaN: true }),
    kind: fc.constantFrom("in", "divide", "away"),
  })
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 6 }),
      fc.array(change),
      fc.nat(9),
      (lengths, all, shown) => {
        const own = desk(lengths)
        const changes = all.map(({ at, kind }) => {
          const leaves = leavesOf(own.doc)
          const leaf = Math.min(leaves.count - 1, Math.floor(at * leaves.count))
          const [from, to] = [leaves.start(leaf), leaves.end(leaf)]
          const pos = from + Math.floor(at * (to - from))
          own.change((tr) => {
            if (kind === "in") return tr.insertText("x", pos)
            if (kind === "divide") return tr.split(pos)
            return pos < to ? tr.delete(pos, pos + 1) : tr
          })
        })
        own.shows(Math.min(shown, changes.length))
        const { doc } = own.seen
        for (let leaf = 0; leaf < leavesOf(doc).count; leaf++)
          for (let pos = leavesOf(doc).start(leaf); pos < leavesOf(doc).end(leaf); pos++) {
            const now = own.seen.now(pos)
            const letter = charAt(doc, pos)
            if (letter !== "x" && own.doc.textContent.includes(letter)) expect(charAt(own.doc, now)).toBe(letter)
            expect(own.doc.resolve(now).parent.inlineContent).toBe(true)
          }
      },
    ),
  )
})

test("a block that is seen begins where its first letter is by now", () => {
  const own = desk([3, 3, 3])
  const before = leavesOf(own.doc).before(2)
  own.change((tr) => tr.insertText("x", 1).split(2))
  own.change((tr) => tr.delete(leavesOf(tr.doc).before(2), leavesOf(tr.doc).before(3)))
  const now = own.seen.beginning(before)
  expect(own.doc.nodeAt(now)).toBe(own.seen.doc.nodeAt(before))
  expect(own.seen.beginning(before + 99)).toBe(own.doc.content.size)
  own.shows(2)
  expect(own.seen.beginning(now)).toBe(now)
})

test("where what was pressed is gone, the caret stands in the nearest text", () => {
  const own = desk([3, 3, 3])
  const pos = leavesOf(own.doc).start(1) + 1
  own.change((tr) => tr.delete(leavesOf(tr.doc).before(1), leavesOf(tr.doc).before(2)))
  const now = own.seen.now(pos)
  expect(own.doc.resolve(now).parent.inlineContent).toBe(true)
  expect(own.seen.leafNow(2)).toBe(1)
  own.shows(1)
  expect(own.seen.doc).toBe(own.doc)
  expect(own.seen.leafNow(1)).toBe(1)
})
