/** A document as OpenDocument text 1.3. */
import {
  blocksOf,
  bodyOf,
  documentAttrs,
  edgeStory,
  edgeWidth,
  namedParts,
  sectionsOf,
  storiesOf,
  textWidth,
  type EdgeName,
  type EdgeVariant,
  type NoteSettings,
  type PageSetup,
} from "../../../document"
import type { Node } from "prosemirror-model"
import { facesToEmbed } from "../../embeddedFonts"
import type { WriteSources } from "../../format"
import { coverMark, partMark } from "../../partMarks"
import { escapeXml, xml, xmlHead } from "../../xml/writing"
import { fontDeclarations, fontPath, fontType } from "../fonts"
import { withOwn } from "../../properties"
import { keptProperties, placeless } from "../kept"
import { sourcesProperty } from "../sources"
import { zip } from "../../zip"
import { enclosedFolder, namespaces, textType } from "../names"
import { formLetters } from "../numberForms"
import { border, points } from "./properties"
import { StoryWriter, type Opening } from "./story"
import { AutomaticStyles } from "./styles"
import { watermarkShape } from "./watermarks"
import { Written } from "./written"

const declared = Object.fromEntries(
  Object.entries(namespaces).flatMap(([prefix, uri]) => (prefix === "manifest" ? [] : [[`xmlns:${prefix}`, uri]])),
)

/** The name of the master page of a section. */
const masterName = (i: number) => (i === 0 ? "Standard" : `Section${i + 1}`)

/** A section that goes on below another, on the same sheet, is no sheet of its own. */
const isBelow = (setup: PageSetup, i: number) => i > 0 && setup.begins === "continuous"

function columns({ columns: own }: PageSetup): string {
  if (own.count < 2) return ""
  return xml(
    "style:columns",
    { "fo:column-count": own.count, "fo:column-gap": points(own.gap) },
    own.line && xml("style:column-sep", { "style:width": "0.5pt", "style:color": "#000000" }),
    ...Array.from({ length: own.count }, (_, i) =>
      xml("style:column", {
        "style:rel-width": `${Math.round((own.shares?.[i] ?? 1) * 1000)}*`,
        "fo:start-indent": points(i === 0 ? 0 : own.gap / 2),
        "fo:end-indent": points(i === own.count - 1 ? 0 : own.gap / 2),
      }),
    ),
  )
}

function textOf(doc: Node, written: Written, automatic: AutomaticStyles): string {
  const sections = sectionsOf(doc)
  const { nodes } = blocksOf(bodyOf(doc))
  const parts = namedParts(doc)
  const titles = new Map<string, number>()
  /** Names of what has one differ. */
  const title = (name: string) => {
    const count = (titles.get(name) ?? 0) + 1
    titles.set(name, count)
    return count === 1 ? name : `${name} ${count}`
  }
  let made = ""
  sections.forEach(({ setup, block }, i) => {
    const next = sections[i + 1]
    const blocks = nodes.slice(block, next ? next.block - 1 : nodes.length)
    const writer = new StoryWriter(written, automatic, "body", textWidth(setup))
    const below = isBelow(setup, i)
    const part = parts.findIndex(({ from, name }) => from === i && name !== "")
    const own = parts[part]
    const page = below || (i === 0 && setup.numbering.start === null) ? null : masterName(i)
    const opening: Opening | null =
      page === null && !own
        ? null
        : {
            master: page,
            start: setup.numbering.start,
            mark: own ? { "text:name": title(own.name), "xml:id": partMark(own, part + 1) } : null,
          }
    const content = writer.blocks(blocks, null, opening)
    made +=
      below && setup.columns.count > 1
        ? xml(
            "text:section",
            {
              "text:name": written.nextId("Section"),
              "text:style-name": automatic.style(
                "Sec",
                "section",
                {},
                xml("style:section-properties", { "text:dont-balance-text-columns": false }, columns(setup)),
              ),
            },
            content,
          )
        : content
  })
  const sequences = [...written.sequences].map((name) =>
    xml("text:sequence-decl", { "text:display-outline-level": 0, "text:name": name }),
  )
  return (
    (sequences.length > 0 ? xml("text:sequence-decls", null, ...sequences) : "") +
    (made === "" ? xml("text:p", null) : made)
  )
}

