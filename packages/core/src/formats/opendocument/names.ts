/** Namespaces of OpenDocument 1.3. */

const own = (name: string) => `urn:oasis:names:tc:opendocument:xmlns:${name}:1.0`

export const namespaces = {
  office: own("office"),
  style: own("style"),
  text: own("text"),
  table: own("table"),
  draw: own("drawing"),
  fo: own("xsl-fo-compatible"),
  svg: own("svg-compatible"),
  meta: own("meta"),
  number: own("datastyle"),
  manifest: own("manifest"),
  xlink: "http://www.w3.org/1999/xlink",
  dc: "http://purl.org/dc/elements/1.1/",
  math: "http://www.w3.org/1998/Math/MathML",
} as const

const prefixes = new Map<string, string>(Object.entries(namespaces).map(([prefix, uri]) => [uri, prefix]))

export const prefixOf = (namespace: string): string | undefined => prefixes.get(namespace)

/** Where the files lie that are enclosed. */
export const enclosedFolder = "Enclosures/"

export const textType = "application/vnd.oasis.opendocument.text"
