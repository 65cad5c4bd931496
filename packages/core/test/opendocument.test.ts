/** OpenDocument text in and out. */
import fc from "fast-check"
import {
  bodyOf,
  cellFormat,
  document,
  documentAttrs,
  edgeStory,
  fieldAttrs,
  leavesOf,
  limits,
  paragraph,
  paragraphAttrs,
  pictureFormat,
  sectionsOf,
  storiesOf,
  type LetterFormat,
  type ParagraphFormat,
} from "../src/document"
import { ReadingError } from "../src/document/reading"
import { namespaces } from "../src/formats/opendocument/names"
import { readOpenDocument } from "../src/formats/opendocument/reading"
import { writeOpenDocument } from "../src/formats/opendocument/writing"
import { readFile } from "../src/formats/table"
import { zip } from "../src/formats/zip"
import { documents, formatsOf, lettersOf, order, picture, plain, png, said } from "./officeDocuments"
import type { Node } from "prosemirror-model"

const declared = Object.entries(namespaces)
  .map(([prefix, uri]) => `xmlns:${prefix}="${uri}"`)
  .join(" ")

/** A flat file with that as its text, and styles. */
const flat = (text: string, { automatic = "", named = "", masters = "" } = {}) =>
  new TextEncoder().encode(
    `<?xml version="1.0"?><office:document ${declared}><office:styles>${named}</office:styles><office:automatic-styles>${automatic}</office:automatic-styles><office:master-styles>${masters}</office:master-styles><office:body><office:text>${text}</office:text></office:body></office:document>`,
  )
const read = (...made: Parameters<typeof flat>) => readOpenDocument(flat(...made))
const blocksIn = (...made: Parameters<typeof flat>) => bodyOf(read(...made).doc).children
const style = (family: string, content: string, more = "") =>
  `<style:style style:name="S" style:family="${family}" ${more}>${content}</style:style>`
const around = (doc: Node) =>
  readOpenDocument(writeOpenDocument(doc, { name: "Tides", asset: (name) => (name === picture ? png : undefined) })).doc

test.each<[string, Partial<LetterFormat>]>([
  ['fo:font-weight="bold" fo:font-style="normal"', { bold: true, italic: false }],
  ['fo:font-size="11.5pt" fo:color="#AB12CD"', { size: 11.5, colour: "#ab12cd" }],
  [`fo:font-family="'Arial', sans-serif"`, { family: "Arimo" }],
  [
    'style:text-underline-style="wave" style:text-underline-color="#ff0000"',
    { underline: "wavy", underlineColour: "#ff0000" },
  ],
  ['style:text-line-through-style="solid" style:text-line-through-type="double"', { strike: "double" }],
  ['style:text-position="33% 58%" fo:letter-spacing="1mm"', { script: "super", spacing: 2.83 }],
  ['fo:font-variant="small-caps" fo:background-color="#ffff00"', { caps: "small", highlight: "#ffff00" }],
  ['fo:language="fr" fo:country="FR"', { language: "fr-FR" }],
  ['fo:font-weight="700" fo:font-style="oblique"', { bold: true, italic: true }],
  ['fo:font-weight="constructor" fo:color="red" fo:letter-spacing="constructor"', { bold: false }],
  ['style:text-underline-style="none" style:text-line-through-style="none"', { underline: "none", strike: "none" }],
  ['style:text-underline-style="solid" style:text-underline-type="double"', { underline: "double" }],
  ['style:text-underline-style="solid" style:text-underline-width="bold"', { underline: "thick" }],
  [
    'style:text-underline-style="dotted" style:text-line-through-style="solid"',
    { underline: "dotted", strike: "single" },
  ],
  ['style:text-underline-style="long-dash" fo:letter-spacing="normal"', { underline: "dashed", spacing: 0 }],
  ['style:text-position="sub 58%"', { script: "sub" }],
  ['style:text-position="0% 100%"', { script: "none" }],
  ['fo:text-transform="uppercase" fo:background-color="transparent"', { caps: "all", highlight: null }],
  ['fo:font-variant="normal" fo:text-shadow="none"', { caps: "none", shadow: false }],
  [
    'style:text-outline="true" fo:text-shadow="1pt 1pt" style:letter-kerning="false"',
    { outline: true, shadow: true, kerning: false },
  ],
  ['fo:font-size="9000pt"', { size: limits.size[1] }],
  ['fo:font-size="1e3pt" fo:language="none" fo:country="none"', {}],
])("letters: %s", (properties, format) => {
  const automatic = style("text", `<style:text-properties ${properties}/>`)
  const [block] = blocksIn('<text:p><text:span text:style-name="S">Tide</text:span></text:p>', { automatic })
  expect(lettersOf(block?.firstChild as Node)).toEqual(format)
})

