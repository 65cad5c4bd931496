/** The files that are enclosed in a document, embedded in its PDF (ISO 32000-1, 7.11.4). */
import type { Node } from "prosemirror-model"
import { enclosuresOf } from "../../document"
import { ref, textString, utf16, type PdfFile, type Ref } from "./objects"

/** Names as they are told apart: each once. */
function namedOnce(name: string, taken: ReadonlySet<string>): string {
  if (!taken.has(name)) return name
  const [, stem = name, ending = ""] = /^(.*?)(\.[^.]*)?$/s.exec(name) ?? []
  for (let n = 2; ; n++) if (!taken.has(`${stem} ${n}${ending}`)) return `${stem} ${n}${ending}`
}

/** Embeds them. @returns what the catalog says of them; nothing where there are none. Those whose bytes are not to be had are left out. */
export function writeEnclosures(
  file: PdfFile,
  doc: Node,
  assets: ((asset: string) => Uint8Array | undefined) | undefined,
): string {
  const found = new Map<string, { asset: string; spec: Ref }>()
  const known = new Set<string>()
  for (const { enclosure } of enclosuresOf(doc)) {
    const { asset } = enclosure
    const bytes = known.has(asset) ? undefined : assets?.(asset)
    if (!bytes) continue
    known.add(asset)
    const name = namedOnce(enclosure.name, new Set(found.keys()))
    const stream = file.addStream(
      bytes,
      `/Type/EmbeddedFile/Subtype/application#2Foctet-stream/Params<</Size ${bytes.length}>>`,
    )
    const spec = file.add(
      `<</Type/Filespec/F${textString(name)}/UF${textString(name)}/EF<</F ${ref(stream)}/UF ${ref(stream)}>>/AFRelationship/Supplement>>`,
    )
    found.set(name, { asset, spec })
  }
  if (found.size === 0) return ""
  const named = [...found].map(([name, { spec }]) => ({ key: utf16(name), name, spec }))
  const inOrder = named.sort((a, b) => (a.key < b.key ? -1 : 1))
  const names = inOrder.map(({ name, spec }) => `${textString(name)}${ref(spec)}`).join("")
  return `/Names<</EmbeddedFiles<</Names[${names}]>>>>/AF[${inOrder.map(({ spec }) => ref(spec)).join(" ")}]`
}