/** Master pages with their layouts, the heads and feet in them. */
function masters(doc: Node, written: Written, automatic: AutomaticStyles): { layouts: string; pages: string } {
  const sections = sectionsOf(doc)
  let [layouts, pages] = ["", ""]
  sections.forEach(({ setup }, i) => {
    if (isBelow(setup, i)) return
    const story = (edge: EdgeName, variant: EdgeVariant) => {
      const key = edgeStory(sections, i, edge, variant)
      return key === null ? undefined : storiesOf(doc).get(key)?.node
    }
    const writer = new StoryWriter(written, automatic, "edge", edgeWidth(setup))
    const { margins, frame, numbering } = setup
    const { watermark } = setup
    const path = watermark?.picture ? written.picture(watermark.picture.asset) : null
    const edges = (edge: EdgeName) => {
      const name = edge === "head" ? "header" : "footer"
      const behind = edge === "head" && watermark
      const all = story(edge, "all")
      const first = setup.firstOwn ? story(edge, "first") : undefined
      const left = setup.leftRight ? story(edge, "left") : undefined
      if (!all && !first && !left && !behind) return ""
      const part = (variant: string, node: Node | undefined) => {
        const shape = behind ? watermarkShape(behind, path, written.nextId(""), automatic) : ""
        const opening = shape === "" ? null : { master: null, start: null, mark: null, behind: shape }
        return xml(`style:${name}${variant}`, null, edgeBlocks(node?.children ?? [written.blank], opening))
      }
      const edgeBlocks = (blocks: readonly Node[], opening: Opening | null) =>
        writer.blocks(
          opening && !blocks.some((own) => own.isTextblock) ? [...blocks, written.blank] : blocks,
          null,
          opening,
        )
      return (
        part("", all) + (setup.leftRight ? part("-left", left) : "") + (setup.firstOwn ? part("-first", first) : "")
      )
    }
    const [head, foot] = [edges("head"), edges("foot")]
    const room = (content: string, edge: PageSetup["head"], margin: number, name: string, gap: string) => {
      if (content === "") return { outer: margin, style: xml(`style:${name}-style`, null) }
      const outer = Math.min(edge.distance, margin)
      return {
        outer,
        style: xml(
          `style:${name}-style`,
          null,
          xml("style:header-footer-properties", { "fo:min-height": points(margin - outer), [gap]: "0pt" }),
        ),
      }
    }
    const top = room(head, setup.head, margins.top, "header", "fo:margin-bottom")
    const bottom = room(foot, setup.foot, margins.bottom, "footer", "fo:margin-top")
    const usage = { sheet: undefined, continuous: undefined, odd: "right", even: "left" }[setup.begins]
    layouts += xml(
      "style:page-layout",
      { "style:name": `L${i + 1}`, "style:page-usage": setup.mirrored ? "mirrored" : usage },
      xml(
        "style:page-layout-properties",
        {
          "fo:page-width": points(setup.width),
          "fo:page-height": points(setup.height),
          "style:print-orientation": setup.width > setup.height ? "landscape" : "portrait",
          "fo:margin-top": points(top.outer),
          "fo:margin-bottom": points(bottom.outer),
          "fo:margin-left": points(margins.left + setup.gutter),
          "fo:margin-right": points(margins.right),
          "fo:background-color": setup.colour ?? undefined,
          "fo:border": frame ? border(frame) : undefined,
          "fo:padding": frame ? points(frame.distance) : undefined,
          "style:num-format": formLetters[numbering.form],
        },
        columns(setup),
      ),
      top.style,
      bottom.style,
    )
    pages += xml(
      "style:master-page",
      {
        "style:name": masterName(i),
        "style:display-name": setup.cover === null ? undefined : coverMark(setup.cover),
        "style:page-layout-name": `L${i + 1}`,
      },
      head,
      foot,
    )
  })
  return { layouts, pages }
}

