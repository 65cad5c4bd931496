/** What the pages of the Sheet stage share: the setup where the caret is, and changing it for the document, the section or from the caret on. */
import { create } from "zustand"
import { equal, fitSetup, sectionsOf, type PageSetup } from "@biblon/core/document"
import { changeSetup, sectionHere, setupHere, startSection, type Command } from "@biblon/core/editing"
import { useDesk, useSession } from "../../context"

export type SetupScope = "all" | "here" | "on"

/** What a change holds for, for as long as the stage is open, and what could not be had as it was wanted. */
export const useSetupScope = create<{ scope: SetupScope; limited: boolean }>(() => ({ scope: "all", limited: false }))

export function useSetup() {
  const session = useSession()
  const { scope, limited } = useSetupScope()
  const setup = useDesk(({ editor }) => {
    if (!editor) return null
    const own = setupHere(editor)
    // What all sections have in common is not what the cover has.
    return scope === "all" && own.cover ? (sectionsOf(editor.doc)[1]?.setup ?? own) : own
  })
  const { section, sections } = useDesk((s) => ({
    section: s.editor ? sectionHere(s.editor) : 0,
    sections: s.editor ? sectionsOf(s.editor.doc).length : 1,
  }))
  /** What changes the setup, for what is chosen. */
  const command = (make: (setup: PageSetup) => PageSetup, name: string): Command =>
    scope === "on" ? startSection("sheet", make) : changeSetup(make, sections > 1 ? scope : "all", name)
  const change = (make: (setup: PageSetup) => PageSetup, name: string): void => {
    if (!setup) return
    useSetupScope.setState({ limited: !equal(make(setup), fitSetup(make(setup))) })
    const ran = session.run(command(make, name))
    if (scope !== "on") return
    if (ran) return useSetupScope.setState({ scope: "here" })
    session.store.setState({
      trouble:
        "A section begins in the text itself: put the caret into a paragraph behind the first, then choose again.",
    })
  }
  return { session, setup, section, sections, scope, limited, change, command }
}
