import { Text, View } from "react-native"
import { edgeAt } from "@biblon/core/document"
import { noteHere } from "@biblon/core/editing"
import { useDesk, useSession } from "../context"
import { Press } from "../../ui/bar"

const words = { head: "Head", foot: "Foot" }
const sheetsOf = { all: "of the sheets", first: "of the first sheet", left: "of left sheets" }

/** While a head, foot or note is written: whose it is, and the way back. */
export function EdgeCard() {
  const session = useSession()
  const told = useDesk(({ editor }) => {
    const at = editor ? edgeAt(editor.doc, editor.selection.head) : null
    const note = editor ? noteHere(editor) : null
    if (note) return { edge: "foot", words: `${note.kind === "note" ? "Note" : "Endnote"} ${note.label}` }
    return at && { edge: at.edge, words: `${words[at.edge]} ${sheetsOf[at.variant]}` }
  })
  if (told === null) return null
  return (
    <View
      role="status"
      // Where it does not lie over what is written.
      className={`absolute left-3 z-10 ${told.edge === "head" ? "bottom-3" : "top-3"} flex-row items-center gap-3 rounded-tray border border-line bg-raised py-1 pl-3 pr-1 shadow-md`}
    >
      <Text className="font-ui text-[13px] text-ink-soft">{told.words}</Text>
      <Press
        onClick={() => session.going.backToText()}
        className="flex min-w-0 flex-col shrink-0 h-11 justify-center rounded-button bg-murex-soft px-3 wide:h-9"
      >
        <Text className="font-ui-bold text-[14px] text-murex">Back to the text</Text>
      </Press>
    </View>
  )
}
