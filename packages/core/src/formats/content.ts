/** Which kind of file bytes are, as far as they say so themselves. */
import { ReadingError } from "../document/reading"
import { isZip, pathsIn } from "./zip"
import type { KindId } from "./kinds"

type ReadableKind = Exclude<KindId, "pdf" | "png">

const begins = (bytes: Uint8Array, text: string, at = 0) =>
  [...text].every((sign, i) => bytes[at + i] === sign.charCodeAt(0))

/** First bytes of the binary files of before, in which protected ones are wrapped too. */
const older = [0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1]

/** Bytes in which the root of XML has to begin. */
const head = 2000

function isFlatOpenDocument(bytes: Uint8Array): boolean {
  const text = String.fromCharCode(...bytes.subarray(0, head))
  return /^[^<]*<(\?xml|!--|office:)/.test(text) && /<office:document[\s>]/.test(text)
}

/**
 * @returns null where the ending has to say it
 * @throws ReadingError for files that are something else, which nothing here reads
 */
export function kindOf(bytes: Uint8Array): ReadableKind | null {
  if (begins(bytes, "%PDF"))
    throw new ReadingError("A PDF cannot be read back as text. Read the file that it was made of")
  if (older.every((byte, i) => bytes[i] === byte))
    throw new ReadingError("It is protected by a password, or of an older binary kind: save it anew as an open format")
  if (begins(bytes, "{\\rtf")) return "rtf"
  if (!isZip(bytes)) return isFlatOpenDocument(bytes) ? "odt" : null
  const paths = pathsIn(bytes)
  if (paths.has("[Content_Types].xml") || [...paths].some((path) => path.startsWith("word/"))) return "docx"
  if (paths.has("content.xml")) return "odt"
  throw new ReadingError("It is an archive in which there is no document")
}
