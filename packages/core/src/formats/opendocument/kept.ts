/** Properties that people made (OpenDocument 1.3, 4.3.3), which are given back. */
import { asName, limits, type Kept } from "../../document"
import { keptProperty } from "../properties"
import { child, childrenNamed, textIn, type XmlElement } from "../xml/parsing"
import { escapeXml, xml } from "../xml/writing"
import { sourcesPropertyName } from "./sources"

/** The document's own properties that stand among those that people made. */
export const placeless = ["organisation", "date"] as const

type Kind = Kept["properties"][string]["kind"]

const kindsMeant = new Map<string, Kind>([
  ["float", "number"],
  ["date", "date"],
  ["boolean", "yes"],
])
const typeNames: Readonly<Record<Kind, string>> = { text: "string", number: "float", date: "date", yes: "boolean" }

export function keptFromMeta(meta: XmlElement | undefined): Kept {
  const properties = childrenNamed(child(meta, "office:meta"), "meta:user-defined").flatMap(
    (own): [string, Kept["properties"][string]][] => {
      const name = asName(own.attrs["meta:name"] ?? "", limits.property)
      if (name === "" || name === sourcesPropertyName) return []
      return [[name, keptProperty(kindsMeant.get(own.attrs["meta:value-type"] ?? "") ?? "text", textIn(own))]]
    },
  )
  return { properties: Object.fromEntries(properties.slice(0, limits.kept.properties)), parts: {} }
}

export function keptProperties({ properties }: Kept): string {
  return Object.entries(properties)
    .map(([name, { kind, value }]) =>
      xml(
        "meta:user-defined",
        { "meta:name": name, "meta:value-type": typeNames[kind] },
        escapeXml(kind === "yes" ? String(/^(true|1)$/.test(value)) : value),
      ),
    )
    .join("")
}
