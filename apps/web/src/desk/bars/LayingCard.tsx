import { Text, View } from "react-native"
import type { LookPart } from "@biblon/core/editing"
import { Eyedropper, X } from "../../ui/icons"
import { IconButton } from "../../ui/button"
import { Segment, Segments, Switch } from "../../ui/choice"
import { Glyph } from "../../ui/glyph"
import { useDesk, useSession } from "../context"

const parts: readonly (readonly [LookPart, string])[] = [
  ["letters", "Letters"],
  ["paragraph", "Paragraph"],
  ["both", "Both"],
]

/** While a look is in hand: what of it is laid on what is selected next, and whether it stays. */
export function LayingCard() {
  const session = useSession()
  const laying = useDesk((s) => s.laying)
  if (!laying) return null
  return (
    <View
      role="group"
      aria-label="Match look"
      className="absolute bottom-[76px] left-1/2 z-20 w-[340px] max-w-[94vw] rounded-tray border border-line bg-surface p-3 shadow-md wide:bottom-10"
      style={{ transform: [{ translateX: "-50%" }] }}
    >
      <View className="flex-row items-center gap-2">
        <Glyph icon={Eyedropper} size={20} />
        <Text className="flex-1 font-ui text-[14px] text-ink">A look is in hand. Select the text that gets it.</Text>
        <IconButton
          name="Put the look down"
          icon={X}
          onPress={() => session.laying.putDown()}
          className="h-9 w-9 rounded-button"
        />
      </View>
      <View className="mt-2">
        <Segments label="What of the look">
          {parts.map(([part, label], i) => (
            <Segment
              key={part}
              first={i === 0}
              label={label}
              on={laying.part === part}
              onPress={() => session.laying.change({ part })}
            />
          ))}
        </Segments>
        <Switch
          label="Keep it in hand for more"
          on={laying.many}
          onChange={(many) => session.laying.change({ many })}
        />
      </View>
    </View>
  )
}
