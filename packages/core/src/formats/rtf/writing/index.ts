/** A document as RTF, by way of Office Open XML: what that says is said in control words. */
import type { Node } from "prosemirror-model"
import type { AssetSource } from "../../format"
import { propertiesIn } from "../../officeopenxml/kept"
import { Parts } from "../../officeopenxml/parts"
import { writeOfficeOpenXml } from "../../officeopenxml/writing"
import { child, childrenNamed, isElement, textIn, type XmlElement } from "../../xml/parsing"
import { propertyKinds, reversed, sectionBegins, sheetNumberForms } from "../pairs"
import { StoryWriter, type Written } from "./story"
import { WrittenLists, WrittenStyles } from "./styles"
import { Numbered, text } from "./tables"
import { lineWords, sides } from "./words"

const main = "word/document.xml"

/** What is in it, without what only names a part of that. */
const bare = (body: XmlElement): XmlElement[] =>
  body.children
    .filter(isElement)
    .flatMap((own) => (own.name === "w:sdt" ? bare(child(own, "w:sdtContent") ?? own) : [own]))

/** Blocks up to the one with which a section ends, and its setup. */
function sectionsOf(body: XmlElement): { blocks: XmlElement[]; setup: XmlElement | undefined }[] {
  const sections: { blocks: XmlElement[]; setup: XmlElement | undefined }[] = []
  let blocks: XmlElement[] = []
  for (const own of bare(body)) {
    if (own.name === "w:sectPr") {
      sections.push({ blocks, setup: own })
      blocks = []
      continue
    }
    blocks.push(own)
    const setup = own.name === "w:p" ? child(child(own, "w:pPr"), "w:sectPr") : undefined
    if (!setup) continue
    sections.push({ blocks, setup })
    blocks = []
  }
  if (blocks.length > 0) sections.push({ blocks, setup: undefined })
  return sections
}

const kindNumbers = reversed(propertyKinds)

/** Properties that people made. */
function propertyWords(parts: Parts): string {
  const all = Object.entries(propertiesIn(parts)).map(
    ([name, { kind, value }]) =>
      `{\\propname ${text(name)}}\\proptype${kindNumbers.get(kind)}{\\staticval ${text(value)}}`,
  )
  return all.length === 0 ? "" : `{\\*\\userprops${all.join("")}}\n`
}

const begins = reversed(sectionBegins)
const forms = reversed(sheetNumberForms)

/** Lines round the sheets, as far from the edge as they say. */
function frameWords(frame: XmlElement | undefined, numbered: Numbered): string {
  const lines = sides.map((side) => lineWords(child(frame, `w:${side}`), `pgbrdr${side.charAt(0)}`, numbered)).join("")
  return lines === "" ? "" : `\\pgbrdropt32${lines}`
}

function setupWords(
  setup: XmlElement | undefined,
  facing: boolean,
  edge: (path: string) => string,
  { parts, numbered }: Written,
): string {
  const attrs = (name: string) => child(setup, name)?.attrs ?? {}
  const [size, margins, numbers, columns] = ["w:pgSz", "w:pgMar", "w:pgNumType", "w:cols"].map(attrs)
  const word = (name: string, value: string | undefined) =>
    value === undefined ? "" : `\\${name}${Math.round(Number(value)) || 0}`
  const edges = ["header", "footer"].flatMap((kind) =>
    childrenNamed(setup, `w:${kind}Reference`).map(({ attrs: own }) => {
      const letter = { first: "f", even: "l", default: facing ? "r" : "" }[own["w:type"] ?? "default"] ?? ""
      const target = parts.relations(main).get(own["r:id"] ?? "")?.target
      return target === undefined ? "" : `{\\${kind}${letter} ${edge(target)}}`
    }),
  )
  return (
    `\\sectd${begins.get(attrs("w:type")["w:val"] ?? "nextPage") ? `\\${begins.get(attrs("w:type")["w:val"] ?? "nextPage")}` : ""}` +
    word("pgwsxn", size?.["w:w"]) +
    word("pghsxn", size?.["w:h"]) +
    (size?.["w:orient"] === "landscape" ? "\\lndscpsxn" : "") +
    word("marglsxn", margins?.["w:left"]) +
    word("margrsxn", margins?.["w:right"]) +
    word("margtsxn", margins?.["w:top"]) +
    word("margbsxn", margins?.["w:bottom"]) +
    word("headery", margins?.["w:header"]) +
    word("footery", margins?.["w:footer"]) +
    word("guttersxn", margins?.["w:gutter"]) +
    (Number(columns?.["w:num"] ?? 1) > 1
      ? word("cols", columns?.["w:num"]) + word("colsx", columns?.["w:space"])
      : "") +
    (columns?.["w:sep"] === "1" || columns?.["w:sep"] === "true" ? "\\linebetcol" : "") +
    (numbers?.["w:start"] === undefined ? "" : `\\pgnrestart\\pgnstarts${numbers["w:start"]}`) +
    (forms.get(numbers?.["w:fmt"] ?? "") ? `\\${forms.get(numbers?.["w:fmt"] ?? "")}` : "") +
    (child(setup, "w:titlePg") ? "\\titlepg" : "") +
    frameWords(child(setup, "w:pgBorders"), numbered) +
    edges.join("")
  )
}

