import fc from "fast-check"
import { EditorState } from "prosemirror-state"
import {
  coverNames,
  defaultSetup,
  document,
  documentAttrs,
  edgeStory,
  edgeVariants,
  nodes,
  p,
  sectionsOf,
  storiesOf,
  type PageSetup,
  type Watermark,
} from "../src/document"
import { setCover } from "../src/editing"
import { formats, readFile } from "../src/formats/table"
import { writeOfficeOpenXml } from "../src/formats/officeopenxml/writing"
import { unzip, zip } from "../src/formats/zip"
import { picture, png } from "./officeDocuments"
import type { Node } from "prosemirror-model"

const assets = (name: string) => (name === picture ? png : undefined)
const through = (doc: Node, kind: "docx" | "odt" | "rtf") =>
  readFile(formats[kind].write!({ name: "Tides", doc }, assets), `tides.${kind}`)

const words: fc.Arbitrary<Watermark> = fc.record({
  text: fc.constantFrom("DRAFT", "Copy <2>", "Entwurf & Ä", "a"),
  family: fc.constantFrom("Tinos", "Arimo", "Literata"),
  size: fc.integer({ min: 8, max: 200 }),
  angle: fc.integer({ min: -90, max: 90 }),
  colour: fc.constantFrom("#7a1f4b", "#c0c0c0"),
  strength: fc.integer({ min: 2, max: 100 }).map((n) => n / 100),
})
const pictured = words.map(({ size, angle, strength }): Watermark => {
  const plain = { text: "Picture", family: "Arimo", colour: "#808080" }
  return { picture: { asset: picture, pixels: [8, 6] }, ...plain, size, angle, strength }
})
const behind = fc.option(fc.oneof(words, pictured), { nil: null })

/** What the sheets of a section show behind their text, and in which of their heads. */
const shown = (doc: Node) => {
  const sections = sectionsOf(doc)
  const text = (key: string | null) => (key === null ? "" : (storiesOf(doc).get(key)?.node.textContent ?? ""))
  return sections.map(({ setup }, i) => ({
    watermark: setup.watermark,
    heads: edgeVariants.map((variant) =>
      variant === "first" && !setup.firstOwn ? "" : text(edgeStory(sections, i, "head", variant)),
    ),
    foot: text(edgeStory(sections, i, "foot", "all")),
  }))
}

const sectioned: fc.Arbitrary<Node> = fc
  .array(
    fc.record({
      watermark: behind,
      repeats: fc.boolean(),
      head: fc.boolean(),
      first: fc.boolean(),
      foot: fc.boolean(),
      firstOwn: fc.boolean(),
    }),
    { minLength: 1, maxLength: 4 },
  )
  .map((sections) => {
    const stories: Node[] = []
    const story = (has: boolean, kind: "header" | "footer", text: string) => {
      if (!has) return null
      stories.push(nodes.story.create({ key: text, kind }, [p(text)]))
      return text
    }
    let before: Watermark | null = null
    const setups = sections.map((own, i): PageSetup => {
      before = own.repeats ? before : own.watermark
      return {
        ...defaultSetup,
        watermark: before,
        firstOwn: own.firstOwn,
        head: {
          ...defaultSetup.head,
          all: story(own.head, "header", `head ${i}`),
          first: story(own.first && own.firstOwn, "header", `first ${i}`),
        },
        foot: { ...defaultSetup.foot, all: story(own.foot, "footer", `foot ${i}`) },
      }
    })
    const [setup, ...others] = setups
    const blocks = others.flatMap((own, i) => [nodes.sectionBreak.create({ setup: own }), p(`Section ${i + 2}`)])
    return document([p("Section 1"), ...blocks], { setup: setup as PageSetup }, stories)
  })

test.each(["docx", "odt"] as const)(
  "%s: what is behind the text of each section comes back as it was, and heads stay",
  (kind) => {
    fc.assert(
      fc.property(sectioned, (doc) => {
        const back = through(doc, kind)
        expect(shown(back.doc)).toEqual(shown(doc))
        expect(back.left).toEqual([])
      }),
    )
  },
)

test("where nothing but words stands behind the text, no head is left", () => {
  const watermark = { text: "DRAFT", family: "Tinos", size: 96, angle: 45, colour: "#7a1f4b", strength: 0.2 }
  const doc = document([p("text")], { setup: { ...defaultSetup, watermark } })
  for (const kind of ["docx", "odt"] as const) expect(storiesOf(through(doc, kind).doc).size).toBe(0)
})

