/** Briefs as files, to be handed on. */
import type { Brief } from "../document"
import { ReadingError } from "../document/reading"
import { Brief as Shape } from "../document/shapes"

const mark = "biblonBrief"

export function writeBrief(brief: Brief): string {
  return `${JSON.stringify({ [mark]: 1, ...brief }, null, 2)}\n`
}

/** @throws ReadingError for what is no brief */
export function readBrief(text: string): Brief {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    throw new ReadingError("This file holds no brief: it is not JSON")
  }
  if (typeof json !== "object" || json === null || !(mark in json)) throw new ReadingError("This file holds no brief")
  const { [mark]: version, ...rules } = json as Record<string, unknown>
  if (version !== 1) throw new ReadingError("This brief was written by a newer Biblon")
  const read = Shape.safeParse(rules)
  if (read.success) return read.data
  const [first] = read.error.issues
  throw new ReadingError(`The brief is not right at ${first?.path.join(".") || "the top"}: ${first?.message ?? ""}`)
}
