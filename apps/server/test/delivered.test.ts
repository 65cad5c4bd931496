/** What leaves as a file of an office and comes back lies on its sheets as it did, line by line: the documents of the demo and the starters. */
import type { Node } from "prosemirror-model"
import { pictureFormat } from "@biblon/core/document"
import { formats } from "@biblon/core/formats"
import { fragmentsOf, type PlacedSheet } from "@biblon/core/layout"
import { layoutOf, openTypesetter } from "@biblon/core/node"
import { createApp, type App } from "../src/app"
import { fillShelf } from "../src/demo/fill"
import { shippedStarters } from "../src/starters/starters"

let app: App
let documents: { name: string; doc: Node }[]
beforeAll(() => {
  app = createApp({ database: ":memory:" })
  fillShelf(app.store, app.assets)
  const own = app.store.list().map(({ id, name }) => ({ name: name ?? "", doc: app.store.newest(id) as Node }))
  documents = [...own, ...shippedStarters().map(({ name, doc }) => ({ name, doc }))]
})
afterAll(() => app.close())

interface SeenLine {
  x: number
  y: number
  text: string
}

const typesetter = openTypesetter()

const shownOn = (placed: PlacedSheet) =>
  fragmentsOf(placed).filter(({ part, paragraph }) => paragraph.text !== "" || part === "text")

/** Whether text goes round a picture that is no rectangle, which OpenDocument and RTF do not tell. */
function hasRound(doc: Node): boolean {
  let found = false
  doc.descendants((node) => {
    found ||= node.type.name === "picture" && pictureFormat(node).shape !== "plain"
  })
  return found
}

/** The lines of each sheet, and how large it is, in points. */
function sheets(name: string, doc: Node) {
  return layoutOf(doc, typesetter, name).placed.map((placed) => ({
    size: [placed.sheet.width, placed.sheet.height].map(Math.round),
    // A head or foot that says nothing may be told of.
    lines: shownOn(placed).flatMap(({ paragraph, from, to, x, y }) => {
      let down = y
      return paragraph.lines.slice(from, to).map((line): SeenLine => {
        const shown = line.runs.flatMap(({ run }) => run.shows ?? [])
        // A field is a character that stands for what it shows.
        const text = paragraph.text.slice(line.from, line.to).replace(/\ufffc/g, () => shown.shift() ?? "")
        const seen = { x: x + line.x, y: down, text }
        down += line.height
        return seen
      })
    }),
  }))
}

// What is written is rounded to a twentieth of a point, a border to an eighth, and that adds up over a sheet. A wavy
// line is a plain one in OpenDocument, which is lower by a point and a half.
test.each([
  ["docx", 1],
  ["odt", 2],
  ["rtf", 1],
] as const)("every line lies where it lay: %s, within points: %d", (kind, near) => {
  for (const { name, doc } of documents) {
    if (kind !== "docx" && hasRound(doc)) continue
    const bytes = formats[kind].write!({ name, doc }, (sha256) => app.assets.bytes(sha256))
    const back = formats[kind].read!(bytes, {}).doc
    const [own, others] = [sheets(name, doc), sheets(name, back)]
    expect([name, others.map(({ size }) => size)]).toEqual([name, own.map(({ size }) => size)])
    own.forEach(({ lines }, i) => {
      const found = others[i]!.lines
      expect([name, found.map(({ text }) => text)]).toEqual([name, lines.map(({ text }) => text)])
      const far = lines.filter(({ x, y }, n) => Math.abs(x - found[n]!.x) > near || Math.abs(y - found[n]!.y) > near)
      expect([name, i, far]).toEqual([name, i, []])
    })
  }
})
