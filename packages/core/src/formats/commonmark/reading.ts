/** CommonMark with tables, struck words and notes: what it says is said in HTML, and read as that. */
/// <reference path="./modules.d.ts" />
import MarkdownIt from "markdown-it"
import footnotes from "markdown-it-footnote"
import type { FileRead } from "../format"
import { readHtmlFile } from "../html/file"

/** What stands before the text between lines of dashes: pairs of names and values. */
const front = /^---\r?\n([\s\S]{0,20000}?)\r?\n(?:---|\.\.\.)\r?\n/

export function readCommonMark(source: string): FileRead {
  const said = front.exec(source)
  const title = /^title:\s*["']?(.*?)["']?\s*$/m.exec(said?.[1] ?? "")?.[1]
  // HTML inside it stays what it is written as: text.
  const parser = new MarkdownIt({ html: false, linkify: true, typographer: false }).use(footnotes)
  const body = parser.render(said ? source.slice(said[0].length) : source)
  const head = title ? `<title>${title.replace(/[&<>]/g, (sign) => `&#${sign.charCodeAt(0)};`)}</title>` : ""
  // Things to do are written as words.
  const ticked = body.replace(/<li>(\s*<p>)?\[([ xX])\] /g, (_, open: string | undefined, tick: string) => {
    return `<li>${open ?? ""}<input type="checkbox"${tick === " " ? "" : " checked"}>`
  })
  return readHtmlFile(head + ticked)
}
