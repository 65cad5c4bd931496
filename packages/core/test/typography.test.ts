/** What the properties of letters and paragraphs come to on the sheet. */
import { readFileSync } from "node:fs"
import {
  defaultSetup,
  defaultStyles,
  textWidth,
  defaultTypesetting,
  document,
  letters,
  p,
  paragraph,
  type LetterFormat,
  type ParagraphFormat,
  leavesOf,
} from "../src/document"
import {
  fragmentsOf,
  caretBox,
  caretStops,
  Composition,
  hit,
  layoutDocument,
  letterRules,
  rangeBoxes,
  rulePath,
  type Layout,
  type LineRun,
  type ParagraphLayout,
} from "../src/layout"
import { hyphenated, patternsFor } from "../src/layout/hyphenation"
import { layoutOf, typesetter } from "../node/typesetting"
import { shown } from "./telling"

const firstOf = (layout: Layout): ParagraphLayout => layout.placed.slice(0, 1).flatMap(fragmentsOf)[0]!.paragraph
const set = (text: string, format: Partial<ParagraphFormat> = {}, attrs = {}): ParagraphLayout =>
  firstOf(layoutOf(document([paragraph("body", [text], format)], attrs)))
const lined = (text: string, format: Partial<LetterFormat>): LineRun[] =>
  firstOf(layoutOf(document([p(letters(text, format))]))).lines[0]!.runs
const width = (runs: LineRun[]) => runs.reduce((sum, run) => sum + run.width, 0)
const linesOf = ({ text, lines }: ParagraphLayout) => lines.map((line) => text.slice(line.from, line.to).trimEnd())

const ferry =
  "The ferry crosses the estuary on a chain that lies on the bed, hauled by hand at half tide by whoever is on duty, and nobody who has waited on the far bank through a timetabled afternoon has ever called it slow. ".repeat(
    3,
  )

describe("letters", () => {
  test("raised and lowered ones are smaller, off the baseline, and leave the line's height alone", () => {
    const [plain] = lined("2", {})
    const [up] = lined("2", { script: "super" })
    const [down] = lined("2", { script: "sub" })
    expect([up!.run.size < 12, up!.run.rise > 2, down!.run.rise < 0]).toEqual([true, true, true])
    // Whole pixels at twice the size, so that the page's advances are those of the layout.
    expect(Number.isInteger(up!.run.size * 2)).toBe(true)
    expect(up!.width).toBeLessThan(plain!.width)
    const height = (format: Partial<LetterFormat>) =>
      firstOf(layoutOf(document([p("m", letters("2", format))]))).lines[0]!.height
    expect(height({ script: "super" })).toBe(height({}))
  })

  test("small capitals are the face's own where it has them, else reduced capitals", () => {
    const own = lined("ferry", { caps: "small", family: "EB Garamond" })
    expect(own.map(({ run }) => [run.upper, run.size])).toEqual([[false, 12]])
    const plainGlyphs = lined("ferry", { family: "EB Garamond" })[0]!.run.glyphs.ids
    expect([...own[0]!.run.glyphs.ids]).not.toEqual([...plainGlyphs])
    const drawn = lined("Ferry", { caps: "small", family: "Tinos" })
    expect(drawn.map(({ run }) => [run.upper, run.size])).toEqual([
      [false, 12],
      [true, 9.5],
    ])
  })

  test("all capitals keep their places in the text, also where a capital is longer than its letter", () => {
    const [run] = lined("straße", { caps: "all" })
    expect([run!.run.upper, run!.to]).toEqual([true, 6])
    expect(width(lined("ferry", { caps: "all" }))).toBeCloseTo(width(lined("FERRY", {})), 6)
  })

  test("spacing sets letters apart and does not let them join; kerning and ligatures can be put off", () => {
    expect(width(lined("ferry", { spacing: 2 }))).toBeCloseTo(width(lined("ferry", {})) + 10, 3)
    expect(lined("office", { family: "EB Garamond" })[0]!.run.glyphs.count).toBeLessThan(6)
    expect(lined("office", { family: "EB Garamond", ligatures: false })[0]!.run.glyphs.count).toBe(6)
    expect(lined("office", { family: "EB Garamond", spacing: 0.5 })[0]!.run.glyphs.count).toBe(6)
    expect(width(lined("AVAVA", { kerning: false }))).toBeGreaterThan(width(lined("AVAVA", {})) + 2)
  })

  test("lines under and through them have the wanted kind, number and colour", () => {
    const rules = (format: Partial<LetterFormat>) => {
      const line = firstOf(layoutOf(document([p(letters("chain", format))]))).lines[0]!
      return letterRules(line, line.runs[0]!)
    }
    expect(rules({ underline: "double", strike: "single" })).toHaveLength(3)
    expect(rules({ underline: "wavy", underlineColour: "#a8281e" })).toMatchObject([
      { pattern: "wavy", colour: "#a8281e" },
    ])
    const [under] = rules({ underline: "single" })
    const [strike] = rules({ strike: "single" })
    expect([under!.y > 0, strike!.y < 0]).toEqual([true, true])
    expect(
      rulePath({ x: 0, y: 0, width: 10, height: 1, pattern: "dotted", colour: "#000000" }).d.match(/Z/g),
    ).toHaveLength(5)
    // A rule without thickness has an end too.
    for (const pattern of ["dotted", "dashed", "wavy"] as const)
      expect(rulePath({ x: 0, y: 0, width: 300, height: 0, pattern, colour: "#000000" }).d.length).toBeGreaterThan(100)
  })
})

