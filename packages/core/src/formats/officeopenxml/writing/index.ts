/** A document as Office Open XML text, transitional. */
import {
  blocksOf,
  bodyOf,
  documentAttrs,
  edgeWidth,
  namedParts,
  sectionsOf,
  textWidth,
  type NoteSettings,
  type PageSetup,
} from "../../../document"
import type { Node } from "prosemirror-model"
import { momentOf } from "../../commenting"
import { facesToEmbed } from "../../embeddedFonts"
import type { WriteSources } from "../../format"
import { withOwn } from "../../properties"
import { coverMark, partMark } from "../../partMarks"
import { escapeXml, xml, xmlHead } from "../../xml/writing"
import { zip } from "../../zip"
import { namespaces } from "../names"
import { fontTable } from "../fonts"
import { propertiesPart } from "../kept"
import { sourceParts } from "../sources"
import { part, WrittenParts } from "./parts"
import { section } from "./sections"
import { between, StoryWriter } from "./story"
import { flag, hex, value } from "./values"

const main = "word/document.xml"
const types = "application/vnd.openxmlformats-officedocument.wordprocessingml."
const pictureTypes: Readonly<Record<string, string>> = {
  png: "image/png",
  jpeg: "image/jpeg",
  gif: "image/gif",
  webp: "image/webp",
}

/** The body, with the properties of each section in the last paragraph of it. */
function body(doc: Node, parts: WrittenParts): string {
  const sections = sectionsOf(doc)
  const { nodes } = blocksOf(bodyOf(doc))
  const properties = (i: number) => {
    const { setup } = sections[i] as { setup: PageSetup }
    return section(sections, i, (story, name, behind) => parts.edge(story, name, behind, edgeWidth(setup)))
  }
  const written: string[] = []
  let from = 0
  const write = (blocks: readonly Node[], i: number) => {
    const { setup } = sections[i] as { setup: PageSetup }
    const writer = new StoryWriter(parts, main, "body", textWidth(setup))
    const last = blocks.at(-1)
    if (i === sections.length - 1) return writer.blocks(blocks)
    // A paragraph with words ends its section itself; else there is one for that alone.
    return last?.isTextblock && last.childCount > 0
      ? writer.blocks(blocks.slice(0, -1)) + writer.paragraph(last, null, properties(i))
      : writer.blocks(blocks) + between(properties(i))
  }
  let number = 0
  nodes.forEach((node, i) => {
    if (node.type.name !== "sectionBreak") return
    written.push(write(nodes.slice(from, i), number++))
    from = i + 1
  })
  const rest = nodes.slice(from)
  written.push(write(rest, number) + (rest.length === 0 ? xml("w:p", null) : ""))
  const design = sections[0]?.setup.cover ?? null
  if (design !== null) written.splice(0, 1, content(written[0] ?? "", "Cover", coverMark(design)))
  return inParts(doc, written) + properties(sections.length - 1)
}

/** Content that has a name, and a mark that tells what it is. */
const content = (inside: string, name: string, mark: string) =>
  xml(
    "w:sdt",
    null,
    xml("w:sdtPr", null, value("w:alias", name), value("w:tag", mark)),
    xml("w:sdtContent", null, inside),
  )

/** The sections of each part as content with its name. */
function inParts(doc: Node, sections: readonly string[]): string {
  const parts = namedParts(doc)
  if (parts.length === 0) return sections.join("")
  return parts
    .map((own) => {
      const inside = sections.slice(own.from, own.to).join("")
      return own.name === "" ? inside : content(inside, own.name, partMark(own, null))
    })
    .join("")
}

function comments(parts: WrittenParts): string {
  return [...parts.comments.written]
    .map(([id, { author, at, text }]) =>
      xml(
        "w:comment",
        { "w:id": id, "w:author": author, "w:date": momentOf(at), "w:initials": initialsOf(author) },
        ...text
          .split("\n")
          .map((own) => xml("w:p", null, xml("w:r", null, xml("w:t", { "xml:space": "preserve" }, escapeXml(own))))),
      ),
    )
    .join("")
}

