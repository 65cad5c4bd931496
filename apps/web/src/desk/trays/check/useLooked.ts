import { useEffect, useState } from "react"
import type { Node } from "prosemirror-model"
import { inSlices } from "../../../ui/slices"
import { useDesk, useSession } from "../../context"

/** Milliseconds of rest after a change before all is looked at again. */
const rest = 300

/** What a check finds in the document, in short stretches once the hands rest, and in which document: that may have changed meanwhile. */
export function useLooked<T>(check: (doc: Node) => Generator<void, T>): { doc: Node; found: T } | null {
  const session = useSession()
  const doc = useDesk((s) => s.editor?.doc)
  const [state, setState] = useState<{ doc: Node; found: T } | null>(null)
  useEffect(() => {
    let wanted = true
    const look = async () => {
      const now = session.now?.doc
      const found = now && (await inSlices(check(now), () => wanted))
      if (found && wanted) setState({ doc: now, found })
    }
    const timer = setTimeout(() => void look(), rest)
    return () => {
      wanted = false
      clearTimeout(timer)
    }
  }, [session, doc, check])
  return state
}
