import { View } from "react-native"
import { wordingKinds } from "@biblon/core/checking"
import { useDesk, useSession } from "../context"
import type { Pressed } from "../store"
import { RemarkOptions } from "../trays/check/wording/RemarkOptions"
import { FloatingCard } from "./FloatingCard"

const width = 300

/** What is said of the wording that was pressed. */
export function RemarkCard({ pos, box }: Pressed) {
  const session = useSession()
  const known = useDesk((s) => (s.editor ? session.wording.at(pos) : null))
  if (!known) return null
  return (
    <FloatingCard label={wordingKinds[known.kind].name} by={box} width={width}>
      <View className="p-3">
        <RemarkOptions remark={known} onDone={() => session.pressing.end()} />
      </View>
    </FloatingCard>
  )
}
