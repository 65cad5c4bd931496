import { useCallback } from "react"
import type { Node } from "prosemirror-model"
import { verdicts, type Verdict } from "@biblon/core/brief"
import { inUnit, useUnit } from "../../../../ui/units"
import { useDesk } from "../../../context"
import { languageName } from "../../../languages"
import { useLooked } from "../useLooked"

/** What the foot line and the tray both ask for is judged once. */
const known = new WeakMap<Node, { asked: string; found: Verdict[] }>()

/** The document held against its brief; null while it is looked at. */
export function useVerdicts(): { doc: Node; found: Verdict[] } | null {
  const unit = useUnit((s) => s.unit)
  const sheets = useDesk((s) => (s.view.complete && s.mode === "sheets" ? s.view.sheets : null))
  const check = useCallback(
    function* (doc: Node) {
      const asked = `${sheets} ${unit}`
      const before = known.get(doc)
      if (before?.asked === asked) return before.found
      const length = (points: number) => `${inUnit(points, unit)} ${unit}`
      const found = yield* verdicts(doc, { sheets, length, language: languageName })
      known.set(doc, { asked, found })
      return found
    },
    [sheets, unit],
  )
  return useLooked(check)
}
