/** Biblon's own file: the document node as it is, with a name and a format number. */
import { z } from "zod"
import { assetsOf, documentFormat, withoutOrphans } from "../../document"
import { readDocument, ReadingError } from "../../document/reading"
import { assetName } from "../assets"
import type { AssetSource, FileRead, NamedDocument } from "../format"
import { base64 } from "../html/page"

const File = z.object({
  biblon: z.number().int(),
  name: z.string().nullable(),
  document: z.unknown(),
  /** Files that it uses, in base 64. */
  files: z.array(z.string()).optional(),
})

/** @throws ReadingError */
export function readJson(source: string): FileRead {
  let value: unknown
  try {
    value = JSON.parse(source)
  } catch {
    throw new ReadingError("This is not JSON: the file is damaged or of another kind")
  }
  const file = File.safeParse(value)
  if (!file.success)
    throw new ReadingError('This JSON is not a Biblon document: it needs "biblon", "name" and "document"')
  const { name, document, biblon, files = [] } = file.data
  return { name, doc: withoutOrphans(readDocument(document, biblon)), assets: new Map(files.map(fileOf)), left: [] }
}

/** A file under its own name, whatever it is said to be called. */
function fileOf(text: string): [string, Uint8Array] {
  try {
    const bytes = Uint8Array.from(atob(text), (sign) => sign.charCodeAt(0))
    return [assetName(bytes), bytes]
  } catch {
    throw new ReadingError("A file in it is damaged")
  }
}

export function writeJson({ name, doc }: NamedDocument, asset: AssetSource = () => undefined): string {
  const files = [...assetsOf(doc).keys()].flatMap((own) => ((bytes) => (bytes ? [base64(bytes)] : []))(asset(own)))
  return JSON.stringify({
    biblon: documentFormat,
    name,
    document: doc.toJSON() as unknown,
    ...(files.length > 0 ? { files } : {}),
  })
}
