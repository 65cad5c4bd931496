/** RTF read: by hand for each property, from an independent writer, and damaged. */
import { execFileSync } from "node:child_process"
import fc from "fast-check"
import {
  defaultSetup,
  defaultStyles,
  document,
  documentAttrs,
  labelsOf,
  leavesOf,
  letterLook,
  nodes,
  p,
  paragraph,
  paragraphLook,
  pictureFormat,
  type PictureFormat,
  sectionsOf,
  storiesOf,
  textOf,
  type StoryKind,
  type Style,
} from "../src/document"
import { ReadingError } from "../src/document/reading"
import { momentRead, momentWritten } from "../src/formats/rtf/moments"
import { writeRtf } from "../src/formats/rtf/writing"
import { readFile } from "../src/formats/table"
import { documents, order, picture, png, said } from "./officeDocuments"
import type { Node } from "prosemirror-model"

const head = String.raw`{\rtf1\ansi\ansicpg1252\deff0\deflang2057{\fonttbl{\f0\fcharset0 Times New Roman;}{\f1 Arial;}{\f2\fcharset204 Arial;}}
{\colortbl;\red122\green31\blue75;\red244\green227\blue181;}
{\stylesheet{\fs24 Normal;}{\s1\sb240\keepn\b\fs32\outlinelevel0\sbasedon0 heading 1;}}`
const bytes = (text: string) => Uint8Array.from(text, (sign) => sign.charCodeAt(0) & 255)
const read = (body: string) => readFile(bytes(`${head}${body}}`), "x.rtf")
const leaf = (body: string, n = 0) => leavesOf(read(body).doc).node(n)
const runs = (node: Node) =>
  node.children.map((child) => [
    child.text ?? child.type.name,
    Object.fromEntries(child.marks.map((m) => [m.type.name, m.attrs.value as unknown])),
  ])
const format = (node: Node) => node.attrs.format as Record<string, unknown> | null

test.each([
  [
    String.raw`\b bold\b0  not`,
    [
      ["bold", { bold: true }],
      [" not", {}],
    ],
  ],
  [String.raw`\i\ul both`, [["both", { italic: true, underline: "single" }]]],
  [
    String.raw`\uldb a{\uldash b}\ulnone c`,
    [
      ["a", { underline: "double" }],
      ["b", { underline: "dashed" }],
      ["c", {}],
    ],
  ],
  [
    String.raw`x{\super 2}{\sub i}`,
    [
      ["x", {}],
      ["2", { script: "super" }],
      ["i", { script: "sub" }],
    ],
  ],
  [String.raw`{\f1\fs36 large}`, [["large", { family: "Arimo", size: 18 }]]],
  [String.raw`{\cf1\highlight2 ink}`, [["ink", { colour: "#7a1f4b", highlight: "#f4e3b5" }]]],
  [
    String.raw`{\strike a}{\scaps b}{\caps c}`,
    [
      ["a", { strike: "single" }],
      ["b", { caps: "small" }],
      ["c", { caps: "all" }],
    ],
  ],
  [String.raw`{\lang1031 Fähre}`.replace("ä", String.raw`\'e4`), [["Fähre", { language: "de-DE" }]]],
  [
    String.raw`{\expndtw20 wide}{\up6 high}`,
    [
      ["wide", { spacing: 1 }],
      ["high", { raise: 3 }],
    ],
  ],
  [String.raw`\u8364?5 \u-10179?\u-8704?`, [["€5 😀", {}]]],
  [String.raw`{\uc2\u8220\'93\'93x\u8221\'94\'94}`, [["“x”", {}]]],
  [String.raw`{\f2 \'cf\'f0}`, [["Пр", { family: "Arimo" }]]],
  [String.raw`a\emdash b\~c\_d\-e\ldblquote f\rdblquote`, [["a—b\u00a0c\u2011d\u00ade“f”", {}]]],
  [
    String.raw`a\tab b\line c`,
    [
      ["a\tb", {}],
      ["lineBreak", {}],
      ["c", {}],
    ],
  ],
  [String.raw`{\*\unknown all of {\b this} is passed}kept`, [["kept", {}]]],
  [String.raw`{\v hidden}{\deleted gone}seen`, [["seen", {}]]],
])("letters: %s", (body, expected) => {
  expect(runs(leaf(`\\pard\\plain ${body}\\par`))).toEqual(expected)
})