describe("tab stops", () => {
  const stop = (
    position: number,
    align: "left" | "center" | "right" | "decimal",
    leader: "none" | "dotted" = "none",
  ) => ({ position, align, leader })
  const at = (layout: ParagraphLayout, n: number) => layout.lines[0]!.runs[n]!

  test("hold text at its left, middle, right or decimal sign", () => {
    const tabs = [stop(100, "right"), stop(200, "center"), stop(300, "decimal")]
    const layout = set("a\tright\tmiddle\t12.50", { tabs })
    expect(at(layout, 1).x + at(layout, 1).width).toBeCloseTo(100, 3)
    expect(at(layout, 2).x + at(layout, 2).width / 2).toBeCloseTo(200, 3)
    expect(at(layout, 3).x + width(lined("12", {}))).toBeCloseTo(300, 3)
    const german = firstOf(
      layoutOf(
        document([paragraph("body", ["\t1.250,5"], { tabs: [stop(300, "decimal")] })], {
          styles: {
            ...defaultStyles,
            defaults: { ...defaultStyles.defaults, letters: { ...defaultStyles.defaults.letters, language: "de" } },
          },
        }),
      ),
    )
    expect(german.lines[0]!.runs[0]!.x + width(lined("1.250", {}))).toBeCloseTo(300, 3)
  })

  test("lead there with dots, and give way to text that is too long", () => {
    const layout = set("Contents\t12", { tabs: [stop(400, "right", "dotted")] })
    expect(layout.lines[0]!.leaders).toMatchObject([{ pattern: "dotted" }])
    // Dots stand on a common grid, whatever the text before them.
    expect((layout.lines[0]!.leaders[0]!.x / layout.lines[0]!.leaders[0]!.pitch!) % 1).toBeCloseTo(0, 6)
    const [leader] = layout.lines[0]!.leaders
    expect(leader!.x).toBeGreaterThan(at(layout, 0).width)
    expect(leader!.x + leader!.width).toBeLessThan(at(layout, 1).x)
    expect(at(set("Something much longer than that\tx", { tabs: [stop(40, "left")] }), 1).x).toBe(180)
  })

  test("at the right, beyond the end of the line, hold their text at its end", () => {
    const layout = set("Who is on duty		Sheet 1", { tabs: [stop(200, "center"), stop(4000, "right")] })
    expect(layout.lines).toHaveLength(1)
    const last = layout.lines[0]!.runs.at(-1)!
    expect(last.x + last.width).toBeCloseTo(textWidth(defaultSetup), 1)
    expect(last.x).toBeGreaterThan(200)
  })

  test("the end of a hanging indent is one, and carets stand at each", () => {
    const layout = set("1\ttext\t\tmore", {
      indentLeft: 50,
      indentFirst: -50,
      tabs: [stop(150, "left"), stop(250, "left")],
    })
    expect(layout.lines[0]!.tabs.map(({ x }) => x)).toEqual([50, 150, 250])
    const fragment = layoutOf(
      document([
        paragraph("body", ["1\ttext\t\tmore"], {
          indentLeft: 50,
          indentFirst: -50,
          tabs: [stop(150, "left"), stop(250, "left")],
        }),
      ]),
    )
      .placed.slice(0, 1)
      .flatMap(fragmentsOf)[0]!
    const x = (offset: number) => caretBox(fragment, offset)!.x - fragment.x
    expect([x(2), x(7), x(8)].map(Math.round)).toEqual([50, 150, 250])
  })
})

