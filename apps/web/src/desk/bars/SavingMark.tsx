import { useEffect, useState } from "react"
import { Text, View } from "react-native"
import type { Saving } from "../../live/connection"
import { Glyph } from "../../ui/pieces"
import { useDesk } from "../context"
import { CheckCircle, CircleNotch, CloudSlash, Warning, type Icon } from "../../ui/icons"

const clock = new Intl.DateTimeFormat(undefined, { hour: "2-digit", minute: "2-digit", hour12: false })

export function savingWords(saving: Saving): { words: string; icon: Icon; tone: "laurel" | "ochre" | "madder" } {
  switch (saving.kind) {
    case "saved":
      return { words: saving.at === null ? "Saved" : `Saved ${clock.format(saving.at)}`, icon: CheckCircle, tone: "laurel" }
    case "saving":
      return { words: "Saving", icon: CircleNotch, tone: "laurel" }
    case "offline":
      return { words: saving.kept ? "Offline: kept on this device" : "Offline: not kept, stay on this page", icon: CloudSlash, tone: saving.kept ? "ochre" : "madder" }
    case "refused":
      return { words: "Not saved", icon: Warning, tone: "madder" }
  }
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
  const { words, icon, tone } = savingWords(saving)
  return (
    <View role="status" aria-live="polite" testID="saving" className={`flex-row items-center gap-1 self-start rounded-full px-1.5 py-0.5 ${shown ? "bg-murex-soft" : ""}`}>
      <Glyph icon={icon} size={14} colour={`rgb(var(--${tone}))`} />
      <Text numberOfLines={1} className={`font-ui text-[12px] ${textTone[tone]}`}>
        {words}
      </Text>
    </View>
  )
}
