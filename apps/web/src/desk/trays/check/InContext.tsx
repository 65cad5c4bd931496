import { Text } from "react-native"
import { leavesOf, textOf } from "@biblon/core/document"
import { useSession } from "../../context"
import type { DeskSession } from "../../session"

/** So many letters are shown on each side. */
const around = 60

/** Something of a paragraph, by its place in the document and its offsets there. */
interface At {
  start: number
  from: number
  to: number
}

function contextOf(session: DeskSession, { start, from, to }: At): [before: string, own: string, after: string] {
  if (!session.now) return ["", "", ""]
  const leaves = leavesOf(session.now.doc)
  const text = textOf(leaves.node(leaves.at(start)))
  const before = text.slice(Math.max(0, from - around), from)
  const after = text.slice(to, to + around)
  return [
    from > around ? `…${before.replace(/^\S*\s/, "")}` : before,
    text.slice(from, to),
    text.length > to + around ? `${after.replace(/\s\S*$/, "")}…` : after,
  ]
}

/** What stands at a place, with what stands around it. */
export function InContext({ at, look }: { at: At; look: string }) {
  const [before, own, after] = contextOf(useSession(), at)
  return (
    <Text className="font-ui text-[14px] leading-5 text-ink">
      {before}
      <Text className={`font-ui-bold ${look}`}>{own}</Text>
      {after}
    </Text>
  )
}
