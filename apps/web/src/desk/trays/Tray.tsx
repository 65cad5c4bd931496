import { useEffect, useRef, type KeyboardEvent, type PointerEvent } from "react"
import { ScrollView, Text, View } from "react-native"
import { IconButton } from "../../ui/button"
import { useDesk, useSession } from "../context"
import { trayNamed } from "../trays"
import { contents } from "./contents"
import type { TrayId } from "../store"
import { X } from "../../ui/icons"

/** So far down, in pixels, a finger drags the grip to put the tray away. */
const putAway = 60

/** On a phone the tray lies over the lower part of the screen, on a wide screen beside the bench. */
export function Tray({ tray, wide }: { tray: TrayId; wide: boolean }) {
  const session = useSession()
  const { name } = trayNamed(tray)
  const Content = contents[tray]
  const start = useRef<number | null>(null)
  const pressed = useRef(false)
  const scroller = useRef<ScrollView>(null)
  const page = useDesk((s) => s.pages[tray]?.split("/")[0])
  // Each page is shown from its top, however far the one before was scrolled.
  useEffect(() => scroller.current?.scrollTo({ y: 0, animated: false }), [page])
  const close = () => session.opening.tray(null)
  const content = (
    <div
      onKeyDown={(event: KeyboardEvent<HTMLDivElement>) => {
        // A value that was typed is taken; then one goes on writing.
        if (
          (event.key !== "Enter" && event.key !== "Escape") ||
          !(event.target instanceof HTMLInputElement) ||
          event.defaultPrevented
        )
          return
        // In a form, Enter does what its button says.
        if (event.key === "Enter" && event.target.form) return
        event.preventDefault()
        session.focus()
      }}
      onPointerDown={(event: PointerEvent<HTMLDivElement>) =>
        (pressed.current = event.target instanceof HTMLSelectElement)
      }
      onKeyDownCapture={() => (pressed.current = false)}
      // A choice from a list that was opened by a press is made; by keys one may go on in it.
      onChange={(event) => {
        if (pressed.current && (event.target as Element) instanceof HTMLSelectElement) session.focus()
      }}
    >
      <Content />
    </div>
  )
  if (wide)
    return (
      <View role="region" aria-label={name} className="w-[320px] border-r border-line bg-surface">
        <View className="flex-row items-center justify-between pl-5 pr-3 pt-4">
          <Text role="heading" aria-level={2} className="font-display text-[22px] text-ink">
            {name}
          </Text>
          <IconButton name="Put the tray away" icon={X} onPress={close} className="h-9 w-9 rounded-button" />
        </View>
        <ScrollView ref={scroller} key={tray} className="flex-1" contentContainerClassName="px-5 pb-8">
          {content}
        </ScrollView>
      </View>
    )
  return (
    <View role="region" aria-label={name} className="h-[45%] rounded-t-tray border-t border-line bg-surface">
      <div
        className="flex h-7 cursor-grab touch-none items-center justify-center"
        onPointerDown={(event: PointerEvent<HTMLDivElement>) => {
          start.current = event.clientY
          event.currentTarget.setPointerCapture(event.pointerId)
        }}
        onPointerUp={(event: PointerEvent<HTMLDivElement>) => {
          if (start.current !== null && event.clientY - start.current > putAway) close()
          start.current = null
        }}
      >
        <View className="h-1 w-10 rounded-full bg-line" />
      </div>
      <ScrollView ref={scroller} key={tray} className="-mt-4 flex-1" contentContainerClassName="px-[18px] pb-6">
        {content}
      </ScrollView>
    </View>
  )
}
