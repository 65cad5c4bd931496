/** Packages written by hand. */
import { zip } from "../src/formats/zip"

const office = "http://schemas.openxmlformats.org/"
const relations = `${office}officeDocument/2006/relationships`
const names = `xmlns:w="${office}wordprocessingml/2006/main" xmlns:r="${relations}"`
const strict =
  'xmlns:w="http://purl.oclc.org/ooxml/wordprocessingml/main" xmlns:r="http://purl.oclc.org/ooxml/officeDocument/relationships"'

export interface Made {
  body: string
  styles?: string
  numbering?: string
  settings?: string
  footnotes?: string
  /** What the text refers to: id, type, target. */
  relations?: readonly (readonly [id: string, type: string, target: string])[]
  files?: Readonly<Record<string, string | Uint8Array>>
  strict?: boolean
}

/** The bytes of a text of Office Open XML with that in its body. */
export function officeFile({ body, files = {}, relations: own = [], strict: isStrict, ...parts }: Made): Uint8Array {
  const declared = isStrict ? strict : names
  const others = Object.entries(parts).filter((entry): entry is [string, string] => typeof entry[1] === "string")
  const all: Record<string, string | Uint8Array> = {
    "[Content_Types].xml": `<Types xmlns="${office}package/2006/content-types"/>`,
    "_rels/.rels": `<Relationships xmlns="${office}package/2006/relationships"><Relationship Id="a" Type="${relations}/officeDocument" Target="word/document.xml"/></Relationships>`,
    "word/document.xml": `<w:document ${declared}><w:body>${body}</w:body></w:document>`,
    "word/_rels/document.xml.rels": `<Relationships xmlns="${office}package/2006/relationships">${others
      .map(([name]) => `<Relationship Id="of-${name}" Type="${relations}/${name}" Target="${name}.xml"/>`)
      .join("")}${own
      .map(
        ([id, type, target]) =>
          `<Relationship Id="${id}" Type="${relations}/${type}" Target="${target}"${/^https?:/.test(target) ? ' TargetMode="External"' : ""}/>`,
      )
      .join("")}</Relationships>`,
    ...Object.fromEntries(
      others.map(([name, content]) => [`word/${name}.xml`, `<w:${name} ${declared}>${content}</w:${name}>`]),
    ),
    ...files,
  }
  const encoder = new TextEncoder()
  return zip(
    new Map(Object.entries(all).map(([path, own]) => [path, typeof own === "string" ? encoder.encode(own) : own])),
  )
}

export const wp = (runs: string, properties = "") => `<w:p>${properties && `<w:pPr>${properties}</w:pPr>`}${runs}</w:p>`
export const wr = (text: string, properties = "") =>
  `<w:r>${properties && `<w:rPr>${properties}</w:rPr>`}<w:t xml:space="preserve">${text}</w:t></w:r>`
