import { useState } from "react"
import { Text, View } from "react-native"
import { blanksBefore, blanksToBreak } from "@biblon/core/editing"
import { WordButton } from "../../ui/pieces"
import { useDesk, useSession } from "../context"

/** From so many blank paragraphs on they are taken for a way to the next sheet. */
const many = 6

/** After Enter was pressed many times: offers what stays right when the text before it changes. */
export function BlanksCard() {
  const session = useSession()
  const [left, setLeft] = useState(false)
  const offered = useDesk(({ editor }) => editor !== null && blanksBefore(editor) >= many)
  if (!offered || left) return null
  return (
    <View
      role="status"
      aria-live="polite"
      className="absolute left-3 right-3 top-3 z-10 max-w-[420px] gap-2 rounded-tray border border-line bg-raised p-3 shadow-md"
    >
      <Text className="font-ui text-[14px] leading-5 text-ink">
        Shall this begin a new sheet? Unlike blank paragraphs, that stays right when the text before it grows.
      </Text>
      <View className="flex-row gap-2">
        <WordButton
          label="Begin a new sheet"
          primary
          onPress={() => {
            session.run(blanksToBreak)
            session.focus()
          }}
        />
        <WordButton
          label="Leave them"
          onPress={() => {
            setLeft(true)
            session.focus()
          }}
        />
      </View>
    </View>
  )
}