const initialsOf = (name: string) =>
  name
    .split(/\s+/)
    .map((word) => [...word][0] ?? "")
    .join("")
    .slice(0, 9)

const noteForm = (form: NoteSettings["end"]["form"]) => (form === "signs" ? "chicago" : form)

function settings(doc: Node, parts: WrittenParts, embeds: boolean): string {
  const { setup, notes, styles, typesetting } = documentAttrs(doc)
  const sections = sectionsOf(doc)
  const hyphenates =
    styles.defaults.paragraph.hyphenate ||
    Object.values(styles.styles).some((own) => own.paragraph.hyphenate) ||
    blocksOf(bodyOf(doc)).nodes.some((own) => (own.attrs.format as { hyphenate?: boolean } | null)?.hyphenate)
  const rules = (name: string) => ["-1", "0"].map((id) => xml(name, { "w:id": id })).join("")
  const restart = { document: "continuous", section: "eachSect", sheet: "eachPage" }[notes.foot.restart]
  return (
    flag("w:displayBackgroundShape", setup.colour ? true : undefined) +
    flag("w:embedTrueTypeFonts", embeds || undefined) +
    flag("w:mirrorMargins", setup.mirrored || undefined) +
    flag("w:autoHyphenation", hyphenates || undefined) +
    value("w:consecutiveHyphenLimit", typesetting.hyphenation.inRow) +
    flag("w:doNotHyphenateCaps", !typesetting.hyphenation.capitals || undefined) +
    flag("w:evenAndOddHeaders", sections.some((own) => own.setup.leftRight) || undefined) +
    (parts.notes.note.size > 0
      ? xml(
          "w:footnotePr",
          null,
          value("w:numFmt", noteForm(notes.foot.form)),
          value("w:numRestart", restart),
          rules("w:footnote"),
        )
      : "") +
    (parts.notes.endnote.size > 0
      ? xml("w:endnotePr", null, value("w:numFmt", noteForm(notes.end.form)), rules("w:endnote"))
      : "")
  )
}

function core(doc: Node, name: string | null): string {
  const { title, subtitle, author } = documentAttrs(doc).properties
  const own = (tag: string, text: string) => text !== "" && xml(tag, null, escapeXml(text))
  return xml(
    "cp:coreProperties",
    { "xmlns:cp": namespaces.cp, "xmlns:dc": namespaces.dc },
    own("dc:title", title || (name ?? "")),
    own("dc:subject", subtitle),
    own("dc:creator", author),
  )
}

