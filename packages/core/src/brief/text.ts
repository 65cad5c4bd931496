/** Rules of letters and paragraphs. */
import { documentAttrs, type LineSpacing, type ParagraphFormat } from "../document"
import { judged, near, paragraphsFor, unlike, type Judge, type World } from "./judging"
import { running, type BriefParagraph } from "./paragraphs"

export const judgeTypeface: Judge<"typeface"> = (doc, asked) => {
  const { styles } = documentAttrs(doc)
  const values: string[] = []
  const places = paragraphsFor(doc).flatMap((own) =>
    unlike(own, styles, ({ family }) => family === asked || values.push(family) === 0),
  )
  return judged(places, values)
}

export const judgeSize: Judge<"size"> = (doc, asked) => {
  const { styles } = documentAttrs(doc)
  const values: string[] = []
  const places = paragraphsFor(doc)
    .filter(({ kind }) => running.has(kind))
    .flatMap((own) => unlike(own, styles, ({ size }) => size === asked || values.push(`${size} pt`) === 0))
  return judged(places, values)
}

export const judgeLanguage: Judge<"language"> = (doc, asked, world) => {
  const { language } = documentAttrs(doc).styles.defaults.letters
  return {
    agrees: language === asked,
    found: language === asked ? "" : world.language(language),
    places: [],
    mends: true,
  }
}

/** Judges one property of paragraphs. */
function judgeParagraphs(
  paragraphs: readonly BriefParagraph[],
  agrees: (format: ParagraphFormat) => boolean,
  told: (format: ParagraphFormat) => string,
) {
  const places = paragraphs.filter(({ look }) => !agrees(look.paragraph))
  return judged(
    places,
    places.map(({ look }) => told(look.paragraph)),
  )
}

const hasSpacing = ({ rule, value }: LineSpacing, asked: number) =>
  rule === "multiple" && Math.abs(value - asked) < 0.01
/** Centred lines, as those of a title typed by hand, neither go in nor are justified. */
const plain = ({ kind, look }: BriefParagraph) => kind === "text" && look.paragraph.align !== "center"

export const judgeLineSpacing: Judge<"lineSpacing"> = (doc, asked) =>
  judgeParagraphs(
    paragraphsFor(doc).filter(({ kind }) => running.has(kind)),
    ({ lineSpacing }) => hasSpacing(lineSpacing, asked),
    ({ lineSpacing: { rule, value } }) => (rule === "multiple" ? `${value}` : `${value} pt`),
  )

const lengths =
  (property: "spaceAfter" | "indentFirst", which: (own: BriefParagraph) => boolean) =>
  (doc: Parameters<Judge<"indentFirst">>[0], asked: number, world: World) =>
    judgeParagraphs(
      paragraphsFor(doc).filter(which),
      (format) => near(format[property], asked),
      (format) => world.length(format[property]),
    )

export const judgeSpaceBetween: Judge<"spaceBetween"> = lengths("spaceAfter", ({ kind }) => kind === "text")
export const judgeIndentFirst: Judge<"indentFirst"> = lengths("indentFirst", plain)

export const judgeAlign: Judge<"align"> = (doc, asked) =>
  judgeParagraphs(
    paragraphsFor(doc).filter(plain),
    ({ align }) => align === asked,
    ({ align }) => (align === "justify" ? "at both edges" : `at the ${align}`),
  )