test.each<[string, Partial<ParagraphFormat>]>([
  ['fo:text-align="justify" fo:keep-with-next="always"', { align: "justify", keepNext: true }],
  [
    'fo:margin-top="0.5cm" fo:margin-bottom="0cm" fo:line-height="150%"',
    { spaceBefore: 14.17, spaceAfter: 0, lineSpacing: { rule: "multiple", value: 1.5 } },
  ],
  ['fo:margin-left="1in" fo:text-indent="-0.5in"', { indentLeft: 72, indentFirst: -36 }],
  ['style:writing-mode="rl-tb" fo:text-align="start"', { direction: "rtl", align: "right" }],
  ['fo:break-before="page" fo:orphans="3"', { breakBefore: true, orphans: 3 }],
  ['fo:break-before="column"', { columnBefore: true }],
  ['fo:break-before="auto" fo:widows="0"', { breakBefore: false, widows: 1 }],
  ['fo:break-before="even-page" fo:widows="constructor"', { breakBefore: true }],
  ['fo:text-align="constructor" style:writing-mode="constructor"', {}],
  ['fo:text-align="end"', { align: "right" }],
  [
    'style:writing-mode="rl" fo:text-align="end" fo:margin-left="10pt"',
    { direction: "rtl", align: "left", indentRight: 10 },
  ],
  ['fo:margin="6pt"', { spaceBefore: 6, spaceAfter: 6, indentLeft: 6, indentRight: 6 }],
  ['fo:line-height="14pt"', { lineSpacing: { rule: "exact", value: 14 } }],
  ['fo:line-height="normal"', { lineSpacing: { rule: "multiple", value: 1 } }],
  ['style:line-height-at-least="14pt"', { lineSpacing: { rule: "atLeast", value: 14 } }],
  ['fo:keep-together="always" style:contextual-spacing="true"', { keepTogether: true, spaceAlike: false }],
  ['fo:background-color="#F0F0F0"', { shading: "#f0f0f0" }],
  ['fo:background-color="transparent" fo:border="none"', { shading: null, borders: {} }],
  ['fo:margin-left="90000pt"', { indentLeft: limits.space[1] }],
  ['fo:margin-left="99999999999999999999999999999999999999pt"', { indentLeft: limits.space[1] }],
  [
    'fo:border-bottom="1pt dashed #00ff00" fo:padding="2pt"',
    { borders: { bottom: { pattern: "dashed", width: 1, colour: "#00ff00", distance: 2 } } },
  ],
])("paragraphs: %s", (properties, format) => {
  const automatic = style("paragraph", `<style:paragraph-properties ${properties}/>`)
  expect(
    paragraphAttrs(blocksIn('<text:p text:style-name="S">Tide</text:p>', { automatic })[0] as Node).format ?? {},
  ).toEqual(format)
})

test("blanks count where they are said, styles by the names that everybody knows, percentages of what they start from", () => {
  const named = `<style:default-style style:family="paragraph"><style:text-properties fo:font-size="10pt"/></style:default-style>
    <style:style style:name="Standard" style:family="paragraph"/>
    <style:style style:name="Heading_20_1" style:display-name="Heading 1" style:family="paragraph" style:parent-style-name="Standard" style:default-outline-level="1"><style:text-properties fo:font-size="180%"/></style:style>
    <style:style style:name="constructor" style:family="paragraph" style:parent-style-name="constructor"/>`
  const { doc } = read(
    '<text:h text:style-name="Heading_20_1" text:outline-level="1">Tides\n  and<text:s text:c="3"/>times</text:h><text:h text:outline-level="2">Slack</text:h><text:p text:style-name="constructor">a<text:tab/>b<text:line-break/>c</text:p>',
    { named },
  )
  expect(leavesOf(doc).nodes.map((leaf) => `${leaf.attrs.style as string}: ${leaf.textContent}`)).toEqual([
    "heading1: Tides and   times",
    "heading2: Slack",
    "constructor: a\tb\nc",
  ])
  expect(documentAttrs(doc).styles.styles.heading1).toMatchObject({ outline: 1, letters: { size: 18 } })
})

