/** A document as EPUB 3: a chapter for each first heading, contents of all, its pictures as files, notes at the ends of chapters. */
import { bodyOf, documentAttrs, headingsOf, outlineLevel } from "../../document"
import { parseFragment, type DefaultTreeAdapterTypes } from "parse5"
import type { Node } from "prosemirror-model"
import { assetName } from "../assets"
import type { AssetSource } from "../format"
import { PageSources } from "../html/page"
import { checkPicture } from "../pictures/file"
import { escapeXml, xml, xmlHead } from "../xml/writing"
import { zip } from "../zip"

type HtmlNode = DefaultTreeAdapterTypes.Node
type Element = DefaultTreeAdapterTypes.Element

/** HTML as XML: every element ended, every sign as XML has it. */
function asXml(node: HtmlNode): string {
  if (node.nodeName === "#text") return escapeXml((node as DefaultTreeAdapterTypes.TextNode).value)
  if (!("childNodes" in node)) return ""
  const inside = node.childNodes.map(asXml).join("")
  if (!("tagName" in node)) return inside
  const { tagName, attrs } = node as Element
  const own = attrs
    // What is of the web alone goes.
    .filter(({ name }) => /^[a-z][\w:-]*$/i.test(name) && name !== "type" && name !== "checked")
    .map(({ name, value }) => ` ${name}="${escapeXml(value)}"`)
    .join("")
  if (tagName === "input") return attrs.some(({ name }) => name === "checked") ? "☑ " : "☐ "
  return inside === "" && !["a", "p", "td", "th", "span", "li"].includes(tagName)
    ? `<${tagName}${own}/>`
    : `<${tagName}${own}>${inside}</${tagName}>`
}

function page(title: string, language: string, body: string): string {
  return `${xmlHead}<!DOCTYPE html>
<html xmlns="http://www.w3.org/1999/xhtml" xmlns:epub="http://www.idpf.org/2007/ops" lang="${escapeXml(language)}" xml:lang="${escapeXml(language)}">
<head><title>${escapeXml(title)}</title></head>
<body>${body}</body>
</html>`
}

interface Heading {
  text: string
  href: string
  level: number
}

/** Headings as lists in lists. */
function nested(headings: readonly Heading[]): string {
  let at = 0
  const list = (level: number): string => {
    let items = ""
    while (at < headings.length && (headings[at] as Heading).level >= level) {
      const { text, href } = headings[at++] as Heading
      const inner = at < headings.length && (headings[at] as Heading).level > level ? list(level + 1) : ""
      items += `<li><a href="${escapeXml(href)}">${escapeXml(text || "–")}</a>${inner}</li>`
    }
    return `<ol>${items}</ol>`
  }
  return list(1)
}

/** Blocks of the body from one first heading to the next. */
function chaptersOf(doc: Node): Node[][] {
  const { styles } = documentAttrs(doc)
  const chapters: Node[][] = [[]]
  for (const block of bodyOf(doc).children) {
    const first = block.isTextblock && outlineLevel(styles, block) === 1
    if (first && chapters.at(-1)?.some((own) => own.content.size > 0 || !own.isTextblock)) chapters.push([])
    chapters.at(-1)?.push(block)
  }
  return chapters
}

