/** Biblon's own file: the document node as it is, with a name and a format number. */
import type { Node } from "prosemirror-model"
import { z } from "zod"
import { withoutOrphans } from "../../document"
import { readDocument, ReadingError } from "../../document/reading"

const current = 1

const File = z.object({ biblon: z.number().int(), name: z.string().nullable(), document: z.unknown() })

export interface NamedDocument {
  name: string | null
  doc: Node
}

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
  if (file.data.biblon > current)
    throw new ReadingError(
      `This document was written by a newer Biblon (format ${file.data.biblon}, this one reads up to ${current})`,
    )
  return { name: file.data.name, doc: withoutOrphans(readDocument(file.data.document)) }
}

export function writeJson({ name, doc }: NamedDocument): string {
  return JSON.stringify({ biblon: current, name, document: doc.toJSON() as unknown })
}
