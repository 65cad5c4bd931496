/** Properties that people made: those that are given back, and the document's own for which a format has no other place. */
import type { Node } from "prosemirror-model"
import {
  asName,
  documentProperties,
  entryOf,
  fieldAttrs,
  limits,
  unknownValue,
  type Kept,
  type Properties,
} from "../document"
import { meanings } from "./meanings"

type Property = Kept["properties"][string]

/** A value as others take it for one of its kind; else it is text. */
export function keptProperty(kind: Property["kind"], text: string): Property {
  const value = asName(text, limits.property)
  const right = {
    text: true,
    number: /^-?\d+(\.\d+)?(e[+-]?\d+)?$/i.test(value),
    date: /^\d{4}-\d\d-\d\d(T\d\d:\d\d:\d\d(\.\d+)?Z?)?$/.test(value),
    yes: /^(true|false|1|0)$/.test(value),
  }[kind]
  return { kind: right ? kind : "text", value }
}

/** The document's own properties by the names that they have among those that people made. */
const ownNames = { organisation: "Organisation", date: "Document date" } as const
type OwnProperty = keyof typeof ownNames

/** The property of the document that is meant by the name of one that somebody made. */
export const ownNamed = meanings(
  Object.fromEntries(Object.entries(ownNames).map(([own, name]) => [name, own as OwnProperty])),
)

/** The name among those that people made of a property for which a format may have no other place. */
export const nameOfOwn = (property: string): string | undefined => entryOf(ownNames as Record<string, string>, property)

/** What people made, with the document's own properties for which a format has no other place. */
export function withOwn(kept: Kept, properties: Properties, placeless: readonly OwnProperty[]): Kept {
  const said = placeless.filter((own) => properties[own] !== "")
  const own = said.map((name) => [ownNames[name], { kind: "text" as const, value: properties[name] }])
  return { ...kept, properties: { ...kept.properties, ...Object.fromEntries(own) } }
}

/** What people made, and apart from it the document's own properties that stood there. */
export function withoutOwn(
  kept: Kept,
  placeless: readonly OwnProperty[],
): { kept: Kept; own: Partial<Record<OwnProperty, string>> } {
  const all = Object.entries(kept.properties)
  const meant = (name: string) => placeless.find((own) => own === ownNamed(name))
  const own = all.flatMap(([name, { value }]) => {
    const property = meant(name)
    return property ? [[property, value]] : []
  })
  const others = all.filter(([name]) => !meant(name))
  return { kept: { ...kept, properties: Object.fromEntries(others) }, own: Object.fromEntries(own) }
}

/** Properties with what fields of a file showed of those that it says nothing else of: the words stay. */
export function withShown(properties: Properties, shown: ReadonlyMap<Node, string>): Properties {
  const found = { ...properties }
  for (const [field, words] of shown) {
    const { kind, format } = fieldAttrs(field)
    const name = documentProperties.find((own) => own === (kind === "property" ? format : kind))
    if (name && words !== unknownValue) found[name] ||= asName(words, limits.property)
  }
  return found
}