/** @param changed when it was changed last: the same document made at the same time is the same file */
export function writeEpub(
  doc: Node,
  name: string | null,
  asset: AssetSource = () => undefined,
  changed = new Date(),
): Uint8Array {
  const { properties, styles } = documentAttrs(doc)
  const { language } = styles.defaults.letters
  const title = properties.title || name || "Document"
  const files = new Map<string, Uint8Array>()
  const encoder = new TextEncoder()
  const pictures = new Map<string, string>()
  const sources = new PageSources(doc, title, (own) => {
    const bytes = asset(own)
    if (!bytes) return null
    const { type } = checkPicture(bytes)
    const path = `pictures/${own.slice(0, 16)}.${type.slice("image/".length)}`
    files.set(`content/${path}`, bytes)
    pictures.set(path, type)
    return path
  })
  const labels = headingsOf(doc)
  const headings: Heading[] = []
  let next = 0
  const chapters = chaptersOf(doc).map((blocks, i) => {
    const path = `chapter-${i + 1}.xhtml`
    let html = sources.blocks(blocks) + sources.notes()
    // Headings come in the same order here and there.
    html = html.replace(/<h([1-6])(?=[ >])/g, (tag) => {
      const heading = labels[next++]
      if (!heading) return tag
      const id = `h-${next}`
      headings.push({
        text: `${heading.label ? `${heading.label} ` : ""}${heading.text}`,
        href: `${path}#${id}`,
        level: heading.level,
      })
      return `${tag} id="${id}"`
    })
    return { path, html }
  })
  // Places are in the chapter in which they stand.
  const home = new Map<string, string>()
  for (const { path, html } of chapters) for (const [, id = ""] of html.matchAll(/ id="([^"]+)"/g)) home.set(id, path)
  for (const { path, html } of chapters) {
    const led = html.replace(/href="#([^"]+)"/g, (whole, id: string) => {
      const own = home.get(id)
      return own === undefined ? 'href="nav.xhtml"' : own === path ? whole : `href="${own}#${id}"`
    })
    files.set(`content/${path}`, encoder.encode(page(title, language, asXml(parseFragment(led)) || "<p/>")))
  }
  const contents =
    headings.length > 0
      ? nested(headings)
      : `<ol><li><a href="${chapters[0]?.path ?? ""}">${escapeXml(title)}</a></li></ol>`
  files.set(
    "content/nav.xhtml",
    encoder.encode(page(title, language, `<nav epub:type="toc"><h1>${escapeXml(title)}</h1>${contents}</nav>`)),
  )
  const item = (id: string, href: string, type: string, more: Record<string, string> = {}) =>
    xml("item", { id, href, "media-type": type, ...more })
  const id = `urn:sha256:${assetName(encoder.encode(JSON.stringify(doc.toJSON())))}`
  const opf = xml(
    "package",
    { xmlns: "http://www.idpf.org/2007/opf", version: "3.0", "unique-identifier": "id", "xml:lang": language },
    xml(
      "metadata",
      { "xmlns:dc": "http://purl.org/dc/elements/1.1/" },
      xml("dc:identifier", { id: "id" }, id),
      xml("dc:title", null, escapeXml(title)),
      xml("dc:language", null, escapeXml(language)),
      properties.author !== "" && xml("dc:creator", null, escapeXml(properties.author)),
      xml("meta", { property: "dcterms:modified" }, changed.toISOString().replace(/\.\d+Z$/, "Z")),
    ),
    xml(
      "manifest",
      null,
      item("nav", "nav.xhtml", "application/xhtml+xml", { properties: "nav" }),
      ...chapters.map(({ path }, i) => item(`c${i + 1}`, path, "application/xhtml+xml")),
      ...[...pictures].map(([path, type], i) => item(`p${i + 1}`, path, type)),
    ),
    xml("spine", null, ...chapters.map((_, i) => xml("itemref", { idref: `c${i + 1}` }))),
  )
  const container = xml(
    "container",
    { xmlns: "urn:oasis:names:tc:opendocument:xmlns:container", version: "1.0" },
    xml(
      "rootfiles",
      null,
      xml("rootfile", { "full-path": "content/package.opf", "media-type": "application/oebps-package+xml" }),
    ),
  )
  return zip(
    new Map<string, Uint8Array>([
      ["mimetype", encoder.encode("application/epub+zip")],
      ["META-INF/container.xml", encoder.encode(xmlHead + container)],
      ["content/package.opf", encoder.encode(xmlHead + opf)],
      ...files,
    ]),
    (path) => path === "mimetype" || path.startsWith("content/pictures/"),
  )
}