test("one sheet's words after another's leave no head, though there are feet", () => {
  const watermark = { text: "DRAFT", family: "Tinos", size: 96, angle: 45, colour: "#7a1f4b", strength: 0.2 }
  const foot = { ...defaultSetup.foot, all: "f" }
  const other = { ...defaultSetup, watermark: { ...watermark, text: "COPY" } }
  const blocks = [p("a"), nodes.sectionBreak.create({ setup: other }), p("b")]
  const doc = document(blocks, { setup: { ...defaultSetup, watermark, foot } }, [
    nodes.story.create({ key: "f", kind: "footer" }, [p("foot")]),
  ])
  for (const kind of ["docx", "odt", "rtf"] as const) {
    const back = through(doc, kind).doc
    expect([...storiesOf(back).values()].map(({ node }) => node.textContent).filter((text) => text !== "foot")).toEqual(
      [],
    )
    expect(sectionsOf(back).map(({ setup }) => setup.watermark?.text)).toEqual(["DRAFT", "COPY"])
  }
})

test("a head holds it as a drawing that stands behind the text in the middle of the sheet", () => {
  const watermark = { text: "DRAFT", family: "Tinos", size: 96, angle: 45, colour: "#7a1f4b", strength: 0.2 }
  const doc = document([p("text")], { setup: { ...defaultSetup, watermark } })
  const bytes = unzip(writeOfficeOpenXml(doc, { name: null, asset: assets })).get("word/header1.xml")
  const head = new TextDecoder().decode(bytes)
  expect(head).toContain('behindDoc="1"')
  expect(head.match(/<wp:position[HV] relativeFrom="page"><wp:align>center</g)).toHaveLength(2)
  expect(head).toContain(`rot="${315 * 60_000}"`)
  expect(/<a:t>(.*?)<\/a:t>/.exec(head)?.[1]).toBe("DRAFT")
})

test.each(coverNames)("the cover %s stays one, with what it shows and no head", (design) => {
  const properties = { title: "Tide tables", subtitle: "For 2027", author: "Oda Brandt", organisation: "", date: "" }
  const watermark = { text: "DRAFT", family: "Tinos", size: 96, angle: 45, colour: "#7a1f4b", strength: 0.2 }
  let state = EditorState.create({
    doc: document([p("text")], { setup: { ...defaultSetup, watermark }, properties: properties as never }),
  })
  setCover(design)(state, (tr) => (state = state.apply(tr)))
  for (const kind of ["docx", "odt"] as const) {
    const back = through(state.doc, kind).doc
    const [first, second] = sectionsOf(back).map(({ setup }) => setup)
    expect([first?.cover, second?.cover]).toEqual([design, null])
    expect([first?.watermark, second?.watermark]).toEqual([null, watermark])
    expect(documentAttrs(back).properties.title).toBe("Tide tables")
    let now = EditorState.create({ doc: back })
    setCover(null)(now, (tr) => (now = now.apply(tr)))
    expect([sectionsOf(now.doc).length, now.doc.textContent.includes("text")]).toEqual([1, true])
  }
})

test("what is no number in a shape costs neither the words nor the file", () => {
  const watermark = { text: "DRAFT", family: "Tinos", size: 96, angle: 45, colour: "#7a1f4b", strength: 0.2 }
  const doc = document([p("text")], { setup: { ...defaultSetup, watermark } })
  const spoilt = {
    docx: [/(<a:alpha val=|rot=|sz=)"[^"]*"/g, '$1"a.b"'],
    odt: [/(draw:opacity="|rotate \()[^")]*/g, "$11.2.3"],
  } as const
  for (const kind of ["docx", "odt"] as const) {
    const [pattern, by] = spoilt[kind]
    const files = unzip(formats[kind].write!({ name: "Tides", doc }, assets))
    const bad = new Map(
      [...files].map(([path, own]) => [
        path,
        /header1|styles/.test(path) ? Buffer.from(Buffer.from(own).toString().replace(pattern, by)) : own,
      ]),
    )
    const [setup] = sectionsOf(readFile(zip(bad), `tides.${kind}`).doc).map((own) => own.setup)
    expect(setup?.watermark).toMatchObject({ text: "DRAFT", strength: 1 })
  }
})
