import { useEffect, useState } from "react"
import { Text, View } from "react-native"
import type { Saving } from "../../live/connection"
import { Glyph } from "../../ui/glyph"
import { useDesk } from "../context"
import { savingWords } from "../savingWords"
import { CheckCircle, CircleNotch, CloudSlash, Warning, type Icon } from "../../ui/icons"

const icons: Record<Saving["kind"], Icon> = {
  saved: CheckCircle,
  saving: CircleNotch,
  offline: CloudSlash,
  postponed: Warning,
}
const textTone = { laurel: "text-laurel", ochre: "text-ochre", madder: "text-madder" }
const flash = 1200

/** Whether what was typed is safe; the save shortcut makes it stand out for a moment. */
export function SavingMark() {
  const { saving, confirmed } = useDesk((s) => ({ saving: s.saving, confirmed: s.confirmed }))
  const [shown, setShown] = useState(false)
  useEffect(() => {
    if (confirmed === 0) return
    setShown(true)
    const timer = setTimeout(() => setShown(false), flash)
    return () => clearTimeout(timer)
  }, [confirmed])
  const { words, tone } = savingWords(saving)
  return (
    <View
      role="status"
      aria-live="polite"
      testID="saving"
      className={`flex-row items-center gap-1 self-start rounded-full px-1.5 py-0.5 ${shown ? "bg-murex-soft" : ""}`}
    >
      <Glyph icon={icons[saving.kind]} size={14} colour={`rgb(var(--${tone}))`} />
      <Text numberOfLines={1} className={`font-ui text-[12px] ${textTone[tone]}`}>
        {words}
      </Text>
    </View>
  )
}
