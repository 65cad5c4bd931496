import { useCallback } from "react"
import type { Node } from "prosemirror-model"
import { verdicts, type Verdict, type World } from "@biblon/core/brief"
import { inUnit, useUnit } from "../../../../ui/units"
import { useDesk } from "../../../context"
import { languageName } from "../../../languages"
import { useLooked } from "../useLooked"

/** What is known beside the document: its sheets, and how a person reads lengths. */
export function useWorld(): World {
  const unit = useUnit((s) => s.unit)
  const sheets = useDesk((s) => (s.view.complete && s.mode === "sheets" ? s.view.sheets : null))
  return { sheets, length: (points) => `${inUnit(points, unit)} ${unit}`, language: languageName }
}

/** What the foot line and the tray both ask for is judged once. */
const known = new WeakMap<Node, { sheets: number | null; found: Verdict[] }>()

/** The document held against its brief; null while it is looked at. */
export function useVerdicts(): { doc: Node; found: Verdict[] } | null {
  const { sheets } = useWorld()
  const unit = useUnit((s) => s.unit)
  const check = useCallback(
    function* (doc: Node) {
      const before = known.get(doc)
      if (before && before.sheets === sheets) return before.found
      const length = (points: number) => `${inUnit(points, unit)} ${unit}`
      const found = yield* verdicts(doc, { sheets, length, language: languageName })
      known.set(doc, { sheets, found })
      return found
    },
    [sheets, unit],
  )
  return useLooked(check)
}
