/** The file structure of PDF (ISO 32000-1, 7.5): numbered objects, object streams, cross-reference stream. */
export type Ref = number

/** Numbers as PDF wants them: no exponent, no more digits than matter. */
export function num(value: number): string {
  return String(Math.round(value * 1000) / 1000)
}

export function ref(id: Ref): string {
  return `${id} 0 R`
}

/** A text string: UTF-16BE with a byte order mark, in hexadecimal. */
export function textString(text: string): string {
  return `<FEFF${utf16(text)}>`
}

export function utf16(text: string): string {
  let hex = ""
  for (let i = 0; i < text.length; i++) hex += text.charCodeAt(i).toString(16).padStart(4, "0")
  return hex.toUpperCase()
}

const perObjectStream = 200

const encoder = new TextEncoder()

function latin1(text: string): Uint8Array {
  const bytes = new Uint8Array(text.length)
  // Most of it is ASCII, which the platform writes in one go.
  if (encoder.encodeInto(text, bytes).read === text.length) return bytes
  for (let i = 0; i < text.length; i++) bytes[i] = text.charCodeAt(i)
  return bytes
}

export class PdfFile {
  private readonly chunks: Uint8Array[] = []
  private length = 0
  /** Byte offset of an object, or its object stream and index there. */
  private readonly places: (number | { stream: Ref; index: number } | undefined)[] = [undefined]
  private packed: { id: Ref; body: string }[] = []

  /** @param deflate packs a stream (zlib, RFC 1950) */
  constructor(private readonly deflate: (bytes: Uint8Array) => Uint8Array) {
    this.push(latin1("%PDF-1.7\n%\u00e2\u00e3\u00cf\u00d3\n"))
  }

  private push(bytes: Uint8Array): void {
    this.chunks.push(bytes)
    this.length += bytes.length
  }

  reserve(): Ref {
    return this.places.push(undefined) - 1
  }

  /** Adds an object that is not a stream; `id` if it was reserved before. */
  add(body: string, id: Ref = this.reserve()): Ref {
    this.packed.push({ id, body })
    if (this.packed.length >= perObjectStream) this.pack()
    return id
  }

  /** Adds a stream, compressed. `entries` are further entries of its dictionary. */
  addStream(content: string | Uint8Array, entries = "", id: Ref = this.reserve()): Ref {
    const data = this.deflate(typeof content === "string" ? latin1(content) : content)
    return this.addRaw(data, `/Filter/FlateDecode${entries}`, id)
  }

  /** Adds a stream that is packed already; `entries` say how. */
  addRaw(data: Uint8Array, entries: string, id: Ref = this.reserve()): Ref {
    this.places[id] = this.length
    this.push(latin1(`${id} 0 obj\n<</Length ${data.length}${entries}>>\nstream\n`))
    this.push(data)
    this.push(latin1("\nendstream\nendobj\n"))
    return id
  }

  private pack(): void {
    if (this.packed.length === 0) return
    const packed = this.packed
    this.packed = []
    let body = ""
    let index = ""
    const stream = this.reserve()
    packed.forEach((object, i) => {
      index += `${object.id} ${body.length} `
      body += object.body + "\n"
      this.places[object.id] = { stream, index: i }
    })
    this.addStream(index + body, `/Type/ObjStm/N ${packed.length}/First ${index.length}`, stream)
  }

  /** The whole file. `id` is the file identifier, 32 hexadecimal digits. */
  finish(root: Ref, info: Ref, id: string): Uint8Array {
    this.pack()
    const xref = this.reserve()
    const startxref = this.length
    this.places[xref] = startxref
    const rows = new Uint8Array(this.places.length * 7)
    this.places.forEach((place, n) => {
      const [kind, second, third] =
        place === undefined
          ? [0, 0, n === 0 ? 65535 : 0]
          : typeof place === "number"
            ? [1, place, 0]
            : [2, place.stream, place.index]
      rows.set(
        [
          kind,
          (second >>> 24) & 255,
          (second >>> 16) & 255,
          (second >>> 8) & 255,
          second & 255,
          third >> 8,
          third & 255,
        ],
        n * 7,
      )
    })
    this.addStream(
      rows,
      `/Type/XRef/Size ${this.places.length}/W[1 4 2]/Root ${ref(root)}/Info ${ref(info)}/ID[<${id}><${id}>]`,
      xref,
    )
    this.push(latin1(`startxref\n${startxref}\n%%EOF\n`))
    const file = new Uint8Array(this.length)
    let at = 0
    for (const chunk of this.chunks) {
      file.set(chunk, at)
      at += chunk.length
    }
    return file
  }
}
