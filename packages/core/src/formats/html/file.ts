/** HTML as a file: the same reading as for what is pasted, with what a page has round its text. */
import type { DefaultTreeAdapterTypes } from "parse5"
import { document, documentAttrs } from "../../document"
import type { FileRead, LeftOut } from "../format"
import { parsePage } from "./parsing"
import { readHtml } from "./reading"

type HtmlNode = DefaultTreeAdapterTypes.Node

/** What a page may hold and Biblon does not take, by the names of elements. */
const unkept = new Map([
  ["img", "pictures"],
  ["picture", "pictures"],
  ["svg", "drawings"],
  ["script", "scripts"],
  ["iframe", "pages inside the page"],
  ["video", "films"],
  ["audio", "sounds"],
  ["form", "forms"],
])

function found(root: HtmlNode): { title: string; left: LeftOut[] } {
  const counts = new Map<string, number>()
  let title = ""
  const waiting: HtmlNode[] = [root]
  for (let node = waiting.pop(); node; node = waiting.pop()) {
    const what = unkept.get(node.nodeName)
    if (what) counts.set(what, (counts.get(what) ?? 0) + 1)
    if (!("childNodes" in node)) continue
    if (node.nodeName === "title" && title === "")
      for (const child of node.childNodes) if ("value" in child) title += child.value
    for (const child of node.childNodes) waiting.push(child)
  }
  return { title: title.replace(/\s+/g, " ").trim(), left: [...counts].map(([what, count]) => ({ what, count })) }
}

export function readHtmlFile(source: string): FileRead {
  const { title, left } = found(parsePage(source))
  const slice = readHtml(source)
  const doc = document(slice.content.content)
  const attrs = documentAttrs(doc)
  return {
    name: title.slice(0, 200) || null,
    doc: title ? doc.type.create({ ...attrs, properties: { ...attrs.properties, title } }, doc.content) : doc,
    assets: new Map(),
    left,
  }
}
