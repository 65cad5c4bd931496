/** Match look: the look of one text, picked up and laid on others. */
import { Mark } from "prosemirror-model"
import type { EditorState } from "prosemirror-state"
import { letterProperties, marks, paragraphAttrs, setEntries, type ParagraphAttrs } from "../document"
import type { Command } from "./command"
import { named } from "./history"
import { onWords } from "./letters"
import { eachParagraph } from "./paragraphs"
import { trailMarks } from "./typingMarks"

export type LookPart = "letters" | "paragraph" | "both"

/** A look that was picked up. */
export interface PickedLook {
  marks: readonly Mark[]
  paragraph: Pick<ParagraphAttrs, "style" | "format">
}

const isLook = (mark: Mark) =>
  mark.type === marks.letterStyle || (letterProperties as readonly string[]).includes(mark.type.name)

/** The look of the first selected letter, or of what would be typed at the caret, and of its paragraph. */
export function pickUpLook(state: EditorState): PickedLook {
  const { style, format } = paragraphAttrs(state.selection.$from.parent)
  return { marks: trailMarks(state).filter(isLook), paragraph: { style, format } }
}

/** Lays a look on the selection; at a caret letters get it from what is typed next, or with `paragraph` the whole paragraph. */
export function layLook(look: PickedLook, part: LookPart): Command {
  return (state, dispatch) => {
    if (!dispatch) return true
    const { tr } = state
    const { from, to, empty } = state.selection
    if (part !== "paragraph" && !empty) {
      for (const property of [...letterProperties, "letterStyle"] as const) tr.removeMark(from, to, marks[property])
      for (const mark of look.marks) tr.addMark(from, to, mark)
    }
    if (part !== "letters")
      eachParagraph(state, (paragraph, pos) => {
        const attrs = paragraphAttrs(paragraph)
        const { list: _theirs, ...format } = look.paragraph.format ?? {}
        // An item keeps its own place in its list; a look brings none.
        const next = { ...format, ...(attrs.format?.list ? { list: attrs.format.list } : {}) }
        tr.setNodeAttribute(pos, "style", look.paragraph.style)
        setEntries(tr, pos, "format", next)
        if (part === "both" && empty)
          for (const mark of look.marks) tr.addMark(pos + 1, pos + 1 + paragraph.content.size, mark)
      })
    if (part === "letters" && empty) tr.setStoredMarks(Mark.setFrom([...look.marks]))
    dispatch(named(tr, `Matched look${empty ? "" : onWords(state)}`))
    return true
  }
}