export function writeRtf(doc: Node, { name, asset }: { name: string | null; asset: AssetSource }): Uint8Array {
  const parts = Parts.open(writeOfficeOpenXml(doc, { name, asset }))
  const numbered = new Numbered()
  const numberedIn = (kind: "footnote" | "endnote" | "comment") =>
    new Map(childrenNamed(parts.xml(`word/${kind}s.xml`), `w:${kind}`).map((own) => [own.attrs["w:id"] ?? "", own]))
  const written: Written = {
    parts,
    numbered,
    styles: new WrittenStyles(parts.xml("word/styles.xml"), numbered),
    lists: new WrittenLists(parts.xml("word/numbering.xml"), numbered),
    notes: { footnote: numberedIn("footnote"), endnote: numberedIn("endnote") },
    comments: numberedIn("comment"),
  }
  const settings = parts.xml("word/settings.xml")
  const facing = child(settings, "w:evenAndOddHeaders") !== undefined
  const hyphens =
    `\\hyphauto${child(settings, "w:autoHyphenation") ? 1 : 0}` +
    `\\hyphconsec${child(settings, "w:consecutiveHyphenLimit")?.attrs["w:val"] ?? 0}` +
    `\\hyphcaps${child(settings, "w:doNotHyphenateCaps") ? 0 : 1}`
  const body = child(parts.xml(main), "w:body")
  const story = new StoryWriter(written, main)
  const edge = (path: string) => new StoryWriter(written, path).blocks(parts.xml(path))
  const sections = (body ? sectionsOf(body) : []).map(({ blocks, setup }) => {
    const inside = story.blocks({ name: "w:body", attrs: {}, children: blocks })
    return `${setupWords(setup, facing, edge, written)}\n${inside}`
  })
  const [core, app] = ["core", "app"].map((name) => parts.xml(`docProps/${name}.xml`))
  const told = (word: string, element: string, from = core) => {
    const words = textIn(child(from, element)).trim()
    return words === "" ? "" : `{\\${word} ${text(words)}}`
  }
  const styles = written.styles.table(written.lists)
  const lists = written.lists.tables
  const rtf =
    `{\\rtf1\\ansi\\ansicpg1252\\uc1\\deff0${numbered.fontTable}\n${numbered.colourTable}\n${styles}\n${lists}\n` +
    `{\\info${told("title", "dc:title")}${told("author", "dc:creator")}${told("subject", "dc:subject")}${told("company", "ep:Company", app)}}\n` +
    propertyWords(parts) +
    `${hyphens}${child(settings, "w:mirrorMargins") ? "\\margmirror" : ""}${facing ? "\\facingp" : ""}${sections.join("\\sect\n")}}`
  return Uint8Array.from(rtf, (sign) => sign.charCodeAt(0))
}
