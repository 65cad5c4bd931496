import type { Brief } from "../document"
import { ReadingError } from "../document/reading"
import { Brief as Shape } from "../document/shapes"
import { fileMark } from "./writing"

/**
 * A brief from its file.
 * @throws ReadingError for what is none
 */
export function readBrief(text: string): Brief {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    throw new ReadingError("This file holds no brief: it is not JSON")
  }
  if (typeof json !== "object" || json === null || !Object.hasOwn(json, fileMark))
    throw new ReadingError("This file holds no brief")
  const { [fileMark]: version, ...rules } = json as Record<string, unknown>
  if (version !== 1) throw new ReadingError("This brief was written by a newer Biblon")
  const read = Shape.safeParse(rules)
  if (read.success) return read.data
  const [first] = read.error.issues
  throw new ReadingError(`The brief is not right at ${first?.path.join(".") || "the top"}: ${first?.message ?? ""}`)
}
