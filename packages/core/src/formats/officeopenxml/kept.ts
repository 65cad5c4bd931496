/**
 * What a file brings that Biblon has no use for, and that is given back: properties that people made (ISO/IEC 29500-1, 22.3) and parts
 * with data of other programs (15.2.5). A part goes back letter by letter, if it is whole XML without a document type.
 */
import { asName, limits, type Kept } from "../../document"
import { keptProperty } from "../properties"
import { childrenNamed, isElement, parseXml, textIn, type XmlElement } from "../xml/parsing"
import { escapeXml, xml } from "../xml/writing"
import { namespaces, prefixOf } from "./names"
import type { Parts } from "./parts"

type Property = Kept["properties"][string]

const kindsMeant: readonly (readonly [RegExp, Property["kind"]])[] = [
  [/^vt:(u?i[1248]?|u?int|r[48]|decimal)$/, "number"],
  [/^vt:(date|filetime)$/, "date"],
  [/^vt:bool$/, "yes"],
  [/^vt:(lpw?str|bstr)$/, "text"],
]

const typeNames: Readonly<Record<Property["kind"], string>> = {
  text: "vt:lpwstr",
  number: "vt:r8",
  date: "vt:filetime",
  yes: "vt:bool",
}

export function propertiesIn(parts: Parts): Kept["properties"] {
  const root = parts.xml(parts.related("", "custom-properties") ?? "")
  return Object.fromEntries(
    childrenNamed(root, "op:property")
      .flatMap((own): [string, Property][] => {
        const name = asName(own.attrs.name ?? "", limits.property)
        const value = own.children.find(isElement)
        const kind = kindsMeant.find(([pattern]) => pattern.test(value?.name ?? ""))?.[1]
        return name === "" || !kind ? [] : [[name, keptProperty(kind, textIn(value))]]
      })
      .slice(0, limits.kept.properties),
  )
}

/** The text of a part that may go back as it is; null for one that may not. */
function textOf(parts: Parts, path: string): string | null {
  const text = parts.text(path).replace(/^\ufeff?(<\?xml[^>]*\?>)?\s*/, "")
  return text === "" || text.length > limits.kept.part || /<!DOCTYPE/i.test(text) ? null : text
}

/** The same for one that nobody has read yet. */
function safely(parts: Parts, path: string): string | null {
  const text = textOf(parts, path)
  if (text === null) return null
  try {
    return parseXml(text, { prefix: prefixOf }).damaged ? null : text
  } catch {
    return null
  }
}

/** The parts with data that the text refers to; those that can be read with their roots. */
export function dataParts(parts: Parts, main: string): { path: string; root: XmlElement | undefined }[] {
  return [...parts.relations(main).values()].flatMap(({ type, target, external }) =>
    type === "customXml" && !external ? [{ path: target, root: parts.xml(target) }] : [],
  )
}

/** @param ours names of the roots of parts that are understood */
export function keptFrom(parts: Parts, data: ReturnType<typeof dataParts>, ours: readonly string[]): Kept {
  const found: Record<string, Kept["parts"][string]> = {}
  for (const { path: target, root } of data) {
    if (Object.keys(found).length >= limits.kept.parts) break
    const content = !root || parts.damaged.has(target) || ours.includes(root.name) ? null : textOf(parts, target)
    if (content === null) continue
    const about = parts.related(target, "customXmlProps")
    const told = about === undefined ? null : safely(parts, about)
    found[`part-${Object.keys(found).length + 1}`] = { content, about: told }
  }
  return { properties: propertiesIn(parts), parts: found }
}

/** The part with the properties; nothing without any. */
export function propertiesPart({ properties }: Kept): string {
  const all = Object.entries(properties)
  if (all.length === 0) return ""
  return xml(
    "Properties",
    { xmlns: namespaces.op, "xmlns:vt": namespaces.vt },
    ...all.map(([name, { kind, value }], i) =>
      xml(
        "property",
        // The set to which properties that people made belong.
        { fmtid: "{D5CDD505-2E9C-101B-9397-08002B2CF9AE}", pid: i + 2, name },
        xml(typeNames[kind], null, escapeXml(value)),
      ),
    ),
  )
}
