/**
 * Finished sheets as PDF 1.7: the glyphs of the layout where the layout put them, fonts embedded as
 * subsets, tagged structure (ISO 32000-1, 14.7), headings as bookmarks, title and language.
 */
import { zlibSync } from "fflate"
import {
  documentAttrs,
  firstLeafOf,
  listedIn,
  leavesOf,
  namedParts,
  notesOf,
  placesOf,
  sectionsOf,
  textOf,
  type PageSetup,
} from "../../document"
import { fragmentsOf, lineTop, numbersOf, shownText, tablesOf, turnedBox, type Layout } from "../../layout"
import { archiveDescription, outputIntent } from "./archive"
import { drawSheet, tagOf, type LinkBox } from "./content"
import { writeEnclosures } from "./enclosures"
import { num, PdfFile, ref, textString, type Ref } from "./objects"
import { writeElements, type Element } from "./structure"
import { Supplies, type PdfOptions } from "./supplies"

export { writeImposed } from "./imposing"
export { createSubsetter, type Subsetter } from "./subset"
export type { PdfOptions } from "./supplies"

interface Heading {
  level: number
  text: string
  page: Ref
  top: number
}

/** Yields the number of sheets done after each; returns the file. */
export function* writePdf(layout: Layout, options: PdfOptions): Generator<number, Uint8Array> {
  const { styles, properties } = documentAttrs(layout.doc)
  const title = properties.title || options.name
  const file = new PdfFile(options.deflate ?? ((bytes) => zlibSync(bytes, { level: 6 })))
  const catalog = file.reserve()
  const pages = file.reserve()
  const tree = file.reserve()
  const documentElement = file.reserve()
  const supplies = new Supplies(file, options)
  const pageRefs: Ref[] = []
  const elements = new Map<number, Element>()
  const parentTree: string[] = []
  const headings: Heading[] = []
  /** Parts whose first sheet is still to come, by the leaf that they begin with. */
  const parts = namedParts(layout.doc).flatMap(({ name, start }) =>
    name === "" ? [] : [{ name, leaf: leavesOf(layout.doc).at(start + 1) }],
  )
  const annotations: { id: Ref; link: LinkBox }[] = []
  const leafTops = new Map<number, { page: Ref; top: number }>()
  for (const [index, placed] of layout.placed.entries()) {
    const { sheet } = placed
    const page = file.reserve()
    pageRefs.push(page)
    const drawn = drawSheet(placed, options.fonts, supplies.face, supplies.image)
    const content = file.addStream(drawn.content)
    const parents: Ref[] = []
    for (const own of drawn.marked) {
      if (own.part === "figure") {
        const number = own.leaf + 0.5 + own.offset / 1e7
        const { cell, picture } = own
        const element = elements.get(number) ?? {
          ref: file.reserve(),
          tag: "Figure",
          content: [],
          label: null,
          cell,
          alt: picture.alt,
        }
        elements.set(number, element)
        element.content.push(`<</Type/MCR/Pg ${ref(page)}/MCID ${parents.length}>>`)
        parents.push(element.ref)
        continue
      }
      const { fragment, part } = own
      // What is generated stands before the leaf that follows it.
      const { entry, leaf } = fragment
      const number = entry === null ? leaf : entry < 0 ? leaf - 0.5 - entry / 1e6 : leaf - 1 + (entry + 1) / 1e6
      let element = elements.get(number)
      if (!element) {
        const { cell } = fragment
        element = { ref: file.reserve(), tag: tagOf(fragment), content: [], label: null, cell }
        elements.set(number, element)
      }
      const reference = `<</Type/MCR/Pg ${ref(page)}/MCID ${parents.length}>>`
      if (part === "label") element.label = { ref: file.reserve(), content: reference }
      else element.content.push(reference)
      parents.push(part === "label" && element.label ? element.label.ref : element.ref)
    }
    for (const fragment of fragmentsOf(placed)) {
      if (fragment.part !== "text" && fragment.part !== "note") continue
      const { outline, lines, text, label } = fragment.paragraph
      const first = lines[fragment.from]
      if (fragment.from > 0 || !first) continue
      const { x, width } = fragment
      const { y } = turnedBox(fragment.turn, { x, y: lineTop(fragment, first), width, height: first.height })
      const top = sheet.height - y
      leafTops.set(fragment.leaf, { page, top })
      for (; fragment.part === "text" && parts[0] && parts[0].leaf <= fragment.leaf; parts.shift())
        headings.push({ level: 0, text: parts[0].name, page, top })
      if (outline && fragment.part === "text" && text.trim() !== "")
        headings.push({
          level: outline,
          text: `${label ? `${label.text} ` : ""}${shownText(fragment.paragraph).replaceAll("\n", " ").trim()}`,
          page,
          top,
        })
    }
    parentTree.push(`${index}[${parents.map(ref).join(" ")}]`)
    const own = drawn.links.map((link) => ({ id: file.reserve(), link }))
    annotations.push(...own)
    file.add(
      `<</Type/Page/Parent ${ref(pages)}/MediaBox[0 0 ${num(sheet.width)} ${num(sheet.height)}]/Contents ${ref(content)}` +
        `/Resources${supplies.resources(drawn)}/StructParents ${index}/Tabs/S${own.length > 0 ? `/Annots[${own.map(({ id }) => ref(id)).join(" ")}]` : ""}>>`,
      page,
    )
    yield index + 1
  }

  const places = placesOf(layout.doc)
  const leafOf = (to: LinkBox["to"]): number | undefined => {
    if (typeof to === "string") return places.get(to.slice(1))
    if ("heading" in to) return listedIn(layout.doc)[to.heading]?.leaf
    if ("markOf" in to) {
      const { story: key } = leavesOf(layout.doc).flow(to.markOf)
      return notesOf(layout.doc).find((note) => note.key === key)?.leaf
    }
    return firstLeafOf(layout.doc, to.note)
  }
  for (const { id, link } of annotations) {
    const { to } = link
    const outside = typeof to === "string" && !to.startsWith("#")
    const leaf = leafOf(to)
    const place = leaf === undefined ? undefined : leafTops.get(leaf)
    const action = place
      ? `/Dest[${ref(place.page)}/XYZ null ${num(place.top)} null]`
      : outside
        ? `/A<</S/URI/URI(${encodeURI(decodeLoosely(to)).replace(/[()\\]/g, "\\$&")})>>`
        : ""
    file.add(
      `<</Type/Annot/Subtype/Link/Rect[${[link.left, link.bottom, link.right, link.top].map(num).join(" ")}]/Border[0 0 0]/F 4${action}>>`,
      id,
    )
  }
  supplies.finish()
  const enclosures = writeEnclosures(file, layout.doc, options.assets)
  const tables = layout.placed.flatMap((placed) => tablesOf(placed))
  const inOrder = [...elements.entries()].sort(([a], [b]) => a - b)
  const blocks = writeElements(file, inOrder, documentElement, tables)
  file.add(`<</Type/StructElem/S/Document/P ${ref(tree)}/K[${blocks.map(ref).join(" ")}]>>`, documentElement)
  const numbers = file.add(`<</Nums[${parentTree.join("")}]>>`)
  file.add(
    `<</Type/StructTreeRoot/K ${ref(documentElement)}/ParentTree ${ref(numbers)}/ParentTreeNextKey ${layout.placed.length}>>`,
    tree,
  )
  file.add(`<</Type/Pages/Count ${pageRefs.length}/Kids[${pageRefs.map(ref).join(" ")}]>>`, pages)
  const outlines = writeOutline(file, headings)
  const language = styles.defaults.letters.language
  // As it is, so that whoever reads no PDF finds it too.
  const description = xmp(title, properties.author, language, options.archive ? archiveDescription : "")
  const metadata = file.addRaw(
    Uint8Array.from(description, (sign) => sign.charCodeAt(0)),
    "/Type/Metadata/Subtype/XML",
  )
  const colours = options.archive ? outputIntent(file) : ""
  file.add(
    `<</Type/Catalog/Pages ${ref(pages)}/Lang(${language})/MarkInfo<</Marked true>>/StructTreeRoot ${ref(tree)}/Metadata ${ref(metadata)}` +
      `/ViewerPreferences<</DisplayDocTitle true>>/PageLabels<</Nums[${pageLabels(layout)}]>>${outlines ? `/Outlines ${ref(outlines)}/PageMode/UseOutlines` : ""}${enclosures}${colours}>>`,
    catalog,
  )
  const info = file.add(
    `<</Title${textString(title)}${properties.author ? `/Author${textString(properties.author)}` : ""}/Producer(Biblon)>>`,
  )
  return file.finish(
    catalog,
    info,
    fileId(title + layout.placed.length + textOf(leavesOf(layout.doc).node(0)) + layout.doc.nodeSize),
  )
}