describe("paragraphs", () => {
  test("exact line spacing puts baselines at exactly that distance, whatever stands on the lines", () => {
    const layout = firstOf(
      layoutOf(
        document([
          paragraph("body", [ferry.slice(0, 300), letters("LARGE", { size: 30 }), ferry], {
            lineSpacing: { rule: "exact", value: 17 },
          }),
        ]),
      ),
    )
    const baselines = layout.lines.map((line) => line.top + line.baseline)
    baselines.slice(1).forEach((baseline, i) => expect(baseline - baselines[i]!).toBeCloseTo(17, 9))
  })

  test("of one style can stand without space between them", () => {
    const tops = (format: Partial<ParagraphFormat>) =>
      layoutOf(
        document([paragraph("body", ["a"], format), paragraph("body", ["b"], format), paragraph("quotation", ["c"])]),
      )
        .placed.slice(0, 1)
        .flatMap(fragmentsOf)
        .map((f) => f.y)
    const [a, b, c] = tops({ spaceAlike: false, spaceAfter: 10 }) as [number, number, number]
    const [x, y, z] = tops({ spaceAfter: 10 }) as [number, number, number]
    expect(y - x - (b - a)).toBeCloseTo(10, 6)
    expect(z - y).toBeCloseTo(c - b, 6)
  })

  test("alike in borders and background stand in one frame over the space between them", () => {
    const border = { pattern: "solid", width: 1, colour: "#7a1f4b", distance: 4 } as const
    const format = { borders: { top: border, bottom: border, left: border, right: border }, shading: "#f4e4eb" }
    const [one, two, after] = fragmentsOf(
      layoutOf(document([paragraph("body", ["one"], format), paragraph("body", ["two"], format), p("after")]))
        .placed[0]!,
    )
    expect(two!.frame!.box.y).toBeCloseTo(one!.frame!.box.y + one!.frame!.box.height, 6)
    expect([one!.frame!.rules.length, two!.frame!.rules.length, after!.frame]).toEqual([3, 3, null])
    expect(one!.frame!.box.x).toBeCloseTo(one!.x - 5, 6)
    // The text keeps its place; the frame takes room above and below.
    expect(one!.y - one!.frame!.box.y).toBeCloseTo(5, 6)
  })

  test("a frame that goes over two sheets is closed on each", () => {
    const border = { pattern: "double", width: 1, colour: "#1e1a16", distance: 3 } as const
    const { placed } = layoutOf(
      document([paragraph("body", [ferry.repeat(12)], { borders: { top: border, bottom: border } })]),
    )
    expect(placed.length).toBeGreaterThan(1)
    for (const own of placed) {
      const { frame } = fragmentsOf(own)[0]!
      expect(frame!.rules).toHaveLength(4)
      expect(frame!.box.y + frame!.box.height).toBeLessThanOrEqual(own.sheet.height - 70.8)
    }
  })

  test("items stand close together; around their list there is the space of the style", () => {
    const item = (run: string, level = 0, definition = "numbers") =>
      paragraph("body", ["x"], { list: { definition, run, level } })
    const gaps = (...blocks: Parameters<typeof document>[0]) => {
      const fragments = fragmentsOf(layoutOf(document(blocks)).placed[0]!)
      return fragments.slice(1).map((own, i) => Math.round(own.y - fragments[i]!.y - fragments[i]!.paragraph.height))
    }
    // Text, two items with one inside, another list, text.
    expect(gaps(p("a"), item("1"), item("2", 1, "marks"), item("1"), item("3", 0, "tasks"), p("b"))).toEqual([
      8, 0, 0, 8, 8,
    ])
    const close = (text: string) => paragraph("body", [text], { spaceAlike: false })
    expect(gaps(close("a"), item("1"), close("b"), close("c"))).toEqual([0, 0, 0])
  })

  test("a drop cap is marked and hit over all its lines", () => {
    const { placed } = layoutOf(
      document([paragraph("body", [ferry], { dropCap: { lines: 3, distance: 6, family: null } }), p("After it.")]),
    )
    const sheet = placed[0]!
    const [fragment] = fragmentsOf(sheet)
    const [cap, rest] = rangeBoxes(fragment!, 0, 5, false)
    const lineHeight = fragment!.paragraph.lines[1]!.top
    expect(cap!.height).toBeCloseTo(3 * lineHeight, 6)
    expect([rest!.height, rest!.x - cap!.x - cap!.width]).toEqual([expect.closeTo(lineHeight, 6), expect.closeTo(6, 6)])
    expect(rangeBoxes(fragment!, 1, 5, false)).toHaveLength(1)
    expect(rangeBoxes(fragment!, 0, 1, false)).toHaveLength(1)
    // Its lower part belongs to it, not to the second or third line.
    const at = (x: number, y: number) => hit(sheet, fragment!.x + x, fragment!.y + y)
    expect(at(cap!.width * 0.2, 2.5 * lineHeight)).toMatchObject({ leaf: 0, offset: 0 })
    expect(at(cap!.width * 0.9, 2.5 * lineHeight)).toMatchObject({ leaf: 0, offset: 1 })
    expect(at(cap!.width + 6.2, 2.5 * lineHeight)!.offset).toBe(fragment!.paragraph.lines[2]!.from)
  })

  test("the lines of a double frame meet at its corners: the outer ones outside, the inner ones inside", () => {
    const border = { pattern: "double", width: 1, colour: "#1e1a16", distance: 3 } as const
    const { placed } = layoutOf(
      document([paragraph("body", ["x"], { borders: { top: border, right: border, bottom: border, left: border } })]),
    )
    const { box, rules } = fragmentsOf(placed[0]!)[0]!.frame!
    const ends = (inset: number) => {
      const [left, top, right, bottom] = [
        box.x + inset,
        box.y + inset,
        box.x + box.width - inset,
        box.y + box.height - inset,
      ]
      return [
        [left, top, right, top + 1],
        [left, bottom - 1, right, bottom],
        [left, top, left + 1, bottom],
        [right - 1, top, right, bottom],
      ]
    }
    const drawn = rules.map(({ x, y, width, height }) =>
      [x, y, x + width, y + height].map((n) => Math.round(n * 1000) / 1000),
    )
    expect(drawn).toEqual(
      expect.arrayContaining([...ends(0), ...ends(2)].map((rule) => rule.map((n) => Math.round(n * 1000) / 1000))),
    )
    expect(drawn).toHaveLength(8)
  })

  test("a drop cap is as high as its lines, the text stands round it, and a short paragraph gets a lower one", () => {
    const layout = set(ferry, { dropCap: { lines: 3, distance: 6, family: null } })
    const [first, second, third, fourth] = layout.lines
    const cap = first!.runs[0]!
    const lineHeight = second!.top
    const { capHeight, upem } = typesetter().fonts.font("Tinos-regular").metrics
    expect(cap.run.cap && layout.text.slice(cap.from, cap.to)).toBe("T")
    expect((cap.run.size * capHeight) / upem).toBeCloseTo(2 * lineHeight + (12 * capHeight) / upem, 0)
    expect(cap.run.rise).toBeCloseTo(-2 * lineHeight, 6)
    expect([second!.x, third!.x, fourth!.x]).toEqual([cap.width + 6, cap.width + 6, 0])
    expect(first!.runs[1]!.x).toBeCloseTo(cap.width + 6, 6)
    expect(first!.height).toBe(second!.height)
    const short = set(
      "The ferry crosses at half tide, and at no other time of the day or the night whatever the weather.",
      { dropCap: { lines: 3, distance: 6, family: null } },
    )
    expect(short.lines).toHaveLength(2)
    expect(short.lines[0]!.runs[0]!.run.rise).toBeCloseTo(-lineHeight, 6)
  })
})