function notes({ foot, end }: NoteSettings): string {
  return (
    xml("text:notes-configuration", {
      "text:note-class": "footnote",
      "style:num-format": formLetters[foot.form],
      "text:start-numbering-at": { document: "document", section: "chapter", sheet: "page" }[foot.restart],
      "text:footnotes-position": "page",
    }) + xml("text:notes-configuration", { "text:note-class": "endnote", "style:num-format": formLetters[end.form] })
  )
}

/** @returns the bytes of the file */
export function writeOpenDocument(doc: Node, sources: WriteSources): Uint8Array {
  const written = new Written(doc, sources)
  const { properties, notes: settings } = documentAttrs(doc)
  const [ofContent, ofStyles] = [new AutomaticStyles(), new AutomaticStyles()]
  const own = textOf(doc, written, ofContent)
  const { layouts, pages } = masters(doc, written, ofStyles)
  const named = written.styles.part(written.lists, documentAttrs(written.doc).typesetting.hyphenation)
  const version = { "office:version": "1.3" }
  const faces = facesToEmbed(documentAttrs(doc).styles.fonts, sources.asset)
  const content = xml(
    "office:document-content",
    { ...declared, ...version },
    fontDeclarations(faces),
    xml("office:automatic-styles", null, ofContent.part, written.dateStyles),
    xml("office:body", null, xml("office:text", null, own)),
  )
  const styles = xml(
    "office:document-styles",
    { ...declared, ...version },
    fontDeclarations(faces),
    xml("office:styles", null, named, written.lists.part, notes(settings)),
    xml("office:automatic-styles", null, ofStyles.part, layouts, written.dateStyles),
    xml("office:master-styles", null, pages),
  )
  const word = (name: string, own: string) => own !== "" && xml(name, null, escapeXml(own))
  const meta = xml(
    "office:document-meta",
    { ...declared, ...version },
    xml(
      "office:meta",
      null,
      word("dc:title", properties.title || (sources.name ?? "")),
      word("dc:subject", properties.subtitle),
      word("meta:initial-creator", properties.author),
      word("dc:creator", properties.author),
      sourcesProperty(documentAttrs(doc).sources),
      keptProperties(withOwn(documentAttrs(doc), placeless)),
    ),
  )
  const entry = (path: string, type: string) =>
    xml("manifest:file-entry", { "manifest:full-path": path, "manifest:media-type": type })
  const manifest = xml(
    "manifest:manifest",
    { "xmlns:manifest": namespaces.manifest, "manifest:version": "1.3" },
    xml("manifest:file-entry", {
      "manifest:full-path": "/",
      "manifest:version": "1.3",
      "manifest:media-type": textType,
    }),
    entry("content.xml", "text/xml"),
    entry("styles.xml", "text/xml"),
    entry("meta.xml", "text/xml"),
    ...faces.map((face) => entry(fontPath(face), fontType)),
    ...[...written.files.keys()].map((path) =>
      entry(
        path,
        path.startsWith(enclosedFolder) ? "application/octet-stream" : `image/${path.slice(path.lastIndexOf(".") + 1)}`,
      ),
    ),
  )
  const encoder = new TextEncoder()
  const part = (own: string) => encoder.encode(xmlHead + own)
  return zip(
    new Map<string, Uint8Array>([
      ["mimetype", encoder.encode(textType)],
      ["content.xml", part(content)],
      ["styles.xml", part(styles)],
      ["meta.xml", part(meta)],
      ...written.files,
      ...faces.map((face): [string, Uint8Array] => [fontPath(face), face.bytes]),
      ["META-INF/manifest.xml", part(manifest)],
    ]),
    (path) => path === "mimetype" || path.startsWith("Pictures/"),
  )
}
