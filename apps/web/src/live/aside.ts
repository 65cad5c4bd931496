/** What a person wrote that is not in the document: kept on this device until it is put in again, kept elsewhere or dropped. */
import { Slice } from "prosemirror-model"
import { schema } from "@biblon/core/document"
import { wordsOf } from "@biblon/core/editing"
import { device } from "./device"
import type { Aside, AsideCause } from "./records"

export function asideOf(document: string, cause: AsideCause, reason: string, slice: Slice): Aside {
  return {
    id: crypto.randomUUID(),
    document,
    cause,
    reason,
    text: wordsOf(slice),
    slice: slice.size > 0 ? (slice.toJSON() as unknown) : null,
    kept: Date.now(),
  }
}

/** What is set aside for one reason close upon another belongs together: letters of a word, paragraphs of a paste. */
const close = 10_000

/** Both as one, where the second goes on with the first; null where it does not. */
export function joinedAside(first: Aside | undefined, second: Aside): Aside | null {
  if (!first || first.cause !== second.cause || first.reason !== second.reason || second.kept - first.kept > close)
    return null
  const [a, b] = [first, second].map(({ slice }) => (slice === null ? Slice.empty : Slice.fromJSON(schema, slice))) as [
    Slice,
    Slice,
  ]
  const [last, next] = [a.content.lastChild, b.content.firstChild]
  const letters = a.openEnd > 0 && b.openStart > 0 && last && next && !last.isInline && last.type === next.type
  const content = letters
    ? a.content
        .replaceChild(a.content.childCount - 1, last.copy(last.content.append(next.content)))
        .append(b.content.cut(next.nodeSize))
    : a.content.append(b.content)
  const slice = new Slice(content, a.size > 0 ? a.openStart : b.openStart, b.size > 0 ? b.openEnd : a.openEnd)
  return {
    ...first,
    text: wordsOf(slice),
    slice: slice.size > 0 ? (slice.toJSON() as unknown) : null,
    kept: second.kept,
  }
}

/** Resolves once it lies on the device; where that cannot be, it is here as long as the page is. */
export async function keepAside(aside: Aside): Promise<boolean> {
  try {
    await (await device()).put("aside", aside)
    return true
  } catch {
    return false
  }
}

export async function dropAside(id: string): Promise<void> {
  await (await device()).delete("aside", id).catch(() => undefined)
}

/** What lies aside of a document, the oldest first. */
export async function asidesOf(document: string): Promise<Aside[]> {
  try {
    return asidesIn(await (await device()).getAllFromIndex("aside", "document", document))
  } catch {
    return []
  }
}

/** Lists of them as one, each only once, the oldest first. */
export function asidesIn(...lists: (readonly Aside[])[]): Aside[] {
  const byId = new Map(lists.flat().map((one) => [one.id, one]))
  return [...byId.values()].sort((a, b) => a.kept - b.kept)
}
