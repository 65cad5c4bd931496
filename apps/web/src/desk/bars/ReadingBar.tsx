import { Pressable, Text, View } from "react-native"
import { CaretLeft, CaretRight } from "../../ui/icons"
import { IconButton } from "../../ui/pieces"
import { useDesk, useSession } from "../context"

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
    <View
      role="toolbar"
      aria-label="Reading"
      className="h-14 flex-row items-center border-t border-line bg-surface px-2"
    >
      <Pressable
        accessibilityRole="button"
        onPress={() => session.viewing.leaveReading()}
        className="h-11 justify-center rounded-button px-3 hover:bg-murex-soft/50"
      >
        <Text className="font-ui-bold text-[14px] text-murex">Back to writing</Text>
      </Pressable>
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
    </View>
  )
}