test("tab stops count from where lines begin, of a style, of what it starts from, or of the paragraph itself", () => {
  const stops = (at: string, more = "") =>
    `<style:paragraph-properties ${more}><style:tab-stops><style:tab-stop style:position="${at}"/></style:tab-stops></style:paragraph-properties>`
  const named = `<style:style style:name="Standard" style:family="paragraph"><style:paragraph-properties fo:margin-left="20pt"/></style:style>`
  const shown = (content: string) => {
    const [block] = blocksIn('<text:p text:style-name="S">a</text:p>', {
      named,
      automatic: style("paragraph", content, 'style:parent-style-name="Standard"'),
    })
    return paragraphAttrs(block as Node).format?.tabs?.map(({ position }) => position)
  }
  expect(shown(stops("30pt"))).toEqual([50])
  expect(shown(stops("30pt", 'fo:margin-left="5pt"'))).toEqual([35])
  const doc = document([paragraph("quotation", ["a"], { tabs: [{ position: 90, align: "left", leader: "none" }] })])
  expect(paragraphAttrs(bodyOf(around(doc)).child(0)).format?.tabs?.[0]?.position).toBe(90)
})

test("lists in levels, going on where they say so, beginning where they say; what follows in an item stands below it", () => {
  const automatic = `<text:list-style style:name="L"><text:list-level-style-number text:level="1" style:num-format="A" style:num-suffix=")"><style:list-level-properties text:space-before="10pt" text:min-label-width="20pt"/></text:list-level-style-number><text:list-level-style-bullet text:level="2" text:bullet-char="–"/></text:list-style>`
  const { doc } = read(
    `<text:list text:style-name="L" xml:id="one"><text:list-item><text:p>a</text:p><text:p>more</text:p><text:list><text:list-item><text:p>in</text:p></text:list-item></text:list></text:list-item></text:list>
     <text:p>between</text:p><text:list text:style-name="L" text:continue-list="one"><text:list-item text:start-value="7"><text:p>b</text:p></text:list-item></text:list><text:list text:style-name="L"><text:list-item><text:p>c</text:p></text:list-item></text:list>`,
    { automatic },
  )
  const places = bodyOf(doc).children.map((own) => paragraphAttrs(own).format?.list ?? null)
  const [a, more, inner, between, b, c] = places
  expect([a?.level, more, inner?.level, between, b?.start]).toEqual([0, null, 1, null, 7])
  expect([inner?.run, b?.run]).toEqual([a?.run, a?.run])
  expect(c?.run).not.toBe(a?.run)
  expect(paragraphAttrs(bodyOf(doc).child(1)).format).toMatchObject({ indentLeft: 30 })
  const [first, second] = documentAttrs(doc).styles.lists[a?.definition ?? ""]?.levels ?? []
  expect(first).toMatchObject({ kind: "number", numbering: "upperLetter", format: "%1)", indent: 30, hanging: 20 })
  expect(second).toMatchObject({ kind: "mark", format: "–" })
})

