import { Text, View } from "react-native"
import { remarkName } from "@biblon/core/checking"
import { leaveRemark, repairText } from "@biblon/core/editing"
import { Act, WordButton } from "../../../../ui/button"
import { useSession } from "../../../context"
import type { PlacedRemark } from "../../../wording"

const shown = (words: string) => (words.length > 40 ? `${words.slice(0, 40)}…` : words)

function labelOf({ words }: PlacedRemark, instead: string): string {
  if (instead === "") return words.trim() === "" ? "Without the blank" : `Without “${shown(words)}”`
  return instead.trim() === "" ? "One blank" : shown(instead)
}

/** What is said of some words, and what could be done about it. */
export function RemarkOptions({ remark, onDone }: { remark: PlacedRemark; onDone: () => void }) {
  const session = useSession()
  const { kind, start, end, words, says, instead } = remark
  return (
    <>
      <Text className="font-ui text-[13px] leading-5 text-ink-soft">{says}</Text>
      <View className="mt-1 flex-row flex-wrap items-center gap-2">
        {instead.map((text) => (
          <WordButton
            key={text}
            narrow
            label={labelOf(remark, text)}
            onPress={() => {
              session.run(repairText([{ from: start, to: end, text }], `“${shown(words)}” put right`))
              onDone()
            }}
          />
        ))}
        <Act
          label="Leave it"
          onPress={() => {
            session.run(leaveRemark(remarkName(kind, words), true))
            onDone()
          }}
        />
      </View>
    </>
  )
}
