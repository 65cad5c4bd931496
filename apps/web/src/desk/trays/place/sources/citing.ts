/** What citing goes by at the desk. */
import { documentAttrs, entryOf, type Source, type Sources } from "@biblon/core/document"
import { insertCitation, insertQuotation, putSources } from "@biblon/core/editing"
import { citationStyles, keyFor, sameSource } from "@biblon/core/sources"
import type { DeskSession } from "../../../session"
import { keepSources } from "./library"

/** Whether citations stand in notes. */
function inNotes({ style, own }: Sources): boolean {
  return style === "own" ? own?.notes === true : citationStyles.some(({ id, notes }) => id === style && notes)
}

/** Puts sources into the document, those that are there already left as they are. Returns their keys. */
export function addSources(
  session: DeskSession,
  added: readonly { key: string | null; source: Source }[],
): { keys: string[]; known: number } {
  const list = session.now ? documentAttrs(session.now.doc).sources.list : {}
  const change: Record<string, Source> = {}
  let known = 0
  const keys = added.map(({ key, source }) => {
    const all = { ...list, ...change }
    const same = Object.keys(all).find((own) => sameSource(all[own] as Source, source))
    if (same !== undefined) {
      known++
      return same
    }
    const taken = (own: string) => entryOf(all, own) !== undefined
    const own = key !== null && !taken(key) ? key : keyFor(source, taken)
    change[own] = source
    return own
  })
  if (Object.keys(change).length > 0) session.run(putSources(change))
  keepSources(added.map(({ source }) => source))
  return { keys, known }
}

/** Cites a source at the caret, after which one goes on writing. */
export function cite(session: DeskSession, key: string): void {
  const { now } = session
  if (!now) return
  session.run(insertCitation([{ source: key }], inNotes(documentAttrs(now.doc).sources)))
  session.focus()
}

/** Quotes a passage of a source at the caret, with where it stands, after which one goes on writing. */
export function quote(session: DeskSession, source: string, words: string, at: string): void {
  const { now } = session
  if (!now) return
  session.run(insertQuotation(words, { source, at }, inNotes(documentAttrs(now.doc).sources)))
  session.focus()
}
