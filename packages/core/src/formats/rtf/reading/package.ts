/** Parts of Office Open XML text as one file, for the reader of that. */
import { propertiesPart } from "../../officeopenxml/kept"
import { zip } from "../../zip"
import { escaped } from "./letters"
import type { Book } from "./tellings"

const spaces =
  'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" ' +
  'xmlns:wp="http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing" xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" ' +
  'xmlns:pic="http://schemas.openxmlformats.org/drawingml/2006/picture"'
const kinds = "http://schemas.openxmlformats.org/officeDocument/2006/relationships/"
const core = "http://schemas.openxmlformats.org/package/2006/relationships/metadata/core-properties"

const bytesOf = (text: string) => new TextEncoder().encode(text)

export class Package {
  private readonly files = new Map<string, Uint8Array>()
  private readonly relations: string[] = []

  /** @returns the id of its relation to the main part */
  add(kind: string, name: string, content: string | Uint8Array): string {
    const id = `r${this.relations.length + 1}`
    this.files.set(`word/${name}`, typeof content === "string" ? bytesOf(content) : content)
    this.relations.push(`<Relationship Id="${id}" Type="${kinds}${kind}" Target="${name}"/>`)
    return id
  }

  /** A part of one element. */
  part(kind: string, root: string, inside: string, number = ""): string {
    return this.add(kind, `${kind}${number}.xml`, `<w:${root} ${spaces}>${inside}</w:${root}>`)
  }

  finish(body: string, { properties, made }: Pick<Book, "properties" | "made">): Uint8Array {
    const relations = (inside: string) =>
      bytesOf(
        `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${inside}</Relationships>`,
      )
    const word = (space: string, name: string, own = name) =>
      properties.has(own) ? `<${space}${name}>${escaped(properties.get(own) ?? "")}</${space}${name}>` : ""
    const described = ["title", "subject", "creator"].map((name) => word("dc:", name)).join("")
    const parts: [type: string, path: string, content: string][] = [
      [`${kinds}officeDocument`, "word/document.xml", `<w:document ${spaces}><w:body>${body}</w:body></w:document>`],
      [
        core,
        "docProps/core.xml",
        `<cp:coreProperties xmlns:cp="http://schemas.openxmlformats.org/package/2006/metadata/core-properties" xmlns:dc="http://purl.org/dc/elements/1.1/">${described}</cp:coreProperties>`,
      ],
      [
        `${kinds}extended-properties`,
        "docProps/app.xml",
        `<Properties xmlns="http://schemas.openxmlformats.org/officeDocument/2006/extended-properties">${word("", "Company", "company")}</Properties>`,
      ],
    ]
    if (made.size > 0) {
      const own = propertiesPart({ properties: Object.fromEntries(made), parts: {} })
      parts.push([`${kinds}custom-properties`, "docProps/custom.xml", own])
    }
    this.files.set(
      "[Content_Types].xml",
      bytesOf('<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>'),
    )
    for (const [, path, content] of parts) this.files.set(path, bytesOf(content))
    this.files.set("word/_rels/document.xml.rels", relations(this.relations.join("")))
    this.files.set(
      "_rels/.rels",
      relations(parts.map(([type, path], i) => `<Relationship Id="r${i}" Type="${type}" Target="${path}"/>`).join("")),
    )
    return zip(this.files, () => true)
  }
}