test.each([
  [String.raw`\qc\sb120\sa60`, { align: "center", spaceBefore: 6, spaceAfter: 3 }],
  [String.raw`\li720\ri360\fi-360`, { indentLeft: 36, indentRight: 18, indentFirst: -18 }],
  [String.raw`\sl480\slmult1`, { lineSpacing: { value: 2 } }],
  [String.raw`\sl-300`, { lineSpacing: { rule: "exact", value: 15 } }],
  [String.raw`\keep\keepn\pagebb`, { keepNext: true, keepTogether: true, breakBefore: true }],
  [String.raw`\cbpat2`, { shading: "#f4e3b5" }],
])("paragraphs: %s", (words, expected) => {
  expect(format(leaf(`\\pard${words} x\\par`))).toMatchObject(expected)
})

test("tab stops, lines round a paragraph", () => {
  const own = format(leaf(String.raw`\pard\tqr\tldot\tx7200\tx8000\brdrt\brdrdb\brdrw20\brdrcf1 x\par`))
  expect(own?.tabs).toMatchObject([
    { align: "right", leader: "dotted", position: 360 },
    { align: "left", position: 400 },
  ])
  expect(own?.borders).toMatchObject({ top: { pattern: "double", colour: "#7a1f4b" } })
})

test("text is as it says, whatever its style: what that has as well is not repeated", () => {
  const said = leaf(String.raw`\pard\s1\sb240\keepn{\b\fs32 As its style\par}`)
  expect([said.attrs.style, format(said), runs(said)]).toEqual(["heading1", null, [["As its style", {}]]])
  expect(runs(leaf(String.raw`\pard\s1\sb240\keepn plain\par`))[0]?.[1]).toEqual({ bold: false, size: 12 })
})

test("lists by their table, with levels; and of the older kind", () => {
  const table = String.raw`{\*\listtable{\list{\listlevel\levelnfc0{\leveltext\'02\'00.;}{\levelnumbers\'01;}\fi-360\li720}{\listlevel\levelnfc4{\leveltext\'02\'01);}{\levelnumbers\'01;}\fi-360\li1440}\listid77}}{\*\listoverridetable{\listoverride\listid77\ls1}}`
  const { doc } = read(
    `${table}\\pard\\ls1\\ilvl0{\\listtext 1.\\tab}First\\par\\pard\\ls1\\ilvl1{\\listtext a)\\tab}Inner\\par`,
  )
  expect(leavesOf(doc).nodes.map((node) => [textOf(node), format(node)?.list])).toMatchObject([
    ["First", { level: 0 }],
    ["Inner", { level: 1 }],
  ])
  const { lists } = documentAttrs(doc).styles
  expect(Object.values(lists)[0]?.levels.slice(0, 2)).toMatchObject([
    { numbering: "decimal", format: "%1." },
    { numbering: "lowerLetter", format: "%2)" },
  ])
  const older = leaf(String.raw`\pard{\pntext\'b7\tab}{\*\pn\pnlvlblt\pnf1{\pntxtb\'b7}}Marked\par`)
  expect([textOf(older), format(older)?.list]).toMatchObject(["Marked", { level: 0 }])
})

test("tables with joined cells, head rows and grounds; a row that never ends", () => {
  const { doc } = read(
    String.raw`\pard\trowd\trhdr\clcbpat2\cellx2000\cellx5000\intbl A\cell B\cell\row\trowd\clmgf\cellx2000\clmrg\cellx5000\intbl wide\cell\cell\row\trowd\cellx3000\cellx5000\intbl C\cell D\cell\pard After\par`,
  )
  const [table] = [doc.child(0).child(0)]
  expect(table?.type.name).toBe("table")
  expect(table?.children.map((row) => row.children.map((cell) => [cell.attrs.colspan, cell.textContent]))).toEqual([
    [
      [1, "A"],
      [2, "B"],
    ],
    [[3, "wide"]],
    [
      [2, "C"],
      [1, "D"],
    ],
  ])
  expect(doc.child(0).lastChild?.textContent).toBe("After")
})

