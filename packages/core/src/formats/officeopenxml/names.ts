/** Namespaces of Office Open XML, transitional (ECMA-376, ISO/IEC 29500-4) and strict (ISO/IEC 29500-1). */

const office = "http://schemas.openxmlformats.org/"
const strict = "http://purl.oclc.org/ooxml/"

export const namespaces = {
  w: `${office}wordprocessingml/2006/main`,
  r: `${office}officeDocument/2006/relationships`,
  wp: `${office}drawingml/2006/wordprocessingDrawing`,
  a: `${office}drawingml/2006/main`,
  pic: `${office}drawingml/2006/picture`,
  lc: `${office}drawingml/2006/lockedCanvas`,
  m: `${office}officeDocument/2006/math`,
  mc: `${office}markup-compatibility/2006`,
  rel: `${office}package/2006/relationships`,
  ct: `${office}package/2006/content-types`,
  cp: `${office}package/2006/metadata/core-properties`,
  ep: `${office}officeDocument/2006/extended-properties`,
  op: `${office}officeDocument/2006/custom-properties`,
  vt: `${office}officeDocument/2006/docPropsVTypes`,
  b: `${office}officeDocument/2006/bibliography`,
  dc: "http://purl.org/dc/elements/1.1/",
  dcterms: "http://purl.org/dc/terms/",
} as const

const prefixes = new Map<string, string>([
  ...Object.entries(namespaces).map(([prefix, uri]): [string, string] => [
    uri,
    prefix === "ct" || prefix === "rel" ? "" : prefix,
  ]),
  [`${strict}wordprocessingml/main`, "w"],
  [`${strict}officeDocument/relationships`, "r"],
  [`${strict}drawingml/wordprocessingDrawing`, "wp"],
  [`${strict}drawingml/main`, "a"],
  [`${strict}drawingml/picture`, "pic"],
  [`${strict}drawingml/lockedCanvas`, "lc"],
  [`${strict}officeDocument/math`, "m"],
  [`${strict}officeDocument/extendedProperties`, "ep"],
  [`${strict}officeDocument/customProperties`, "op"],
  [`${strict}officeDocument/docPropsVTypes`, "vt"],
  [`${strict}officeDocument/bibliography`, "b"],
  ["urn:biblon:sources", "own"],
])

/** Additions to the standard by which parts of a drawing are told, by the end of their names. */
const additions: readonly (readonly [RegExp, string])[] = [
  [/^urn:schemas-[\w-]+:vml$/, "v"],
  [/\/wordprocessingShape$/, "wps"],
  [/\/wordprocessingGroup$/, "wpg"],
  [/\/wordprocessingCanvas$/, "wpc"],
  [/\/wordml$/, "w14"],
]

export function prefixOf(namespace: string): string | undefined {
  return prefixes.get(namespace) ?? additions.find(([pattern]) => pattern.test(namespace))?.[1]
}
