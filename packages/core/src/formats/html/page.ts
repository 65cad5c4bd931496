/** A whole document as a page of its own: its pictures in it, its notes below the text. */
import {
  bodyOf,
  documentAttrs,
  entriesOf,
  noteLabels,
  pictureAttrs,
  pictureFormat,
  pictureSize,
  storiesOf,
  textWidth,
  valuesNow,
  valuesOf,
  withName,
  shownByFields,
} from "../../document"
import type { Node } from "prosemirror-model"
import type { AssetSource } from "../format"
import { checkPicture } from "../pictures/file"
import { safe, writeBlocks, type HtmlSources } from "./writing"

/** Bytes as they stand in an address. */
/** A picture as an address that holds it whole. @throws PictureError */
export function pictureAddress(bytes: Uint8Array): string {
  return `data:${checkPicture(bytes).type};base64,${base64(bytes)}`
}

export function base64(bytes: Uint8Array): string {
  let text = ""
  // As many at once as can be handed to a function.
  for (let at = 0; at < bytes.length; at += 8190) text += String.fromCharCode(...bytes.subarray(at, at + 8190))
  return btoa(text)
}

/** What a document's own values and files are on a page. */
export class PageSources implements HtmlSources {
  readonly places = true
  /** Keys of the notes whose marks were written, in their order. */
  readonly noted: string[] = []
  private readonly shown: ReadonlyMap<Node, string>
  private readonly values
  private readonly labels

  constructor(
    private readonly doc: Node,
    name: string,
    /** Where a picture is to be had; null where it is not. */
    private readonly address: (asset: string) => string | null,
  ) {
    this.values = valuesOf(doc, withName(valuesNow, name))
    this.shown = shownByFields(doc)
    this.labels = noteLabels(doc)
  }

  field(field: Node, language: string): string {
    return this.shown.get(field) ?? this.values(field, language)
  }

  mark(anchor: Node): string {
    const key = anchor.attrs.story as string
    if (!this.labels.has(key)) return ""
    this.noted.push(key)
    const id = encodeURIComponent(key)
    return `<sup><a id="mark-${id}" href="#note-${id}" role="doc-noteref">${safe(this.labels.get(key) ?? "")}</a></sup>`
  }

  picture(picture: Node): string {
    const address = this.address(pictureAttrs(picture).asset)
    const format = pictureFormat(picture)
    if (address === null) return format.alt === "" ? "" : safe(`[${format.alt}]`)
    const { width, height } = pictureSize(picture, {
      width: textWidth(documentAttrs(this.doc).setup),
      height: Infinity,
    })
    const { wrap, across, shape, turn, opacity } = format
    const style = [
      `width:${Math.round(width)}pt`,
      `height:${Math.round(height)}pt`,
      "max-width:100%",
      wrap === "beside" ? `float:${across.align === "left" ? "left" : "right"};margin:0 ${format.distance}pt` : null,
      wrap === "across" ? "display:block;margin:0 auto" : null,
      shape === "round" ? "border-radius:50%" : shape === "rounded" ? "border-radius:8%" : null,
      turn === 0 ? null : `transform:rotate(${turn}deg)`,
      opacity < 1 ? `opacity:${opacity}` : null,
    ]
    return `<img src="${safe(address)}" alt="${safe(format.alt)}" style="${style.filter(Boolean).join(";")}">`
  }

  /** The notes whose marks were written since they were asked for last. */
  notes(): string {
    const { styles } = documentAttrs(this.doc)
    const keys = this.noted.splice(0)
    const written = keys.map((key) => {
      const blocks = storiesOf(this.doc).get(key)?.node.children ?? []
      const id = encodeURIComponent(key)
      return `<div id="note-${id}" role="doc-footnote"><a href="#mark-${id}">${safe(this.labels.get(key) ?? "")}</a> ${writeBlocks(blocks, styles, this)}</div>`
    })
    return written.length > 0 ? `<hr>\n<section role="doc-endnotes">\n${written.join("\n")}\n</section>` : ""
  }

  /** Blocks with what stands for lists of contents. */
  blocks(blocks: readonly Node[]): string {
    const { styles, setup } = documentAttrs(this.doc)
    const all = blocks.flatMap((block) =>
      block.type.name === "contents"
        ? entriesOf(this.doc, block, textWidth(setup), null).map(({ node }) => node)
        : [block],
    )
    return writeBlocks(
      all.filter((block) => block.isTextblock || block.type.name === "table"),
      styles,
      this,
    )
  }
}

export function htmlPage(doc: Node, title: string, asset: AssetSource = () => undefined): string {
  const { styles, setup } = documentAttrs(doc)
  const sources = new PageSources(doc, title, (name) => {
    const bytes = asset(name)
    return bytes ? pictureAddress(bytes) : null
  })
  const body = sources.blocks(bodyOf(doc).children)
  const { width, margins } = setup
  return `<!doctype html>
<html lang="${safe(styles.defaults.letters.language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>${safe(title)}</title>
<style>body{max-width:${width - margins.left - margins.right}pt;margin:2em auto;padding:0 1em}</style>
</head>
<body>
${body}
${sources.notes()}
</body>
</html>
`
}