describe("items of lists", () => {
  const item = (text: string, place = {}, format = {}) =>
    paragraph("body", [text], { list: { definition: "numbers", run: "a", level: 0, ...place }, ...format })

  test("have their mark before the text, which stands at the indent on every line", () => {
    const layout = firstOf(layoutOf(document([item(ferry)])))
    expect(layout.label!.text).toBe("1.")
    expect(layout.label!.runs[0]!.x).toBe(0)
    expect(layout.lines.slice(0, 2).map((line) => line.x)).toEqual([20, 20])
  })

  test("whose number is too wide go on to the next tab stop", () => {
    const layout = firstOf(layoutOf(document([item("x", { start: 88888 })])))
    expect(layout.lines[0]!.x).toBe(36)
  })

  test("numbered anew come anew to the sheet: composing on from before equals composing from nothing", () => {
    const before = document(Array.from({ length: 120 }, (_, i) => item(`item ${i} ${ferry.slice(0, 90)}`)))
    const layout = layoutOf(before)
    const tr = document([
      item("one more at the top"),
      ...leavesOf(before).nodes.slice(0, 40),
      p("a break"),
      ...leavesOf(before).nodes.slice(40),
    ])
    const composition = new Composition(typesetter(), tr, { mode: "sheets" }, layout)
    while (!composition.step());
    expect(shown(composition.layout)).toEqual(shown(layoutDocument(typesetter(), tr)))
    const labels = composition.layout.placed.flatMap((own) =>
      fragmentsOf(own)
        .filter((f) => f.from === 0)
        .map((f) => f.paragraph.label?.text ?? null),
    )
    expect(labels.filter((label) => label !== null)).toEqual(Array.from({ length: 121 }, (_, i) => `${i + 1}.`))
  })
})