type Nest = string | Nest[][][]
/** Blocks as their text, and tables as the blocks of their cells. */
const nest = (node: Node): Nest[] =>
  node.children.map((own) =>
    own.type.name === "table" ? own.children.map((row) => row.children.map(nest)) : own.textContent,
  )

test("tables in cells, whose rows are told of at their ends; those that are deeper than any around them, and that never end", () => {
  const first = (words: string) => read(words).doc.child(0).child(0)
  const nested = String.raw`\pard\intbl\itap2 A\nestcell B\par b\nestcell{\*\nesttableprops\trowd\cellx1000\clcbpat1\cellx2000\nestrow}{\nonesttables\par}`
  const row = (own: string) => String.raw`\pard\trowd\clcbpat2\cellx4000\cellx6000 ${own}\row\pard`
  const inner = [["A"], ["B", "b"]]
  const outer = first(row(String.raw`\intbl before\par ${nested}\pard\intbl behind\cell next\cell`))
  expect(outer.child(0).children.map(nest)).toEqual([["before", [inner], "behind"], ["next"]])
  expect(outer.firstChild?.child(0).attrs.format).toMatchObject({ shading: "#f4e3b5" })
  expect(outer.firstChild?.child(0).child(1).child(0).child(1).attrs.format).toMatchObject({ shading: "#7a1f4b" })

  const cells = (own: string) => first(row(own)).child(0).children.map(nest)
  expect(cells(String.raw`${nested}${nested}\pard\intbl\cell`)).toEqual([[[inner, inner], ""]])
  expect(cells(String.raw`${nested.replaceAll("itap2", "itap3")}\pard\intbl\cell`)).toEqual([[[[[[inner]]]], ""]])
  expect(cells(String.raw`\pard\intbl A\nestcell B\cell`)).toEqual([[[[["A"]]], "B"]])
})

test("heads, feet, sections, paper, columns, notes, links, fields, places, pictures, names", () => {
  const png =
    "89504e470d0a1a0a0000000d49484452000000010000000108060000001f15c4890000000d49444154789c6360f8cf500f0003050101008bd5a5be0000000049454e44ae426082"
  const { doc, name, assets, left } = read(
    String.raw`{\info{\title Tides}{\author Nell}}\paperw11906\paperh16838\margl1000\sectd\titlepg{\headerf First\par}{\footer\qc Sheet \chpgn\par}
\pard See {\*\bkmkstart here}this{\*\bkmkend here} {\field{\*\fldinst{ HYPERLINK "https://ferry.example/"}}{\fldrslt{link}}}{\footnote Below}{\footnote\ftnalt At the end}.
{\*\shppict{\pict\pngblip\picwgoal600\pichgoal300 ${png}}}{\nonshppict{\pict\wmetafile8 0100}}{\*\annotation A word}\par\sect\sectd\sbknone\cols2\colsx400 Two columns\par`,
  )
  expect(name).toBe("Tides")
  expect(documentAttrs(doc).properties.author).toBe("Nell")
  const [first, second] = sectionsOf(doc).map(({ setup }) => setup)
  expect(first).toMatchObject({ width: 595.3, height: 841.9, margins: { left: 50 } })
  expect(second?.columns).toMatchObject({ count: 2, gap: 20 })
  const kinds = [...storiesOf(doc).values()].map(({ node }): [StoryKind, string] => [
    node.attrs.kind as StoryKind,
    node.textContent,
  ])
  expect(kinds).toEqual(
    expect.arrayContaining([
      ["header", "First"],
      ["note", "Below"],
      ["endnote", "At the end"],
    ]),
  )
  expect(runs(leavesOf(doc).node(0)).find(([text]) => text === "link")?.[1]).toMatchObject({
    link: "https://ferry.example/",
  })
  expect([assets.size, left]).toEqual([1, []])
  // What was said at a place without words is of those before it.
  expect(Object.values(documentAttrs(doc).comments)).toEqual([{ author: "", at: "", text: "A word" }])
})

