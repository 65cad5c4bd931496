/** Layout of paragraphs of every kind of character, ten times as long each time: how many times the time it takes, at the worst. */
import { defaultTypesetting, document, paragraph, type Typesetting } from "@biblon/core/document"
import { layoutOf } from "@biblon/core/node"

export const kinds: Readonly<Record<string, string>> = {
  "one word": "a",
  prose: "The chain lies on the bed of the river. ",
  tabs: "\t",
  "tabs and letters": "x\ty",
  "both ways": "אב 12 ",
  Arabic: "سلام عليكم ",
  Chinese: "潮汐",
  Thai: "น้ำขึ้นน้ำลง",
  Hindi: "क्षि",
  Korean: "\u1100\u1161",
  families: "👩‍👩‍👧",
  flags: "🇫🇷",
  blanks: " ",
  "marks on marks": "\u0301",
  "breaks without width": "\u200b",
  "soft hyphens": "ab\u00ad",
  digits: "1,1",
  brackets: '("',
  controls: "\u202e\u2066a",
  slashes: "/a",
}

function ms(unit: string, length: number, breaking: Typesetting["breaking"]): number {
  const doc = document(
    [
      paragraph(
        "body",
        [unit.repeat(Math.ceil(length / unit.length))],
        breaking === "whole" ? { align: "justify", hyphenate: true } : null,
      ),
    ],
    { typesetting: { ...defaultTypesetting, breaking } },
  )
  const start = performance.now()
  layoutOf(doc)
  return performance.now() - start
}

/** The least time of each length, measured in turns, so that a slow moment of the machine meets all of them. */
function leastTimes(unit: string, lengths: readonly number[], breaking: Typesetting["breaking"]): number[] {
  const least = lengths.map(() => Infinity)
  for (let turn = 0; turn < 12; turn++)
    lengths.forEach((length, i) => {
      if (length < 100_000 || turn < 3) least[i] = Math.min(least[i] as number, ms(unit, length, breaking))
    })
  return least
}

export interface LinearFigures {
  /** Ten times the length takes at most so many times the time. */
  layoutLinear: number
  /** The kind of character at which it does. */
  layoutLinearAt: string
}

/** @param most characters of the longest paragraphs */
export function measureLinear(most = 100_000): LinearFigures {
  let worst: LinearFigures = { layoutLinear: 0, layoutLinearAt: "" }
  const lengths = [1000, 10_000, 100_000, 1_000_000].filter((length) => length <= most)
  for (const [name, unit] of Object.entries(kinds))
    for (const breaking of ["quick", "whole"] as const) {
      const least = leastTimes(unit, lengths, breaking)
      lengths.slice(1).forEach((length, i) => {
        const ratio = (least[i + 1] as number) / (least[i] as number)
        if (ratio > worst.layoutLinear)
          worst = { layoutLinear: ratio, layoutLinearAt: `${name}, ${breaking}, ${length}` }
      })
    }
  return worst
}

if (process.argv[1]?.endsWith("linear.ts"))
  console.log(JSON.stringify(measureLinear(Number(process.argv[2] ?? 1_000_000))))