test("master pages are sections with heads and feet, sections with columns go on below; fields and notes come along", () => {
  const automatic = `<style:page-layout style:name="A"><style:page-layout-properties fo:page-width="400pt" fo:page-height="600pt" fo:margin="40pt"/><style:header-style><style:header-footer-properties fo:min-height="20pt"/></style:header-style></style:page-layout>
    <style:style style:name="New" style:family="paragraph" style:master-page-name="Wide"><style:paragraph-properties style:page-number="5"/></style:style>
    <style:style style:name="Two" style:family="section"><style:section-properties><style:columns fo:column-count="2" fo:column-gap="12pt"/></style:section-properties></style:style>`
  const masters = `<style:master-page style:name="Standard" style:page-layout-name="A"><style:header><text:p>Sheet <text:page-number>1</text:page-number></text:p></style:header></style:master-page><style:master-page style:name="Wide" style:page-layout-name="gone"/>`
  const { doc } = read(
    `<text:p>one<text:note text:note-class="footnote"><text:note-citation>1</text:note-citation><text:note-body><text:p>Said.</text:p></text:note-body></text:note></text:p>
     <text:section text:style-name="Two"><text:p>two</text:p></text:section><text:p text:style-name="New">three <text:page-number>9</text:page-number></text:p><text:table-of-content><text:table-of-content-source text:outline-level="2"/><text:index-body><text:p>x</text:p></text:index-body></text:table-of-content>`,
    { automatic, masters },
  )
  const sections = sectionsOf(doc).map(({ setup }) => [
    Math.round(setup.width),
    setup.columns.count,
    setup.begins,
    setup.numbering.start,
  ])
  expect(sections).toEqual([
    [400, 1, "sheet", null],
    [400, 2, "continuous", null],
    [400, 1, "continuous", null],
    [595, 1, "sheet", 5],
  ])
  expect(documentAttrs(doc).setup.margins.top).toBe(60)
  const stories = storiesOf(doc)
    .values()
    .map(({ node }) => `${node.attrs.kind as string}: ${node.textContent}`)
  // The wide sheets have no head: an empty one stands in place of the one before.
  expect(stories).toEqual(["note: Said.", "header: Sheet –", "header: "])
  expect(
    bodyOf(doc)
      .children.filter((own) => own.type.name === "contents")
      .map((own) => own.attrs.levels as number),
  ).toEqual([2])
  expect(bodyOf(doc).textContent).toContain("three 9")
})

test("sections go on with the heads and feet of those before them where their master pages have the same", () => {
  const style = (name: string) =>
    `<style:style style:name="To${name}" style:family="paragraph" style:master-page-name="${name}"/>`
  const master = (name: string, head: string, foot: string) =>
    `<style:master-page style:name="${name}" style:page-layout-name="A"><style:header><text:p>${head}</text:p></style:header><style:footer><text:p>${foot}</text:p></style:footer></style:master-page>`
  const { doc } = read(
    `<text:p>one</text:p>${["Two", "Three", "Two", "Standard"].map((name) => `<text:p text:style-name="To${name}">${name}</text:p>`).join("")}`,
    {
      automatic: `<style:page-layout style:name="A"/>${["Standard", "Two", "Three"].map(style).join("")}`,
      masters: master("Standard", "Tides", "Foot") + master("Two", "Tides", "Other") + master("Three", "Tides", "Foot"),
    },
  )
  const told = (own: Node) => {
    const sections = sectionsOf(own)
    return (["head", "foot"] as const).map((edge) =>
      sections.map(({ setup }, i) => {
        const words = storiesOf(own).get(edgeStory(sections, i, edge, "all") ?? "")?.node.textContent
        return `${words}${setup[edge].all === null ? " as before" : ""}`
      }),
    )
  }
  expect(told(doc)).toEqual([
    ["Tides", ...Array<string>(4).fill("Tides as before")],
    ["Foot", "Other", "Foot", "Other", "Foot"],
  ])
  expect(told(readOpenDocument(writeOpenDocument(doc, { name: null, asset: () => undefined })).doc)).toEqual(told(doc))
})