/** An address that may be written with or without percent signs, without them. */
function decodeLoosely(address: string): string {
  try {
    return decodeURI(address)
  } catch {
    return address
  }
}

/** Bookmarks nested by level, parts above all; a level that skips one goes under the nearest heading above. Returns null without headings. */
function writeOutline(file: PdfFile, headings: readonly Heading[]): Ref | null {
  if (headings.length === 0) return null
  interface Item extends Heading {
    ref: Ref
    children: Item[]
  }
  const root: Item = { level: -1, text: "", page: 0, top: 0, ref: file.reserve(), children: [] }
  const path = [root]
  for (const heading of headings) {
    while ((path.at(-1) as Item).level >= heading.level) path.pop()
    const item: Item = { ref: file.reserve(), children: [], ...heading }
    ;(path.at(-1) as Item).children.push(item)
    path.push(item)
  }
  const all = (item: Item): number => item.children.reduce((sum, child) => sum + 1 + all(child), 0)
  const ends = (item: Item) => {
    const [first, last] = [item.children[0], item.children.at(-1)]
    return first && last ? `/First ${ref(first.ref)}/Last ${ref(last.ref)}/Count ${all(item)}` : ""
  }
  const write = (item: Item) =>
    item.children.forEach((child, i) => {
      const [before, after] = [item.children[i - 1], item.children[i + 1]]
      file.add(
        `<</Title${textString(child.text)}/Parent ${ref(item.ref)}${before ? `/Prev ${ref(before.ref)}` : ""}${after ? `/Next ${ref(after.ref)}` : ""}` +
          `${ends(child)}/Dest[${ref(child.page)}/XYZ null ${num(child.top)} null]>>`,
        child.ref,
      )
      write(child)
    })
  write(root)
  file.add(`<</Type/Outlines${ends(root)}>>`, root.ref)
  return root.ref
}