test("comments with their words, by whom and when; drop caps; lines round sheets", () => {
  const { doc, left } = read(
    String.raw`\sectd\pgbrdropt32\pgbrdrt\brdrdb\brdrw30\brsp400\brdrcf1\pgbrdrb\brdrs\pard\dropcapli2\dropcapt1\dfrmtxtx100\fs60 O\par\pard nce {\*\atrfstart 7}the tide{\*\atrfend 7}` +
      String.raw`{\*\atnid NB}{\*\atnauthor Nell \u246?}\chatn{\*\annotation{\*\atnref 7}{\*\atndate ${momentWritten("2026-11-03T09:41:00Z")}}\pard\plain Which?\par\pard And when?} turned.\par`,
  )
  expect([textOf(leavesOf(doc).node(0)), left]).toEqual(["Once the tide turned.", []])
  const said = { author: "Nell ö", at: "2026-11-03T09:41:00Z", text: "Which?\nAnd when?" }
  const [[key, comment] = []] = Object.entries(documentAttrs(doc).comments)
  expect(comment).toEqual(said)
  expect(runs(leavesOf(doc).node(0)).find(([text]) => text === "the tide")?.[1]).toMatchObject({ comment: key })
  expect(paragraphLook(documentAttrs(doc).styles, leavesOf(doc).node(0)).paragraph.dropCap).toMatchObject({
    lines: 2,
    distance: 5,
  })
  const frame = { pattern: "double", width: 1.5, colour: "#7a1f4b", distance: 20 }
  expect(sectionsOf(doc)[0]?.setup.frame).toEqual(frame)
  const back = readFile(writeRtf(doc, sources), "x.rtf").doc
  expect(Object.values(documentAttrs(back).comments)).toEqual([said])
  expect(sectionsOf(back)[0]?.setup.frame).toEqual(frame)
  expect(leavesOf(back).node(0).attrs.format).toMatchObject({ dropCap: { lines: 2, distance: 5 } })
})

test("headings that are numbered by their style stay so, but for those that say that they are not", () => {
  const { heading1 } = defaultStyles.styles as { heading1: Style }
  const list = { definition: "numbers", run: "", level: 0 }
  const styles = {
    ...defaultStyles,
    styles: { ...defaultStyles.styles, heading1: { ...heading1, paragraph: { ...heading1.paragraph, list } } },
  }
  const doc = document(
    [
      paragraph("heading1", ["Tides"]),
      p("Slack water."),
      paragraph("heading1", ["Thanks"], { list: null }),
      paragraph("heading1", ["Fares"]),
    ],
    { styles },
  )
  const { doc: back } = readFile(writeRtf(doc, sources), "x.rtf")
  for (const own of [doc, back]) expect(labelsOf(own).map((label) => label ?? "")).toEqual(["1.", "", "", "2."])
  expect(leavesOf(back).nodes.map((leaf) => (leaf.attrs.format as { list?: unknown } | null)?.list)).toEqual([
    undefined,
    undefined,
    null,
    undefined,
  ])
})

const floats: fc.Arbitrary<Partial<PictureFormat>> = fc.record({
  wrap: fc.constantFrom("beside", "across", "under", "over"),
  side: fc.constantFrom("both", "left", "right", "wider"),
  width: fc.integer({ min: 20, max: 200 }),
  height: fc.integer({ min: 20, max: 200 }),
  turn: fc.integer({ min: -179, max: 180 }),
  distance: fc.integer({ min: 0, max: 40 }),
  opacity: fc.integer({ min: 2, max: 100 }).map((n) => n / 100),
  alt: fc.constantFrom("", "A {pier} \\\\ ö"),
  across: fc.record({
    of: fc.constantFrom("column", "margins", "sheet"),
    align: fc.constantFrom(null, "left", "center", "right"),
    at: fc.integer({ min: -60, max: 200 }),
  }),
  down: fc.record({ of: fc.constantFrom("paragraph", "margins", "sheet"), at: fc.integer({ min: -60, max: 200 }) }),
})

test("pictures that text goes round stand where they stood", () => {
  fc.assert(
    fc.property(floats, (format) => {
      const own = nodes.picture.create({ asset: picture, source: null, pixels: [8, 6], format })
      const back = readFile(writeRtf(document([paragraph("body", ["see ", own])]), sources), "x.rtf")
      const read = pictureFormat(leavesOf(back.doc).node(0).child(1))
      const { wrap, across, down } = pictureFormat(own)
      const side = wrap === "beside" ? format.side : "both"
      const at = across.align === null ? across.at : 0
      expect([read, back.left]).toEqual([{ ...pictureFormat(own), side, across: { ...across, at }, down }, []])
    }),
  )
})

