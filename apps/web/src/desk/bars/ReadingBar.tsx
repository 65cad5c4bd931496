import { Text, View } from "react-native"
import { CaretLeft, CaretRight } from "../../ui/icons"
import { IconButton } from "../../ui/button"
import { useDesk, useSession } from "../context"
import { Bar, Press } from "../../ui/bar"

/** Below the sheets in reading view: turning, where one is, and the way back to writing. */
export function ReadingBar() {
  const session = useSession()
  const { sheets, shown, columns } = useDesk((s) => ({
    sheets: s.view.sheets,
    shown: s.view.firstShown,
    columns: s.columns,
  }))
  const last = Math.min(sheets, shown + columns - 1)
  return (
    <Bar label="Reading" className="h-14 items-center border-t border-line bg-surface px-2">
      <Press
        onClick={() => session.viewing.leaveReading()}
        className="flex min-w-0 flex-col shrink-0 h-11 justify-center rounded-button px-3 hover:bg-murex-soft/50"
      >
        <Text className="font-ui-bold text-[14px] text-murex">Back to writing</Text>
      </Press>
      <View className="flex-1" />
      <IconButton
        name="Previous sheet"
        icon={CaretLeft}
        onPress={() => session.viewing.turn(-1)}
        disabled={shown <= 1}
      />
      <Text role="status" className="min-w-[110px] text-center font-ui text-[14px] text-ink">
        {last > shown ? `Sheets ${shown} and ${last} of ${sheets}` : `Sheet ${shown} of ${sheets}`}
      </Text>
      <IconButton
        name="Next sheet"
        icon={CaretRight}
        onPress={() => session.viewing.turn(1)}
        disabled={last >= sheets}
      />
    </Bar>
  )
}
