/** Biblon's own file: the document node as it is, with a name and a format number. */
import { z } from "zod"
import { documentFormat, withoutOrphans } from "../../document"
import { readDocument, ReadingError } from "../../document/reading"
import type { NamedDocument } from "../format"

const File = z.object({ biblon: z.number().int(), name: z.string().nullable(), document: z.unknown() })

/** @throws ReadingError */
export function readJson(source: string): NamedDocument {
  let value: unknown
  try {
    value = JSON.parse(source)
  } catch {
    throw new ReadingError("This is not JSON: the file is damaged or of another kind")
  }
  const file = File.safeParse(value)
  if (!file.success)
    throw new ReadingError('This JSON is not a Biblon document: it needs "biblon", "name" and "document"')
  return { name: file.data.name, doc: withoutOrphans(readDocument(file.data.document, file.data.biblon)) }
}

export function writeJson({ name, doc }: NamedDocument): string {
  return JSON.stringify({ biblon: documentFormat, name, document: doc.toJSON() as unknown })
}