test("text in shapes follows its paragraph, of the older kind and of those that stand together too; lines are told", () => {
  const box = (text: string) =>
    String.raw`{\shp{\*\shpinst\shpleft0{\sp{\sn shapeType}{\sv 202}}{\shptxt \pard\plain ${text}\par}}{\shprslt{\pard Old\par}}}`
  const { doc, left } = read(
    String.raw`Before ${box("In a box {\\b bold}")}{\shpgrp{\*\shpinst ${box("One")}${box("Two")}}}{\*\do\dptxbx{\dptxbxtext \pard Older\par}}{\shp{\*\shpinst{\sp{\sn shapeType}{\sv 20}}}} after\par`,
  )
  const lines = leavesOf(doc).nodes.map(textOf)
  expect(lines).toEqual(["Before  after", "In a box bold", "One", "Two", "Older"])
  expect(left.map(({ what, count }) => [what, count])).toEqual([
    ["drawings", 1],
    ["text boxes, whose text follows the paragraph", 4],
  ])
})

test("a moment is one number, to the minute; what is none is none", () => {
  fc.assert(
    fc.property(fc.date({ min: new Date("1900-01-01"), max: new Date("2411-12-31"), noInvalidDate: true }), (date) => {
      const iso = date.toISOString()
      expect(momentRead(momentWritten(iso) ?? 0)).toBe(`${iso.slice(0, 16)}:00Z`)
    }),
  )
  expect([momentWritten("when"), momentWritten("9999-01-01T00:00:00Z"), momentRead(0)]).toEqual([null, null, null])
})

test("parts and a cover are sections that go on to be", () => {
  const setup = { ...defaultSetup, cover: "pier" as const }
  const blocks = [p("Cover"), nodes.sectionBreak.create({ setup: { ...defaultSetup, width: 420 } }), p("Text")]
  const { doc } = readFile(writeRtf(document(blocks, { setup, part: { name: "One", sign: null } }), sources), "x.rtf")
  expect(sectionsOf(doc).map(({ setup: own }) => Math.round(own.width))).toEqual([595, 420])
})

test("what an independent program writes is read as it wrote it", () => {
  const source =
    "# Tides\n\nThe *ferry* is **late** at the \u2018slip\u2019: caf\u00e9, \u041f\u0440\u0438\u0432\u0435\u0442.\n\n- one\n- two\n\n1. first\n2. second\n\nTerm[^1]\n\n[^1]: A note.\n\n[link](https://ferry.example/)\n\n| A | B |\n|---|---|\n| 1 | 2 |\n"
  const rtf = execFileSync("pandoc", ["-f", "markdown", "-t", "rtf", "-s"], { input: source })
  const { doc } = readFile(new Uint8Array(rtf), "x.rtf")
  const all = leavesOf(doc).nodes.map((node) =>
    textOf(node)
      .replace(/[\ufffc\t]/g, "")
      .trim(),
  )
  for (const words of ["Tides", "The ferry is late at the ‘slip’: café, Привет.", "Term", "link", "A", "2"])
    expect(all).toContain(words)
  expect(all.join(" ")).toContain("A note.")
  expect(doc.child(0).children.some(({ type }) => type.name === "table")).toBe(true)
})

const sources = { name: null, asset: (name: string) => (name === picture ? png : undefined) }

/** How each paragraph that says something looks, and each stretch of its letters. */
function looks(doc: Node) {
  const { styles } = documentAttrs(doc)
  return leavesOf(doc)
    .nodes.filter((leaf) => leaf.content.size > 0)
    .map((leaf) => {
      const { letters: base, paragraph: own } = paragraphLook(styles, leaf)
      const stretches: [string, unknown][] = []
      leaf.forEach((child) => {
        const { family, size, bold, italic, underline, strike, caps, script, colour, highlight, spacing } = letterLook(
          styles,
          base,
          child.marks,
        )
        const look = JSON.stringify([
          family,
          size,
          bold,
          italic,
          underline,
          strike,
          caps,
          script,
          colour,
          highlight,
          spacing,
        ])
        const last = stretches.at(-1)
        if (last?.[1] === look && child.isText) last[0] += child.text ?? ""
        else stretches.push([child.text ?? child.type.name, child.isText ? look : null])
      })
      const { align, direction, lineSpacing, spaceBefore, spaceAfter, indentFirst, keepNext, breakBefore, shading } =
        own
      const level = own.list?.level ?? null
      return {
        stretches,
        format: {
          align,
          direction,
          lineSpacing,
          spaceBefore,
          spaceAfter,
          indentFirst,
          keepNext,
          breakBefore,
          shading,
          level,
        },
      }
    })
}

