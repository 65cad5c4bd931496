/** Words, or a picture, behind the text of a sheet: set on one line, turned, and as large as they may be without leaving the sheet. */
import {
  marks,
  nodes,
  paragraph,
  schema,
  turnedSize,
  type PageSetup,
  type ParagraphFormat,
  type Watermark,
} from "../document"
import type { Setting, Typesetter } from "./paragraph"
import type { Furniture, Lines, ParagraphLayout } from "./types"

/** Left free at the edges of the sheet, in points. */
const edge = 18

/** A colour between that of the paper and its own. */
function mixed(colour: string, paper: string, strength: number): string {
  const part = (at: number) => {
    const [own, ground] = [colour, paper].map((hex) => parseInt(hex.slice(at, at + 2), 16)) as [number, number]
    return Math.round(ground + (own - ground) * strength)
  }
  return `#${[1, 3, 5].map((at) => part(at).toString(16).padStart(2, "0")).join("")}`
}

/** Of words that stand behind the text, and of the paragraph that holds a picture there. */
const still = {
  align: "left",
  direction: "ltr",
  lineSpacing: { rule: "multiple", value: 1 },
  indentLeft: 0,
  indentRight: 0,
  indentFirst: 0,
  hyphenate: false,
  dropCap: null,
  list: null,
  borders: {},
  shading: null,
} as const satisfies Partial<ParagraphFormat>

/** A watermark from its paragraph, in the middle of the sheet. */
function centred(
  layout: ParagraphLayout,
  size: { width: number; height: number },
  angle: number,
  sheet: { width: number; height: number },
): Furniture {
  const { width, height } = size
  const { lines } = layout
  const box: Lines = { kind: "lines", paragraph: layout, from: 0, to: lines.length, width, frame: null, entry: null }
  return {
    part: "watermark",
    angle,
    stack: {
      box: { kind: "stack", role: "column", width, height, inside: [{ box, leaf: 0, x: 0, y: 0 }] },
      leaf: 0,
      x: (sheet.width - width) / 2,
      y: (sheet.height - height) / 2,
    },
  }
}

function setPicture(
  typesetter: Typesetter,
  setting: Setting,
  { size, angle, strength }: Watermark,
  { asset, pixels }: NonNullable<Watermark["picture"]>,
  sheet: { width: number; height: number },
): Furniture {
  const wanted = { width: 3 * size, height: (3 * size * pixels[1]) / pixels[0] }
  const turned = turnedSize(wanted, angle)
  const room = Math.min(1, (sheet.width - 2 * edge) / turned.width, (sheet.height - 2 * edge) / turned.height)
  const format = { width: Math.max(4, wanted.width * room), opacity: strength }
  const node = paragraph("body", [nodes.picture.create({ asset, pixels, format })], still)
  const layout = typesetter.paragraph({ ...setting, flow: false }, node, 1e6, null)
  return centred(layout, { width: layout.lines[0]?.width ?? 0, height: layout.height }, angle, sheet)
}

export function setWatermark(
  typesetter: Typesetter,
  setting: Setting,
  setup: PageSetup,
  sheet: { width: number; height: number },
): Furniture | null {
  const { watermark, colour: paper } = setup
  if (!watermark) return null
  const { text, family, angle, strength, picture } = watermark
  if (picture) return setPicture(typesetter, setting, watermark, picture, sheet)
  const colour = mixed(watermark.colour, paper ?? "#ffffff", strength)
  const plain = {
    bold: false,
    italic: false,
    underline: "none",
    strike: "none",
    highlight: null,
    spacing: 0,
    caps: "none",
  }
  const set = (size: number) => {
    const letters = Object.entries({ script: "none", raise: 0, family, size, colour, ...plain })
    const words = schema.text(
      text,
      letters.map(([name, value]) => marks[name as keyof typeof marks].create({ value })),
    )
    const layout = typesetter.paragraph(setting, paragraph("body", [words], still), 1e6, null)
    return { layout, width: layout.lines[0]?.width ?? 0 }
  }
  const wanted = set(watermark.size)
  const turned = turnedSize({ width: wanted.width, height: wanted.layout.height }, angle)
  const room = Math.min(1, (sheet.width - 2 * edge) / turned.width, (sheet.height - 2 * edge) / turned.height)
  const { layout, width } = room < 1 ? set(Math.max(1, Math.floor(watermark.size * room * 2) / 2)) : wanted
  return centred(layout, { width, height: layout.height }, angle, sheet)
}
