/** What comes to a desk from where its document is kept: the document once it is open, changes of others, and whether all is saved. */
import { documentAttrs } from "@biblon/core/document"
import { noQuery } from "@biblon/core/editing"
import { endSight } from "../early/begun"
import { takeBrought, takeSearch } from "../firstWords"
import type { KeepingTarget } from "../live/keeping"
import { declareBrought } from "../ui/fontFaces"
import { broughtIn } from "./brought"
import type { Checks } from "./checks"
import type { Composing } from "./composing"
import type { Editing } from "./editing"
import type { Opening } from "./opening"
import type { SavingShown } from "./savingShown"
import type { DeskStore } from "./store"
import type { Surface } from "./surface"
import type { Trial } from "./trial"
import type { Viewing } from "./viewing"

/** The parts of a desk to which something comes. */
interface Parts {
  editing: Editing
  composing: Composing
  viewing: Viewing
  surface: Surface
  checks: Checks
  opening: Opening
  trial: Trial
  /** Shows whether all is saved. */
  savingShown: SavingShown
}

export function arrivals(id: string, store: DeskStore, parts: Parts): KeepingTarget {
  const { editing, composing, viewing, surface, checks, opening, trial, savingShown } = parts
  const { layout } = composing
  return {
    editor: () => editing.now,
    content: (content, early) => layout.open(content, early, viewing.currentSpec),
    opened: ({ editor, steps }) => {
      trial.end()
      editing.begin(editor)
      const brought = takeBrought(id)
      store.setState({ editor, ...(brought && broughtIn(brought, editor.doc)) })
      declareBrought(documentAttrs(editor.doc).styles.fonts)
      if (steps.length > 0) layout.change(steps)
      surface.field?.sync()
      surface.beginWriting()
      layout.listen()
      checks.spelling.again()
      const phrase = takeSearch(id)
      if (phrase !== null) {
        checks.finder.set({ ...noQuery, text: phrase })
        opening.search()
      }
    },
    receive: (tr) => editing.apply(tr),
    show: (change) => {
      if (change.phase && change.phase.kind !== "open") endSight()
      store.setState(change)
      // Fields may say what the document is called.
      if ("name" in change) viewing.arrange()
    },
    saving: (saving) => savingShown.show(saving),
    shown: () => store.getState(),
  }
}
