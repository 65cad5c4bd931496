/** A stretch of a document as HTML for other programs: tags where HTML has one, the rest as inline style. */
import type { Node, Slice } from "prosemirror-model"
import { letterLook, outlineLevel, paragraphAttrs, paragraphLook, type LetterFormat, type RunLook, type StyleSheet } from "../../document"

const entities: Record<string, string> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" }
const safe = (text: string) => text.replace(/[&<>"]/g, (c) => entities[c] as string)

function css(properties: Record<string, string | null>): string {
  const said = Object.entries(properties).filter(([, value]) => value !== null)
  return said.length > 0 ? ` style="${safe(said.map(([name, value]) => `${name}:${value}`).join(";"))}"` : ""
}

/** Letters that differ from those of their paragraph. */
function run(text: string, look: RunLook, base: LetterFormat): string {
  const differs = <K extends keyof LetterFormat>(name: K) => look[name] !== base[name]
  const span = css({
    "font-family": differs("family") ? `'${look.family}'` : null,
    "font-size": differs("size") ? `${look.size}pt` : null,
    color: differs("colour") && !look.link ? look.colour : null,
    "font-weight": differs("bold") && !look.bold ? "normal" : null,
    "font-style": differs("italic") && !look.italic ? "normal" : null,
  })
  let html = safe(text).replace(/\n/g, "<br>").replace(/ {2,}|^ | $/g, (spaces) => "&nbsp;".repeat(spaces.length - 1) + " ")
  if (span) html = `<span${span}>${html}</span>`
  if (differs("underline") && look.underline !== "none" && !look.link) html = `<u>${html}</u>`
  if (differs("italic") && look.italic) html = `<em>${html}</em>`
  if (differs("bold") && look.bold) html = `<strong>${html}</strong>`
  return look.link && !look.link.startsWith("#") ? `<a href="${safe(look.link)}">${html}</a>` : html
}

function inline(paragraph: Node, base: LetterFormat): string {
  let html = ""
  paragraph.forEach((child) => {
    html += run(child.isText ? (child.text ?? "") : (child.type.spec.leafText?.(child) ?? ""), letterLook(base, child.marks), base)
  })
  return html
}

function block(paragraph: Node, styles: StyleSheet): string {
  const level = outlineLevel(styles, paragraph)
  const { paragraph: format, letters } = paragraphLook(styles, paragraph)
  const tag = level ? `h${Math.min(6, level)}` : paragraphAttrs(paragraph).style === "quotation" ? "blockquote" : "p"
  const style = css({
    "font-family": `'${letters.family}'`,
    "font-size": `${letters.size}pt`,
    color: letters.colour,
    "font-weight": level && !letters.bold ? "normal" : !level && letters.bold ? "bold" : null,
    "font-style": letters.italic ? "italic" : null,
    "text-align": format.align === "left" ? null : format.align,
    "line-height": format.lineSpacing.rule === "multiple" ? String(Math.round(format.lineSpacing.value * 1.2 * 100) / 100) : format.lineSpacing.rule === "exact" ? `${format.lineSpacing.value}pt` : null,
    margin: `${format.spaceBefore}pt ${format.indentRight}pt ${format.spaceAfter}pt ${format.indentLeft}pt`,
    "text-indent": format.indentFirst ? `${format.indentFirst}pt` : null,
  })
  return `<${tag}${style}>${inline(paragraph, letters)}</${tag}>`
}

/** A part of one paragraph comes as letters, whole paragraphs as blocks. */
export function writeHtml(slice: Slice, styles: StyleSheet): string {
  const blocks: Node[] = []
  slice.content.descendants((node) => {
    if (node.isTextblock) blocks.push(node)
    return !node.isTextblock
  })
  const [only] = blocks
  if (only && blocks.length === 1 && slice.openStart > 0) return inline(only, paragraphLook(styles, only).letters)
  return blocks.map((node) => block(node, styles)).join("\n")
}