const labelStyles: Readonly<Record<PageSetup["numbering"]["form"], string>> = {
  decimal: "D",
  lowerRoman: "r",
  upperRoman: "R",
  lowerLetter: "a",
  upperLetter: "A",
}

/** Ranges of page labels (ISO 32000-1, 12.4.2): one wherever the form changes or counting begins anew. */
function pageLabels(layout: Layout): string {
  const sections = sectionsOf(layout.doc)
  let [form, expected] = ["", 0]
  return numbersOf(layout)
    .map(({ section, number }, index) => {
      const own = sections[section]?.setup.numbering.form ?? "decimal"
      const goesOn = own === form && number === expected
      ;[form, expected] = [own, number + 1]
      return goesOn ? "" : `${index}<</S/${labelStyles[own]}${number === 1 ? "" : `/St ${number}`}>>`
    })
    .join("")
}

/** @param more descriptions beside those of what it is called and by whom it is */
function xmp(title: string, author: string, language: string, more: string): string {
  // The stream is written byte by byte, so whatever is beyond ASCII goes in as character references.
  const safe = (text: string) =>
    [...text].map((c) => (/[\x20-\x7e]/.test(c) && !/[<>&"]/.test(c) ? c : `&#${c.codePointAt(0)};`)).join("")
  return (
    `<?xpacket begin="" id="W5M0MpCehiHzreSzNTczkc9d"?><x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">` +
    `<rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:pdf="http://ns.adobe.com/pdf/1.3/">` +
    `<dc:title><rdf:Alt><rdf:li xml:lang="x-default">${safe(title)}</rdf:li></rdf:Alt></dc:title>` +
    (author ? `<dc:creator><rdf:Seq><rdf:li>${safe(author)}</rdf:li></rdf:Seq></dc:creator>` : "") +
    `<dc:language><rdf:Bag><rdf:li>${safe(language)}</rdf:li></rdf:Bag></dc:language><pdf:Producer>Biblon</pdf:Producer>` +
    `</rdf:Description>${more}</rdf:RDF></x:xmpmeta><?xpacket end="w"?>`
  )
}

/** The same document gives the same identifier, so that its PDF is the same to the byte. */
function fileId(seed: string): string {
  let a = 0x811c9dc5
  let hex = ""
  for (let round = 0; round < 4; round++) {
    for (let i = 0; i < seed.length; i++) a = Math.imul(a ^ (seed.charCodeAt(i) + round), 0x01000193) >>> 0
    hex += a.toString(16).padStart(8, "0")
  }
  return hex
}
