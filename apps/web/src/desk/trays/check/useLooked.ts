import { useCallback, useState } from "react"
import type { Node } from "prosemirror-model"
import { inSlices } from "../../../ui/slices"
import { useSession } from "../../context"
import type { DeskState } from "../../store"
import { useRested } from "../../useRested"

/** Milliseconds of rest after a change before all is looked at again. */
const rest = 300
const docOf = ({ editor }: DeskState) => editor?.doc

/** What a check finds in the document, in short stretches once the hands rest, and in which document: that may have changed meanwhile. */
export function useLooked<T>(check: (doc: Node) => Generator<void, T>): { doc: Node; found: T } | null {
  const session = useSession()
  const [state, setState] = useState<{ doc: Node; found: T } | null>(null)
  const look = useCallback(
    async (wanted: () => boolean) => {
      const now = session.now?.doc
      const found = now && (await inSlices(check(now), wanted))
      if (found && wanted()) setState({ doc: now, found })
    },
    [session, check],
  )
  useRested(rest, docOf, look)
  return state
}
