/** Words behind the text of a sheet: set on one line, turned, and as large as they may be without leaving the sheet. */
import { marks, paragraph, schema, type PageSetup } from "../document"
import type { Setting, Typesetter } from "./paragraph"
import type { Furniture, Lines } from "./types"

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

/** How wide and high a box is that is turned by an angle in degrees. */
function turnedSize(width: number, height: number, angle: number): { width: number; height: number } {
  const radians = (angle * Math.PI) / 180
  const [sin, cos] = [Math.abs(Math.sin(radians)), Math.abs(Math.cos(radians))]
  return { width: width * cos + height * sin, height: width * sin + height * cos }
}

export function setWatermark(
  typesetter: Typesetter,
  setting: Setting,
  setup: PageSetup,
  sheet: { width: number; height: number },
): Furniture | null {
  const { watermark, colour: paper } = setup
  if (!watermark) return null
  const { text, family, angle, strength } = watermark
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
    const letters = Object.entries({ ...plain, script: "none", raise: 0, family, size, colour })
    const words = schema.text(
      text,
      letters.map(([name, value]) => marks[name as keyof typeof marks].create({ value })),
    )
    const node = paragraph("body", [words], {
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
    })
    const layout = typesetter.paragraph(setting, node, 1e6, null)
    return { layout, width: layout.lines[0]?.width ?? 0 }
  }
  const wanted = set(watermark.size)
  const turned = turnedSize(wanted.width, wanted.layout.height, angle)
  const room = Math.min(1, (sheet.width - 2 * edge) / turned.width, (sheet.height - 2 * edge) / turned.height)
  const { layout, width } = room < 1 ? set(Math.max(1, Math.floor(watermark.size * room * 2) / 2)) : wanted
  const { height, lines } = layout
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
