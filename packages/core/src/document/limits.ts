/** Values made to keep within the bounds (bounds.ts): commands do, and what comes from outside is checked for it (shapes.ts). */
import { limits, linkPattern, type Range } from "./bounds"
import { leastRoom } from "./defaults"
import { entryOf } from "./keyed"
import type {
  Border,
  LetterFormat,
  LineSpacing,
  ListLevel,
  PageSetup,
  ParagraphFormat,
  TabStop,
  Typesetting,
  Watermark,
} from "./shapes"

export function within(value: number, [least, most]: Range): number {
  return Math.min(most, Math.max(least, value))
}

export function isLink(href: string): boolean {
  return href.length <= limits.address && linkPattern.test(href)
}

/** Text as a name of one line, cut to what names may have; empty where nothing is left. */
export function asName(text: string, most: number = limits.name): string {
  // The one word that no key of an object may be.
  const line = text
    .replace(/[\u0000-\u001f\s]+/g, " ")
    .replace(/^ *__proto__ *$/, "proto")
    .trim()
  return line.length <= most
    ? line
    : [...line].reduce((cut, letter) => (cut.length + letter.length <= most ? cut + letter : cut), "").trim()
}

const letterRanges: Readonly<Record<string, Range>> = {
  size: limits.size,
  raise: limits.raise,
  spacing: limits.letterSpacing,
}
const paragraphRanges: Readonly<Record<string, Range>> = {
  spaceBefore: limits.space,
  spaceAfter: limits.space,
  indentLeft: limits.length,
  indentRight: limits.length,
  indentFirst: limits.length,
  orphans: limits.keptLines,
  widows: limits.keptLines,
}
const whole = new Set(["orphans", "widows"])

/** Values with every number brought into its range; one that is no number goes. */
function ranged<T extends object>(values: T, ranges: Readonly<Record<string, Range>>): T {
  const fitting = { ...values } as Record<string, unknown>
  for (const name in ranges) {
    const value = fitting[name]
    if (typeof value !== "number") continue
    if (Number.isFinite(value))
      fitting[name] = within(whole.has(name) ? Math.round(value) : value, ranges[name] as Range)
    else delete fitting[name]
  }
  return fitting as T
}

/** Values of letters within their bounds. */
export function fitLetters(letters: Partial<LetterFormat>): Partial<LetterFormat> {
  return ranged(letters, letterRanges)
}

/** One value of letters within its bounds. */
export function fitLetter<K extends keyof LetterFormat>(property: K, value: LetterFormat[K]): LetterFormat[K] {
  const range = entryOf(letterRanges, property)
  return range && typeof value === "number" ? (within(value, range) as LetterFormat[K]) : value
}

function fitSpacing({ rule, value }: LineSpacing): LineSpacing {
  return { rule, value: within(value, limits.lines[rule]) }
}

function fitTabs(tabs: readonly TabStop[]): TabStop[] {
  return tabs.map((tab) => ({ ...tab, position: within(tab.position, limits.space) })).slice(0, limits.tabs)
}

export function fitBorder(border: Border): Border {
  return {
    ...border,
    width: within(border.width, limits.border.width),
    distance: within(border.distance, limits.border.distance),
  }
}

/** Values of paragraphs within their bounds. */
export function fitParagraph(format: Partial<ParagraphFormat>): Partial<ParagraphFormat> {
  const { lineSpacing, tabs, borders, dropCap, list, listedAs } = format
  return {
    ...ranged(format, paragraphRanges),
    ...(listedAs ? { listedAs: asName(listedAs, limits.shortForm) } : {}),
    ...(lineSpacing ? { lineSpacing: fitSpacing(lineSpacing) } : {}),
    ...(tabs ? { tabs: fitTabs(tabs) } : {}),
    ...(borders
      ? { borders: Object.fromEntries(Object.entries(borders).map(([side, border]) => [side, fitBorder(border)])) }
      : {}),
    ...(dropCap
      ? {
          dropCap: {
            ...dropCap,
            lines: Math.round(within(dropCap.lines, limits.dropCap.lines)),
            distance: within(dropCap.distance, limits.dropCap.distance),
          },
        }
      : {}),
    ...(list
      ? {
          list: {
            ...list,
            level: within(list.level, limits.list.level),
            ...(list.start === undefined ? {} : { start: Math.round(within(list.start, limits.list.start)) }),
          },
        }
      : {}),
  }
}

/** A level of a list within its bounds. */
export function fitLevel(level: ListLevel): ListLevel {
  const { start, hanging } = limits.list
  return {
    ...level,
    ...ranged({ indent: level.indent, hanging: level.hanging }, { indent: limits.length, hanging }),
    start: Math.round(within(level.start, start)),
    format: level.format.slice(0, limits.mark),
    letters: fitLetters(level.letters),
  }
}

export function fitTypesetting({ breaking, hyphenation }: Typesetting): Typesetting {
  const { word, before, after, inRow } = hyphenation
  const fit = (value: number, range: Range) => Math.round(within(value, range))
  const ranges = limits.hyphenation
  return {
    breaking,
    hyphenation: {
      ...hyphenation,
      word: fit(word, ranges.word),
      before: fit(before, ranges.before),
      after: fit(after, ranges.after),
      inRow: fit(inRow, ranges.inRow),
    },
  }
}

/** A watermark within its bounds; null where no words are left. */
function fitWatermark(watermark: Watermark): Watermark | null {
  const text = asName(watermark.text, limits.watermark)
  const { size, angle, strength } = limits
  return text === "" ? null : { ...watermark, ...ranged({ ...watermark, text }, { size, angle, strength }) }
}

/** A setup within its bounds: margins and gutter leave room for text on the paper, columns are no narrower than that. */
export function fitSetup(setup: PageSetup): PageSetup {
  const width = within(setup.width, limits.paper)
  const height = within(setup.height, limits.paper)
  const [, most] = limits.space
  const gutter = within(setup.gutter, [0, Math.min(most, Math.max(0, width - leastRoom))])
  const pair = (a: number, b: number, room: number): [number, number] => {
    const [first, second] = [within(a, limits.space), within(b, limits.space)]
    const over = first + second - Math.max(0, room - leastRoom)
    if (over <= 0) return [first, second]
    // What is too much is taken from both, as they are large.
    const part = (own: number) => Math.max(0, own - (over * own) / (first + second))
    return [part(first), part(second)]
  }
  const { margins, columns, head, foot, numbering, frame, watermark } = setup
  const [left, right] = pair(margins.left, margins.right, width - gutter)
  const [top, bottom] = pair(margins.top, margins.bottom, height)
  const edge = (own: PageSetup["head"]) => ({
    ...own,
    distance: within(own.distance, [0, Math.min(most, Math.max(0, height / 2 - leastRoom))]),
  })
  const gap = within(columns.gap, [0, Math.min(most, width)])
  const fitting = Math.max(1, Math.floor((width - left - right - gutter + gap) / (leastRoom + gap)))
  const count = Math.min(fitting, Math.round(within(columns.count, limits.columns)))
  const shares = columns.shares?.map((share) => within(share, limits.share))
  return {
    ...setup,
    width,
    height,
    gutter,
    margins: { top, right, bottom, left },
    columns: { ...columns, gap, count, shares: shares && shares.length === count ? shares : null },
    frame: frame && fitBorder(frame),
    watermark: watermark && fitWatermark(watermark),
    head: edge(head),
    foot: edge(foot),
    numbering: {
      ...numbering,
      start: numbering.start === null ? null : Math.round(within(numbering.start, limits.sheetNumber)),
    },
  }
}
