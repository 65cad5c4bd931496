import { useState } from "react"
import { Text, View } from "react-native"
import { router } from "expo-router"
import { AsideKeeping } from "../asides"
import { useDesk, useSession } from "../context"
import type { Aside, AsideCause } from "../../live/records"
import { Act } from "../../ui/button"

const happened: Record<AsideCause, string> = {
  refused: "A change was not taken by the server.",
  unfit: "Something that you wrote belongs to another state of this document.",
  gone: "The document is not on the server any more.",
  tooLarge: "A change was too large to be saved.",
}

function Entry({ aside, keeping, open }: { aside: Aside; keeping: AsideKeeping; open: boolean }) {
  return (
    <View role="group" aria-label="Set aside" className="gap-1 border-t border-line px-3 py-2.5">
      <Text className="font-ui text-[14px] text-ink">{happened[aside.cause]}</Text>
      <Text className="font-ui text-[13px] text-ink-soft">{aside.reason}</Text>
      {aside.text ? (
        <div
          className="my-1 max-h-32 overflow-auto whitespace-pre-wrap rounded-button border-l-4 border-murex bg-raised px-3 py-2 font-ui text-[15px] text-ink"
          tabIndex={0}
          role="note"
          aria-label="The text that is not in the document"
        >
          {aside.text}
        </div>
      ) : (
        <Text className="font-ui text-[13px] text-ink-soft">There was no text in it.</Text>
      )}
      <View className="flex-row flex-wrap gap-1">
        {aside.slice && open ? (
          <Act label="Put it in again" filled onPress={() => void keeping.putInAgain(aside)} />
        ) : null}
        {aside.slice ? (
          <Act
            label="Keep as a new document"
            onPress={() => void keeping.keepAsNew(aside).then((id) => id && router.navigate(`/d/${id}`))}
          />
        ) : null}
        {aside.text ? <Act label="Copy" onPress={() => void keeping.copy(aside)} /> : null}
        <Act label="Drop it" onPress={() => void keeping.drop(aside)} />
      </View>
    </View>
  )
}

/** What was written here and is not in the document: one place for all reasons, with the ways out. */
export function AsideCard() {
  const session = useSession()
  const { aside, open } = useDesk((s) => ({ aside: s.aside, open: s.phase.kind === "open" }))
  const [keeping] = useState(() => new AsideKeeping(session))
  const [dropped, setDropped] = useState<Aside | null>(null)
  keeping.onDropped = setDropped
  if (aside.length === 0 && !dropped) return null
  return (
    <View
      role="alertdialog"
      aria-label="Not in the document"
      className="absolute inset-x-4 bottom-4 z-40 max-h-[70%] overflow-hidden rounded-tray border border-line bg-surface shadow-md wide:bottom-12 wide:left-auto wide:right-6 wide:w-[464px]"
    >
      {aside.length > 0 ? (
        <div className="overflow-auto">
          <View className="px-3 pb-2 pt-3">
            <Text className="font-display text-[18px] text-ink">Not in the document</Text>
            <Text className="font-ui text-[14px] text-ink-soft">
              All else is safe, and what you write now is saved. This is kept on the device until you decide.
            </Text>
          </View>
          {aside.map((own) => (
            <Entry key={own.id} aside={own} keeping={keeping} open={open} />
          ))}
        </div>
      ) : null}
      {dropped ? (
        <View role="status" className="flex-row items-center gap-2 border-t border-line px-3 py-1">
          <Text className="flex-1 font-ui text-[14px] text-ink-soft">Dropped</Text>
          <Act label="Bring it back" onPress={() => void keeping.bringBack(dropped)} />
          <Act label="Put away" onPress={() => setDropped(null)} />
        </View>
      ) : null}
    </View>
  )
}