/** @returns the bytes of the file */
export function writeOfficeOpenXml(doc: Node, sources: WriteSources): Uint8Array {
  const parts = new WrittenParts(doc, sources, (...own) => new StoryWriter(...own))
  const { setup, properties } = documentAttrs(doc)
  const inside = body(doc, parts)
  const background = setup.colour ? xml("w:background", { "w:color": hex(setup.colour) }) : ""
  const { files } = parts
  const put = (path: string, type: string, relation: string, written: string) => {
    files.set(path, written)
    overrides.push([path, types + type])
    parts.relate(main, relation, path.slice("word/".length))
  }
  const overrides: [string, string][] = [[main, `${types}document.main+xml`]]
  for (const kind of ["note", "endnote"] as const)
    if (parts.notes[kind].size > 0) {
      const name = kind === "note" ? "footnotes" : "endnotes"
      const path = `word/${name}.xml`
      put(path, `${name}+xml`, name, part(`w:${name}`, parts.notesPart(kind, path)))
    }
  if (parts.comments.written.size > 0)
    put("word/comments.xml", "comments+xml", "comments", part("w:comments", comments(parts)))
  put("word/styles.xml", "styles+xml", "styles", part("w:styles", parts.styles.part(parts.lists)))
  const faces = facesToEmbed(documentAttrs(doc).styles.fonts, sources.asset)
  const table = "word/fontTable.xml"
  const fonts = fontTable(faces, (name, bytes) => {
    files.set(`word/fonts/${name}`, bytes)
    return parts.relate(table, "font", `fonts/${name}`)
  })
  if (fonts !== "") put(table, "fontTable+xml", "fontTable", part("w:fonts", fonts))
  put("word/settings.xml", "settings+xml", "settings", part("w:settings", settings(doc, parts, faces.length > 0)))
  if (parts.lists.used) put("word/numbering.xml", "numbering+xml", "numbering", part("w:numbering", parts.lists.part()))
  for (const path of files.keys()) {
    if (/^word\/header/.test(path)) overrides.push([path, `${types}header+xml`])
    if (/^word\/footer/.test(path)) overrides.push([path, `${types}footer+xml`])
  }
  files.set(main, part("w:document", background + xml("w:body", null, inside)))
  files.set("docProps/core.xml", core(doc, sources.name))
  files.set(
    "docProps/app.xml",
    xml(
      "Properties",
      { xmlns: namespaces.ep },
      properties.organisation !== "" && xml("Company", null, escapeXml(properties.organisation)),
    ),
  )
  const { kept } = documentAttrs(doc)
  for (const path of parts.enclosed.values())
    if (path !== null) overrides.push([`word/${path}`, "application/octet-stream"])
  const data = [
    ...sourceParts(documentAttrs(doc).sources).map((content) => ({ content, about: null })),
    ...Object.values(kept.parts),
  ]
  data.forEach(({ content: written, about }, i) => {
    const path = `customXml/item${i + 1}.xml`
    files.set(path, written)
    parts.relate(main, "customXml", `../${path}`)
    if (about === null) return
    const told = `itemProps${i + 1}.xml`
    files.set(`customXml/${told}`, about)
    parts.relate(path, "customXmlProps", told)
    overrides.push([`customXml/${told}`, "application/vnd.openxmlformats-officedocument.customXmlProperties+xml"])
  })
  const made = propertiesPart(withOwn(documentAttrs(doc), ["date"]))
  if (made !== "") {
    files.set("docProps/custom.xml", made)
    parts.relate("", "custom-properties", "docProps/custom.xml")
    overrides.push(["docProps/custom.xml", "application/vnd.openxmlformats-officedocument.custom-properties+xml"])
  }
  parts.relate("", "officeDocument", main)
  parts.relate(
    "",
    "http://schemas.openxmlformats.org/package/2006/relationships/metadata/core-properties",
    "docProps/core.xml",
  )
  parts.relate("", "extended-properties", "docProps/app.xml")
  const listed = xml(
    "Types",
    { xmlns: namespaces.ct },
    xml("Default", { Extension: "rels", ContentType: "application/vnd.openxmlformats-package.relationships+xml" }),
    xml("Default", { Extension: "xml", ContentType: "application/xml" }),
    faces.length > 0 &&
      xml("Default", {
        Extension: "odttf",
        ContentType: "application/vnd.openxmlformats-officedocument.obfuscatedFont",
      }),
    ...[...parts.endings].map((ending) => xml("Default", { Extension: ending, ContentType: pictureTypes[ending] })),
    ...overrides.map(([path, type]) => xml("Override", { PartName: `/${path}`, ContentType: type })),
    xml("Override", {
      PartName: "/docProps/core.xml",
      ContentType: "application/vnd.openxmlformats-package.core-properties+xml",
    }),
    xml("Override", {
      PartName: "/docProps/app.xml",
      ContentType: "application/vnd.openxmlformats-officedocument.extended-properties+xml",
    }),
  )
  const all = new Map<string, string | Uint8Array>([
    ["[Content_Types].xml", listed],
    ...parts.relationParts(),
    ...files,
  ])
  const encoder = new TextEncoder()
  return zip(
    new Map([...all].map(([path, own]) => [path, typeof own === "string" ? encoder.encode(xmlHead + own) : own])),
    (path) => /\.(png|jpeg|gif|webp)$/.test(path),
  )
}
