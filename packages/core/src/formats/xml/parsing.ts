/**
 * XML as a tree of plain data, whoever wrote it: names carry the prefixes that we give to namespaces, entities are never expanded
 * beyond the five of XML, and there is no document type. What is damaged is read as far as it goes.
 */
import { SaxesParser } from "saxes"
import { ReadingError } from "../../document/reading"

export interface XmlElement {
  /** With the prefix that we give to its namespace: "w:p". Of an unknown namespace, "?:p". */
  readonly name: string
  /** By name; those without a prefix have none. */
  readonly attrs: Readonly<Record<string, string>>
  readonly children: readonly XmlNode[]
}
export type XmlNode = XmlElement | string

export interface XmlRead {
  root: XmlElement
  /** Whether something of it could not be read. */
  damaged: boolean
}

export interface XmlOptions {
  /** The prefix that we give to a namespace; undefined for one that is not known, "" for none. */
  prefix(namespace: string): string | undefined
  /** Children of these elements are handed over one by one, with the name of the element, and not kept. */
  each?: { of: ReadonlySet<string>; take(child: XmlElement, of: string): void }
  /** Whether text that is nothing but white space between elements is kept. */
  blanks?: boolean
}

/** So many elements may stand inside one another. */
const deepest = 256
/** Elements of one part: a thousand sheets have about a million. */
const mostElements = 20_000_000

/** Names that are remembered: more than any of the formats has. */
const mostNames = 4000

const none: Readonly<Record<string, string>> = Object.freeze(Object.create(null) as Record<string, string>)

interface Open {
  name: string
  attrs: Readonly<Record<string, string>>
  children: XmlNode[]
  /** That of the parent unless it says something of its own. */
  scope: Scope
}

/** What prefixes mean from an element on. Names are worked out once: a document has few, and each a thousand times. */
class Scope {
  private readonly names = new Map<string, string>()

  constructor(private readonly prefixes: ReadonlyMap<string, string>) {}

  /** With what an element says of prefixes. */
  with(told: readonly (readonly [prefix: string, known: string])[]): Scope {
    return told.length === 0 ? this : new Scope(new Map([...this.prefixes, ...told]))
  }

  named(name: string): string {
    let own = this.names.get(name)
    if (own === undefined) {
      own = this.meant(name)
      if (this.names.size < mostNames) this.names.set(name, own)
    }
    return own
  }

  private meant(name: string): string {
    const colon = name.indexOf(":")
    const known = this.prefixes.get(colon < 0 ? "" : name.slice(0, colon))
    if (known === undefined) return colon < 0 ? name : `?:${name.slice(colon + 1)}`
    return known === "" ? name.slice(colon + 1) : `${known}:${name.slice(colon + 1)}`
  }
}

/** @throws ReadingError */
export function parseXml(source: string, { prefix, each, blanks = true }: XmlOptions): XmlRead {
  const root: Open = { name: "", attrs: none, children: [], scope: new Scope(new Map([["xml", "xml"]])) }
  const open: Open[] = [root]
  let elements = 0
  let damaged = false
  /** How deep one is in what stands too deep and is passed over. */
  let skipped = 0

  const close = (own: Open) => {
    const { name, attrs, children } = own
    const parent = open.at(-1) as Open
    const element: XmlElement = { name, attrs, children }
    if (each?.of.has(parent.name)) each.take(element, parent.name)
    else parent.children.push(element)
  }

  const parser = new SaxesParser({ xmlns: false, position: false })
  parser.on("doctype", () => {
    throw new ReadingError("It holds a document type, which no office document does")
  })
  parser.on("error", () => {
    damaged = true
  })
  parser.on("opentag", (tag) => {
    if (skipped > 0 || open.length > deepest) {
      skipped++
      damaged = true
      return
    }
    if (++elements > mostElements) throw new ReadingError("It holds more than this program can read")
    const parent = open.at(-1) as Open
    const given = tag.attributes
    const told: [string, string][] = []
    for (const key in given)
      if (key === "xmlns" || key.startsWith("xmlns:")) told.push([key.slice(6), prefix(given[key] as string) ?? "?"])
    const scope = parent.scope.with(told)
    let attrs = none
    for (const key in given) {
      if (key === "xmlns" || key.startsWith("xmlns:")) continue
      if (attrs === none) attrs = Object.create(null) as Record<string, string>
      ;(attrs as Record<string, string>)[key.includes(":") ? scope.named(key) : key] = given[key] as string
    }
    open.push({ name: scope.named(tag.name), attrs, children: [], scope })
  })
  parser.on("closetag", () => {
    if (skipped > 0) return void skipped--
    if (open.length > 1) close(open.pop() as Open)
  })
  const text = (words: string) => {
    if (skipped > 0 || (!blanks && words.trim() === "")) return
    const { children } = open.at(-1) as Open
    const last = children.at(-1)
    if (typeof last === "string") children[children.length - 1] = last + words
    else children.push(words)
  }
  parser.on("text", text)
  parser.on("cdata", text)
  parser.write(source.charCodeAt(0) === 0xfeff ? source.slice(1) : source).close()
  // What was cut off ends where it was cut.
  if (open.length > 1) damaged = true
  while (open.length > 1) close(open.pop() as Open)
  const first = root.children.find((child): child is XmlElement => typeof child !== "string")
  if (!first) throw new ReadingError("There is no XML in it")
  return { root: first, damaged }
}

/** Bytes of a part as text: by their mark, else by what the first line says, else as UTF-8. */
export function xmlText(bytes: Uint8Array): string {
  const [a, b] = bytes
  if (a === 0xff && b === 0xfe) return new TextDecoder("utf-16le").decode(bytes)
  if (a === 0xfe && b === 0xff) return new TextDecoder("utf-16be").decode(bytes)
  const head = String.fromCharCode(...bytes.subarray(0, 200))
  const said = /^[^<]*<\?xml[^>]*encoding\s*=\s*["']([\w-]+)["']/.exec(head)?.[1]
  try {
    return new TextDecoder(said ?? "utf-8").decode(bytes)
  } catch {
    return new TextDecoder().decode(bytes)
  }
}

// ---- reading a tree

export function isElement(node: XmlNode): node is XmlElement {
  return typeof node !== "string"
}

export function child(element: XmlElement | undefined, name: string): XmlElement | undefined {
  if (element) for (const own of element.children) if (typeof own !== "string" && own.name === name) return own
  return undefined
}

export function childrenNamed(element: XmlElement | undefined, name: string): XmlElement[] {
  return element
    ? element.children.filter((own): own is XmlElement => typeof own !== "string" && own.name === name)
    : []
}

/** The first element of a name at any depth. */
export function within(element: XmlElement | undefined, name: string): XmlElement | undefined {
  for (const own of element?.children ?? []) {
    if (typeof own === "string") continue
    const found = own.name === name ? own : within(own, name)
    if (found) return found
  }
  return undefined
}

/** All elements of a name, wherever they stand, but not those inside another of that name. */
export function allWithin(element: XmlElement | undefined, name: string, found: XmlElement[] = []): XmlElement[] {
  for (const own of element?.children ?? []) {
    if (typeof own === "string") continue
    if (own.name === name) found.push(own)
    else allWithin(own, name, found)
  }
  return found
}

/** All text in an element. */
export function textIn(element: XmlElement | undefined): string {
  return element ? element.children.map((own) => (typeof own === "string" ? own : textIn(own))).join("") : ""
}
