import { asName, limits, type Kept } from "../document"

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