test("what is written comes back and looks the same: text, letters, paragraphs, tables, notes, sections, pictures", () => {
  fc.assert(
    fc.property(documents, (doc) => {
      const { doc: once, left } = readFile(writeRtf(doc, sources), "x.rtf")
      expect(left).toEqual([])
      expect(looks(once)).toEqual(looks(doc))
      expect(order(once)).toEqual(order(doc))
      expect(said(once).map(({ style, atoms }) => [style, atoms])).toEqual(
        said(doc).map(({ style, atoms }) => [style, atoms]),
      )
      const widths = (own: Node) => sectionsOf(own).map(({ setup }) => Math.round(setup.width))
      expect(widths(once)).toEqual(widths(doc))
    }),
    { numRuns: 40 },
  )
})

test("an independent program reads what is written", () => {
  const { doc } = read(
    String.raw`\pard\s1\sb240\keepn{\b\fs32 Harbour\par}\pard The {\b bold} caf\'e9 \u1055?\par\pard\trowd\cellx2000\cellx5000\intbl A\cell B\cell\row\pard See {\field{\*\fldinst HYPERLINK "https://ferry.example/"}{\fldrslt here}}{\footnote Below}\par`,
  )
  const html = execFileSync("pandoc", ["-f", "rtf", "-t", "html"], { input: writeRtf(doc, sources) }).toString()
  for (const part of ["Harbour", "<strong>bold</strong> caf", "П", "<p>A</p>", "<p>B</p>", "here", "Below"])
    expect(html.replace(/\s+/g, " ")).toContain(part)
})

test("however it is damaged or nested, it is read as far as it goes or refused in words", () => {
  const whole = `${head}${String.raw`\pard\trowd\cellx2000\intbl A\cell\row\pard {\footnote x}{\field{\*\fldinst PAGE}{\fldrslt 1}}{\pict\pngblip 00ff}\u-10179?\sect\par`}}`
  const attempt = (text: string) => {
    try {
      readFile(bytes(text), "x.rtf")
    } catch (error) {
      expect(error).toBeInstanceOf(ReadingError)
    }
  }
  fc.assert(
    fc.property(
      fc.array(
        fc.tuple(
          fc.nat(whole.length),
          fc.constantFrom("{", "}", "\\", "\\'", "\\bin9 ", "\\cell ", "\\row ", "\0", ""),
        ),
        { maxLength: 6 },
      ),
      fc.nat(whole.length),
      (changes, end) => {
        let text = `{\\rtf1${whole.slice(6, Math.max(6, end))}`
        for (const [at, sign] of changes)
          text = `${text.slice(0, Math.max(6, at))}${sign}${text.slice(Math.max(6, at + 1))}`
        attempt(text)
      },
    ),
    { numRuns: 150 },
  )
  attempt(`{\\rtf1${"{".repeat(100_000)}deep${"}".repeat(100_000)}}`)
  attempt(`{\\rtf1 ${"\\par ".repeat(20_000)}}`)
  attempt(`{\\rtf1\\trowd${"\\cellx1".repeat(100_000)}\\intbl x\\cell\\row}`)
  attempt(`{\\rtf1${"\\intbl\\itap99999 x\\nestcell\\nestrow\\itap1 y\\par ".repeat(500)}}`)
  for (const own of [String.raw`{\shpgrp{\*\shpinst `, String.raw`{\shp{\*\shpinst{\shptxt a`])
    attempt(`{\\rtf1 ${own.repeat(50_000)}}`)
  attempt(`{\\rtf1\\bin999999999999 x}`)
  attempt("{\\rtf1")
})
