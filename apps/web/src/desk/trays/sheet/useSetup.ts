/** What the pages of the Sheet stage share: the setup where the caret is, and changing it for the document, the section or from the caret on. */
import { create } from "zustand"
import { equal, fitSetup, sectionsOf, type PageSetup } from "@biblon/core/document"
import { changeSetup, sectionHere, setupHere, startSection } from "@biblon/core/editing"
import { useDesk, useSession } from "../../context"

export type SetupScope = "all" | "here" | "on"

/** What a change holds for, for as long as the stage is open, and what could not be had as it was wanted. */
export const useSetupScope = create<{ scope: SetupScope; limited: boolean }>(() => ({ scope: "all", limited: false }))

export function useSetup() {
  const session = useSession()
  const { scope, limited } = useSetupScope()
  const setup = useDesk((s) => (s.editor ? setupHere(s.editor) : null))
  const { section, sections } = useDesk((s) => ({
    section: s.editor ? sectionHere(s.editor) : 0,
    sections: s.editor ? sectionsOf(s.editor.doc).length : 1,
  }))
  const change = (make: (setup: PageSetup) => PageSetup, name: string): void => {
    if (!setup) return
    useSetupScope.setState({ limited: !equal(make(setup), fitSetup(make(setup))) })
    if (scope !== "on") return void session.run(changeSetup(make, sections > 1 ? scope : "all", name))
    if (session.run(startSection("sheet", make))) return useSetupScope.setState({ scope: "here" })
    session.store.setState({
      trouble:
        "A section begins in the text itself: put the caret into a paragraph behind the first, then choose again.",
    })
  }
  return { session, setup, section, sections, scope, limited, change }
}