test("tables with spans and heads, pictures of the archive and of the text itself, references that stay true", () => {
  const automatic = `<style:style style:name="Ce" style:family="table-cell"><style:table-cell-properties fo:background-color="#112233" fo:border="0.5pt solid #000000" fo:padding="3pt"/></style:style>`
  const cell = (text: string, more = "") => `<table:table-cell ${more}><text:p>${text}</text:p></table:table-cell>`
  const data = Buffer.from(png).toString("base64")
  const { doc, assets } = read(
    `<table:table><table:table-column table:number-columns-repeated="2"/><table:table-header-rows><table:table-row>${cell("a", 'table:number-columns-spanned="2" table:style-name="Ce"')}<table:covered-table-cell/></table:table-row></table:table-header-rows>
     <table:table-row>${cell("b", 'table:number-rows-spanned="2"')}${cell("c")}</table:table-row><table:table-row><table:covered-table-cell/>${cell("d")}</table:table-row></table:table>
     <text:p><draw:frame text:anchor-type="as-char" svg:width="40pt" svg:height="30pt"><draw:image><office:binary-data>${data}</office:binary-data></draw:image><svg:desc>A buoy</svg:desc></draw:frame></text:p>
     <text:p><text:bookmark-start text:name="tides"/>Tides<text:bookmark-end text:name="tides"/></text:p><text:p><text:bookmark-ref text:ref-name="tides" text:reference-format="text">Tides</text:bookmark-ref> <text:bookmark-ref text:ref-name="tides" text:reference-format="text">other</text:bookmark-ref></text:p>`,
    { automatic },
  )
  const [grid, shown, , refs] = bodyOf(doc).children as [Node, Node, Node, Node]
  expect(
    grid.children.map((row) => row.children.map((own) => `${own.textContent}${own.attrs.colspan}${own.attrs.rowspan}`)),
  ).toEqual([["a21"], ["b12", "c11"], ["d11"]])
  expect(cellFormat(grid.firstChild?.firstChild as Node)).toMatchObject({
    shading: "#112233",
    borders: { top: { width: 0.5 } },
  })
  expect(pictureFormat(shown.firstChild as Node)).toMatchObject({ width: 40, height: 30, alt: "A buoy" })
  expect([...assets.keys()]).toEqual([picture])
  expect(refs.children.map((own) => own.text ?? fieldAttrs(own).format)).toEqual(["words tides", " other"])
})

const runsOf = { numRuns: Number(process.env.BIBLON_RUNS ?? 60) }

test("what is written comes back: all text, letters, paragraphs, lists; and what came back comes back the same", () => {
  fc.assert(
    fc.property(documents, (doc) => {
      const once = around(doc)
      expect(plain(around(once))).toEqual(plain(once))
      expect(said(once)).toEqual(said(doc))
      expect(order(once)).toEqual(order(doc))
      // New sheets are begun by sections themselves.
      const empty = (own: object | null) => (own && Object.keys(own).length > 0 ? own : null)
      const close = (own: unknown) =>
        JSON.parse(
          JSON.stringify(own, (name: string, value: unknown) => (name === "breakBefore" ? undefined : value)),
        ) as (object | null)[]
      expect(close(formatsOf(once)).map(empty)).toEqual(close(formatsOf(doc)).map(empty))
    }),
    runsOf,
  )
})

test("what is no such file, or is damaged, is said so or read as far as it goes; changed bytes do no more", () => {
  expect(() => readOpenDocument(new TextEncoder().encode("<html/>"))).toThrow("no OpenDocument text")
  expect(() => readOpenDocument(zip(new Map([["styles.xml", new Uint8Array([60])]])))).toThrow("main part is missing")
  const locked = zip(
    new Map([
      ["content.xml", flat("")],
      ["META-INF/manifest.xml", new TextEncoder().encode("<a><manifest:encryption-data/></a>")],
    ]),
  )
  expect(() => readOpenDocument(locked)).toThrow("protected by a password")
  const whole = flat("<text:p>Tide</text:p><text:p>Slack")
  expect(readFile(whole, "a.txt").doc.textContent).toBe("TideSlack")
  expect(readOpenDocument(whole.subarray(0, whole.length - 60)).left).toContainEqual({
    what: "damaged parts, read as far as they go",
    count: 1,
    leaves: [],
  })
  const text =
    '<text:list><text:list-item text:start-value="3"><text:p text:style-name="S">Tide</text:p></text:list-item></text:list><table:table><table:table-row><table:table-cell table:number-columns-spanned="3"><text:p>c</text:p></table:table-cell></table:table-row></table:table>'
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(text.length), fc.constantFrom("<", ">", "9", "-", '"', "text:", "&", "/", "e99")), {
        minLength: 1,
        maxLength: 5,
      }),
      (changes) => {
        const mutated = changes.reduce((own, [at, sign]) => own.slice(0, at) + sign + own.slice(at + 1), text)
        try {
          read(mutated)
        } catch (error) {
          if (!(error instanceof ReadingError)) throw error
        }
      },
    ),
    runsOf,
  )
})

test("what is left out is told with its paragraphs", () => {
  const { left } = read(`<text:p>one</text:p><text:p>two<draw:line/></text:p><text:p>three</text:p>`)
  expect(left).toEqual([{ what: "shapes", count: 1, leaves: [1] }])
})
