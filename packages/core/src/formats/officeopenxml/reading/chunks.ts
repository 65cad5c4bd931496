/** Text that lies in a file of another kind inside the package (ISO/IEC 29500-1, 17.17.2.1): pages of the web, alone or wrapped as a message (RFC 2557), and plain text. */
import { paragraph } from "../../../document"
import type { Node } from "prosemirror-model"
import { textOf } from "../../encoding"
import { readHtmlFile } from "../../html/file"
import type { FileRead } from "../../format"

const isPage = (text: string) => /<(?:html|body|p|div|h[1-6]|table|ul|ol|span|br)\b/i.test(text.slice(0, 20_000))

/** A message's body as text, by how it says that it was made fit for travelling (RFC 2045, 6). */
function unwrapped(body: string, how: string): string {
  if (/base64/i.test(how)) {
    try {
      return textOf(Uint8Array.from(atob(body.replace(/[^A-Za-z0-9+/]+/g, "")), (sign) => sign.charCodeAt(0)))
    } catch {
      return ""
    }
  }
  if (!/quoted-printable/i.test(how)) return body
  const joined = body.replace(/=[ \t]*\r?\n/g, "")
  // Signs beyond ASCII stand there as they are, or as the bytes of their encoding.
  return joined.replace(/(?:=[0-9A-Fa-f]{2})+/g, (codes) =>
    textOf(Uint8Array.from(codes.slice(1).split("="), (code) => parseInt(code, 16))),
  )
}

/** So many pictures of a message find their places in its page. */
const mostPictures = 200

/** The page in a message of several parts, with the pictures of others in it; null where there is none. */
function pageIn(message: string): string | null {
  const boundary = /boundary\s*=\s*"?([^"\r\n;]+)"?/i.exec(message.slice(0, 4000))?.[1]
  const parts = boundary === undefined ? [message] : message.split(`--${boundary}`)
  let page: string | null = null
  const pictures: [place: string, data: string][] = []
  for (const part of parts) {
    const head = /^\s*((?:[\w-]+:[^\r\n]*(?:\r?\n[ \t][^\r\n]*)*\r?\n)+)\r?\n/.exec(part.slice(0, 8000))
    if (!head?.[1]) continue
    const said = (name: string) => new RegExp(`^${name}\\s*:\\s*([^\\s;]+)`, "im").exec(head[1] ?? "")?.[1] ?? ""
    const [type, how, body] = [said("content-type"), said("content-transfer-encoding"), part.slice(head[0].length)]
    const place = said("content-location") || said("content-id").replace(/^<(.*)>$/, "cid:$1")
    if (/^text\/html$/i.test(type)) page ??= unwrapped(body, how)
    else if (/^image\/[\w+.-]+$/i.test(type) && /base64/i.test(how) && place !== "" && pictures.length < mostPictures)
      pictures.push([place, `data:${type};base64,${body.replace(/[^A-Za-z0-9+/=]+/g, "")}`])
  }
  return page === null ? null : pictures.reduce((own, [place, data]) => own.replaceAll(`"${place}"`, `"${data}"`), page)
}

/** What such a file holds; null for kinds that are not read. */
export function readChunk(bytes: Uint8Array): (Pick<FileRead, "assets" | "left"> & { blocks: readonly Node[] }) | null {
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return null
  const text = textOf(bytes)
  if (/^\s*\{\\rtf/.test(text)) return null
  const page = /^\s*MIME-Version\s*:/i.test(text) || /^\s*[\w-]+:[^\r\n]*\r?\n/.test(text) ? pageIn(text) : null
  if (page !== null || isPage(text)) {
    const { doc, assets, left } = readHtmlFile(page ?? text)
    return { blocks: doc.firstChild?.children ?? [], assets, left }
  }
  const lines = text.replace(/\r\n?/g, "\n").replace(/\n+$/, "").split("\n")
  return { blocks: lines.map((line) => paragraph("body", line === "" ? [] : [line])), assets: new Map(), left: [] }
}
