/** HTML as a file: the same reading as for what is pasted, with what a page has round its text. */
import type { DefaultTreeAdapterTypes } from "parse5"
import type { Node } from "prosemirror-model"
import { document, documentAttrs, limits, nodes, within } from "../../document"
import { Leaving } from "../leaving"
import { takePicture } from "../pictures/taken"
import type { FileRead, LeftOut } from "../format"
import { parsePage } from "./parsing"
import { readHtml, type HtmlPictures } from "./reading"

type HtmlNode = DefaultTreeAdapterTypes.Node

/** What a page may hold and Biblon does not take, by the names of elements. */
const unkept = new Map([
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
  return {
    title: title.replace(/\s+/g, " ").trim(),
    left: [...counts].map(([what, count]) => ({ what, count, leaves: [] })),
  }
}

/** Pictures that lie in the page itself; those elsewhere are never asked for. */
function picturesInto(assets: Map<string, Uint8Array>, leaving: Leaving): HtmlPictures {
  return (source, alt, size) => {
    const data = /^data:image\/[a-z+]+;base64,/i.exec(source)
    if (!data) {
      leaving.add("pictures that lie elsewhere")
      return null
    }
    try {
      const bytes = Uint8Array.from(atob(source.slice(data[0].length).replace(/\s+/g, "")), (sign) =>
        sign.charCodeAt(0),
      )
      const { asset, pixels } = takePicture(bytes)
      assets.set(asset, bytes)
      const fit = (own: number | undefined) => (own === undefined ? undefined : within(own, limits.picture.size))
      const format = {
        ...(size.width === undefined ? {} : { width: fit(size.width) }),
        ...(size.height === undefined ? {} : { height: fit(size.height) }),
        ...(alt === "" ? {} : { alt: alt.slice(0, limits.alt) }),
      }
      return nodes.picture.create({
        asset,
        source: null,
        pixels,
        format: Object.keys(format).length > 0 ? format : null,
      })
    } catch {
      leaving.add("pictures that cannot be read")
      return null
    }
  }
}

export function readHtmlFile(source: string): FileRead {
  const { title, left } = found(parsePage(source))
  const assets = new Map<string, Uint8Array>()
  const leaving = new Leaving()
  const stories: Node[] = []
  const slice = readHtml(source, picturesInto(assets, leaving), stories)
  const doc = document(slice.content.content, {}, stories)
  const attrs = documentAttrs(doc)
  return {
    name: title.slice(0, 200) || null,
    doc: title ? doc.type.create({ ...attrs, properties: { ...attrs.properties, title } }, doc.content) : doc,
    assets,
    left: [...left, ...leaving.list],
  }
}
