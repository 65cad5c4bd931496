/** Properties that people made: those that are given back, and the document's own for which a format has no other place. */
import type { Node } from "prosemirror-model"
import {
  asName,
  documentProperties,
  entryOf,
  fieldAttrs,
  limits,
  unknownValue,
  type DocumentAttrs,
  type Kept,
  type Properties,
  type Typesetting,
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

/** The property, and its value, that says that lines are broken with the whole paragraph in view: no format has another place for it. */
const [breakingName, wholeBreaking] = ["Line breaking", "Whole paragraph"]

/** What people made, with what is the document's own and for which a format has no other place. */
export function withOwn(
  { kept, properties, typesetting }: Pick<DocumentAttrs, "kept" | "properties" | "typesetting">,
  placeless: readonly OwnProperty[],
): Kept {
  const said: [name: string, value: string][] = placeless.flatMap((own) =>
    properties[own] === "" ? [] : [[ownNames[own], properties[own]]],
  )
  if (typesetting.breaking === "whole") said.push([breakingName, wholeBreaking])
  const own = said.map(([name, value]) => [name, { kind: "text" as const, value }])
  return { ...kept, properties: { ...kept.properties, ...Object.fromEntries(own) } }
}

/** What people made, and apart from it what is the document's own and stood there. */
export function withoutOwn(
  kept: Kept,
  placeless: readonly OwnProperty[],
): { kept: Kept; own: Partial<Record<OwnProperty, string>>; breaking: Typesetting["breaking"] } {
  const isWhole = kept.properties[breakingName]?.value === wholeBreaking
  const all = Object.entries(kept.properties).filter(([name]) => !(isWhole && name === breakingName))
  const meant = (name: string) => placeless.find((own) => own === ownNamed(name))
  const own = all.flatMap(([name, { value }]) => {
    const property = meant(name)
    return property ? [[property, value]] : []
  })
  const others = all.filter(([name]) => !meant(name))
  return {
    kept: { ...kept, properties: Object.fromEntries(others) },
    own: Object.fromEntries(own),
    breaking: isWhole ? "whole" : "quick",
  }
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
