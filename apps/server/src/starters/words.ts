/** Words in which starters are written down. */
import type { Node } from "prosemirror-model"
import {
  defaultProperties,
  defaultSetup,
  defaultStyles,
  document,
  inSet,
  letters,
  lookSets,
  nodes,
  paragraph,
  type Border,
  type PageSetup,
  type ParagraphFormat,
  type Properties,
  type Style,
  type StyleSheet,
} from "@biblon/core/document"

/** Text that a tap takes whole, to be typed over. */
export const sample = (text: string): Node => letters(text, { sample: true })

/** A paragraph of nothing but a sample. */
export const sampled = (style: string, text: string, format: Partial<ParagraphFormat> | null = null): Node =>
  paragraph(style, [sample(text)], format)

/** A paragraph of a cell. */
export const inCell = (part: string | Node, format: Partial<ParagraphFormat> = {}): Node[] => [
  paragraph("body", [part], { spaceBefore: 0, spaceAfter: 0, ...format }),
]

export const today = (): Node => nodes.field.create({ kind: "date", format: "long" })

type StyleChange = Partial<Pick<Style, "letters" | "paragraph">>

interface Shape {
  /** One of our sets of faces and colours. */
  set: string
  styles?: Readonly<Record<string, StyleChange>>
  setup?: Partial<PageSetup>
  properties?: Partial<Properties>
  /** Of all letters. */
  size?: number
}

function stylesOf({ set, styles = {}, size }: Shape): StyleSheet {
  const look = lookSets.find(({ id }) => id === set)
  const sheet = look ? inSet(defaultStyles, look) : defaultStyles
  const { defaults } = sheet
  return {
    ...sheet,
    defaults: size === undefined ? defaults : { ...defaults, letters: { ...defaults.letters, size } },
    styles: {
      ...sheet.styles,
      ...Object.fromEntries(
        Object.entries(styles).map(([key, change]) => {
          const own = sheet.styles[key] as Style
          return [
            key,
            {
              ...own,
              letters: { ...own.letters, ...change.letters },
              paragraph: { ...own.paragraph, ...change.paragraph },
            },
          ]
        }),
      ),
    },
  }
}

/** A starter's document before it is dressed. */
export function sheetOf(shape: Shape, blocks: readonly Node[]): Node {
  return document(blocks, {
    styles: stylesOf(shape),
    setup: { ...defaultSetup, ...shape.setup },
    properties: { ...defaultProperties, ...shape.properties },
  })
}

export const line = (width: number, colour: string, distance = 4, pattern: Border["pattern"] = "solid"): Border => ({
  pattern,
  width,
  colour,
  distance,
})
