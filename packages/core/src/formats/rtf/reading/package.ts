/** Parts of Office Open XML text as one file, for the reader of that. */
import { zip } from "../../zip"
import { escaped } from "./letters"

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

  finish(body: string, properties: ReadonlyMap<string, string>): Uint8Array {
    const relations = (inside: string) =>
      bytesOf(
        `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${inside}</Relationships>`,
      )
    this.files.set(
      "[Content_Types].xml",
      bytesOf('<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>'),
    )
    this.files.set("word/document.xml", bytesOf(`<w:document ${spaces}><w:body>${body}</w:body></w:document>`))
    this.files.set("word/_rels/document.xml.rels", relations(this.relations.join("")))
    this.files.set(
      "docProps/core.xml",
      bytesOf(
        `<cp:coreProperties xmlns:cp="http://schemas.openxmlformats.org/package/2006/metadata/core-properties" xmlns:dc="http://purl.org/dc/elements/1.1/">${[...properties].map(([name, text]) => `<dc:${name}>${escaped(text)}</dc:${name}>`).join("")}</cp:coreProperties>`,
      ),
    )
    this.files.set(
      "_rels/.rels",
      relations(
        `<Relationship Id="a" Type="${kinds}officeDocument" Target="word/document.xml"/><Relationship Id="b" Type="${core}" Target="docProps/core.xml"/>`,
      ),
    )
    return zip(this.files, () => true)
  }
}