describe("text from right to left", () => {
  const hebrew = "המעבורת חוצה את השפך"

  test("stands at the right, its first letter first from there", () => {
    const sheet = layoutOf(document([paragraph("body", [hebrew], { direction: "rtl", align: "right" })])).placed[0]!
    const fragment = fragmentsOf(sheet)[0]!
    const line = fragment.paragraph.lines[0]!
    expect(line.x + line.width).toBeCloseTo(fragment.width, 6)
    const x = (offset: number) => caretBox(fragment, offset)!.x
    expect(x(0)).toBeCloseTo(fragment.x + fragment.width, 3)
    expect(x(1)).toBeLessThan(x(0))
    expect(line.runs.every(({ run }) => run.level === 1)).toBe(true)
  })

  test("mixes with text from left to right; numbers in it keep their order", () => {
    const layout = set(`Ferry ${hebrew} 1887 end`)
    const seen = layout.lines[0]!.runs.map((run) => layout.text.slice(run.from, run.to).trim())
    expect(seen.filter((text) => text !== "")).toEqual(["Ferry", "1887", hebrew, "end"])
  })

  test("every place of a mixed line can be pointed at, and stops go from left to right", () => {
    const doc = document([p(`The ${hebrew} (ferry) 12:30 sails`)])
    const sheet = layoutOf(doc).placed[0]!
    const fragment = fragmentsOf(sheet)[0]!
    const stops = caretStops(fragment.paragraph, 0)
    expect(stops.map(({ x }) => x)).toEqual([...stops.map(({ x }) => x)].sort((a, b) => a - b))
    expect(new Set(stops.map(({ offset }) => offset)).size).toBe(fragment.paragraph.text.length + 1)
    for (const { x, offset } of stops) {
      const found = hit(sheet, fragment.x + x, fragment.y + 4)!
      expect(
        stops.some((stop) => Math.abs(stop.x - x) < 0.02 && stop.offset === found.offset) || found.offset === offset,
      ).toBe(true)
    }
  })

  test("indents and tab stops are counted from the right", () => {
    const layout = set(`${hebrew}\t${hebrew}`, {
      direction: "rtl",
      align: "right",
      indentLeft: 30,
      tabs: [{ position: 250, align: "left", leader: "none" }],
    })
    const line = layout.lines[0]!
    const column = 453.54
    expect(line.runs.at(0)!.x + line.runs.at(0)!.width).toBeCloseTo(column - 30, 1)
    expect(line.tabs[0]!.x).toBeCloseTo(column - 250, 1)
  })
})

