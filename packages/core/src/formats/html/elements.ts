import type { DefaultTreeAdapterTypes } from "parse5"

export type Element = DefaultTreeAdapterTypes.Element

export function attribute(element: Element, name: string): string | undefined {
  return element.attrs.find((a) => a.name === name)?.value
}
