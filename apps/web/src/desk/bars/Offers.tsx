import { useEffect, useState } from "react"
import { Text, View } from "react-native"
import { edgeAt } from "@biblon/core/document"
import { blanksBefore, blanksToBreak, typedNumber, typedToNumber, type Command } from "@biblon/core/editing"
import { WordButton } from "../../ui/button"
import { useDesk, useSession } from "../context"

/** From so many blank paragraphs on they are taken for a way to the next sheet. */
const many = 6

interface Offer {
  question: string
  yes: string
  no: string
  act: Command
}

const blanks: Offer = {
  question: "Shall this begin a new sheet? Unlike blank paragraphs, that stays right when the text before it grows.",
  yes: "Begin a new sheet",
  no: "Leave them",
  act: blanksToBreak,
}

const number = (typed: string): Offer => ({
  question: `Is this the number of the sheet? As it stands, every sheet shows ${typed}.`,
  yes: "Number each sheet",
  no: "Leave it",
  act: typedToNumber,
})

/** What somebody does by hand that something else does better: it is offered once, and left alone. */
export function Offers() {
  const session = useSession()
  const [left, setLeft] = useState<"blanks" | "number" | null>(null)
  const {
    many: blank,
    typed,
    head,
  } = useDesk(({ editor }) => ({
    many: editor !== null && blanksBefore(editor) >= many,
    typed: editor && (typedNumber(editor)?.number ?? null),
    head: editor !== null && edgeAt(editor.doc, editor.selection.head)?.edge === "head",
  }))
  const kind = typed !== null ? "number" : blank ? "blanks" : null
  // A number that is left is asked for again once something else has been done.
  useEffect(() => setLeft((now) => (now === "number" && typed === null ? null : now)), [typed])
  if (kind === null || kind === left) return null
  const { question, yes, no, act } = kind === "blanks" ? blanks : number(typed as string)
  return (
    <View
      role="status"
      aria-live="polite"
      // Where it does not lie over what is written, above the way back to the text.
      className={`absolute left-3 right-3 z-10 max-w-[420px] gap-2 rounded-tray border border-line bg-raised p-3 shadow-md ${head ? "bottom-[68px]" : kind === "number" ? "top-[68px]" : "top-3"}`}
    >
      <Text className="font-ui text-[14px] leading-5 text-ink">{question}</Text>
      <View className="flex-row gap-2">
        <WordButton
          label={yes}
          primary
          onPress={() => {
            session.run(act)
            session.focus()
          }}
        />
        <WordButton
          label={no}
          onPress={() => {
            setLeft(kind)
            session.focus()
          }}
        />
      </View>
    </View>
  )
}