describe("hyphens and whole paragraphs", () => {
  const narrow = {
    setup: { ...defaultSetup, width: 260, height: 800, margins: { top: 20, right: 20, bottom: 20, left: 20 } },
  }
  const long =
    "Navigational responsibilities notwithstanding, representatives of neighbouring municipalities acknowledged extraordinary administrative difficulties throughout. ".repeat(
      2,
    )

  test("words are divided by the rules of their language, within the limits of the document", () => {
    const layout = set(long, { hyphenate: true }, narrow)
    const divided = layout.lines.filter((line) => line.runs.at(-1)?.run.shows === "-")
    expect(divided.length).toBeGreaterThan(2)
    for (const line of divided) {
      const before = /\p{L}+$/u.exec(layout.text.slice(0, line.to))![0]
      const after = /^\p{L}+/u.exec(layout.text.slice(line.to))![0]
      expect([before.length >= 2, after.length >= 3, (before + after).length >= 5]).toEqual([true, true, true])
      expect(line.x + line.width).toBeLessThanOrEqual(220 + 1e-6)
    }
    const strict = set(
      long,
      { hyphenate: true },
      {
        ...narrow,
        typesetting: {
          ...defaultTypesetting,
          hyphenation: { word: 30, before: 2, after: 3, inRow: 3, capitals: true },
        },
      },
    )
    expect(strict.lines.some((line) => line.runs.at(-1)?.run.shows === "-")).toBe(false)
  })

  test("no more lines in a row end with a hyphen than allowed", () => {
    for (const breaking of ["quick", "whole"] as const) {
      const layout = set(
        long,
        { hyphenate: true, align: "justify" },
        {
          ...narrow,
          setup: { ...narrow.setup, width: 140 },
          typesetting: { breaking, hyphenation: { ...defaultTypesetting.hyphenation, inRow: 1 } },
        },
      )
      const ends = layout.lines.map((line) => line.runs.at(-1)?.run.shows === "-")
      expect(ends.some((hyphen, i) => hyphen && ends[i + 1])).toBe(false)
    }
  })

  test("a soft hyphen shows only where the line ends at it", () => {
    const layout = set("extra\u00adordinary ".repeat(8), {}, { setup: { ...narrow.setup, width: 300 } })
    const shownAt = layout.lines.flatMap((line) =>
      line.runs.at(-1)?.run.shows === "-" ? [layout.text[line.to - 1]] : [],
    )
    expect(shownAt.length).toBeGreaterThan(0)
    expect(new Set(shownAt)).toEqual(new Set(["\u00ad"]))
  })

  test("looking at the whole paragraph makes the spaces of justified text more even, and loses no text", () => {
    const spread = (breaking: "quick" | "whole") => {
      const layout = set(
        ferry.repeat(2),
        { align: "justify" },
        { ...narrow, typesetting: { ...defaultTypesetting, breaking } },
      )
      expect(linesOf(layout).join(" ")).toBe(layout.text.trimEnd())
      const extras = layout.lines.slice(0, -1).map((line) => line.runs[0]?.extra ?? 0)
      return Math.sqrt(extras.reduce((sum, extra) => sum + extra * extra, 0) / extras.length)
    }
    expect(spread("whole")).toBeLessThan(spread("quick") * 0.9)
  })

  test("every language that ships has its patterns, and others say so", () => {
    for (const name of hyphenated)
      expect(readFileSync(`node_modules/hyphenopoly/patterns/${name}.wasm`).length).toBeGreaterThan(500)
    expect([patternsFor("en"), patternsFor("en-AU"), patternsFor("de-AT"), patternsFor("ja")]).toEqual([
      "en-us",
      "en-gb",
      "de",
      null,
    ])
  })
})

describe("a drop cap", () => {
  const opening = (text: string, format: object = {}) =>
    layoutOf(document([paragraph("body", [text], { dropCap: { lines: 3, distance: 6, family: null }, ...format })]))
      .placed.slice(0, 1)
      .flatMap(fragmentsOf)[0]!.paragraph.lines

  test("stands at the other edge in text from right to left, and over nothing", () => {
    const lines = opening("שלום ".repeat(60), { direction: "rtl", align: "right" })
    const cap = lines[0]!.runs.find(({ run }) => run.cap)!
    for (const line of lines.slice(0, 3))
      for (const run of line.runs.filter((own) => !own.run.cap))
        expect(run.x + run.width).toBeLessThanOrEqual(cap.x + 0.5)
  })

  test("that is no letter fits its lines", () => {
    const lines = opening(`🚀${" the ferry runs".repeat(40)}`)
    const { run } = lines[0]!.runs.find(({ run }) => run.cap)!
    const { ascender, descender } = typesetter().fonts.font(run.face).metrics
    const [top, bottom] = [
      lines[0]!.baseline - run.rise - ascender * run.scale,
      lines[0]!.baseline - run.rise - descender * run.scale,
    ]
    expect(top).toBeGreaterThan(-3)
    expect(bottom).toBeLessThan(lines[2]!.top + lines[2]!.height + 1)
  })
})

test("text that would tear open on a narrow screen is ragged there, and justified on its sheets", () => {
  const doc = document([
    paragraph(
      "body",
      ["The chain lies on the bed of the estuary and is raised as the ferry passes over it. ".repeat(4)],
      { align: "justify" },
    ),
  ])
  const extra = (spec: Parameters<typeof layoutDocument>[2]) =>
    layoutDocument(typesetter(), doc, spec)
      .placed.slice(0, 1)
      .flatMap(fragmentsOf)[0]!
      .paragraph.lines.some((line) => line.runs.some((run) => run.extra > 0))
  expect([
    extra({ mode: "flow", width: 200, margin: 10 }),
    extra({ mode: "flow", width: 500, margin: 10 }),
    extra({ mode: "sheets" }),
  ]).toEqual([false, true, true])
})
