/** The editor: bars, bench and tray around the sheets. */
import "./view/view.css"
import { useEffect, useRef, useState, type MouseEvent } from "react"
import { router } from "expo-router"
import { Text, useWindowDimensions, View } from "react-native"
import { FindTool } from "../commands/FindTool"
import { keyAction } from "../commands/keys"
import { AsideCard } from "./bars/AsideCard"
import { frameOf } from "../ui/frame"
import { Bench } from "./bars/Bench"
import { FootLine } from "./bars/FootLine"
import { Guide } from "./bars/Guide"
import { LayingCard } from "./bars/LayingCard"
import { EdgeCard } from "./bars/EdgeCard"
import { GoToCard } from "./bars/GoToCard"
import { LinkCard } from "./bars/LinkCard"
import { Offers } from "./bars/Offers"
import { PasteCard } from "./bars/PasteCard"
import { PictureFrame } from "./bars/PictureFrame"
import { PressedCard } from "./bars/PressedCard"
import { ReadingBar } from "./bars/ReadingBar"
import { Ruler } from "./bars/Ruler"
import { SelectionBar } from "./bars/SelectionBar"
import { Strip } from "./bars/Strip"
import { TableRails } from "./bars/TableRails"
import { PhoneTopBar, WideTopBar } from "./bars/TopBar"
import { SessionContext, useDesk, useSession } from "./context"
import { DeskSession } from "./session"
import { Shelter } from "./Shelter"
import { Tray } from "./trays/Tray"
import { isDark } from "./view/kept"
import { Act } from "../ui/button"
import { Press } from "../ui/bar"

function Sheets() {
  const session = useSession()
  const host = useRef<HTMLDivElement>(null)
  const { mode, dark } = useDesk((s) => ({ mode: s.mode, dark: isDark(s) }))
  useEffect(() => (host.current ? session.attach(host.current) : undefined), [session])
  return (
    <div className="relative flex min-h-0 min-w-0 flex-1 flex-col">
      <div
        ref={host}
        tabIndex={-1}
        role="main"
        aria-label="Document"
        className={`min-h-0 flex-1 outline-none ${mode === "reading" ? "overflow-hidden" : "overflow-auto"} ${dark ? "dark-sheets" : ""} ${mode === "flow" ? "bg-white" : "bg-desk"}`}
        style={{ overflowAnchor: "none", touchAction: mode === "reading" ? "none" : "pan-x pan-y" }}
      />
      <EdgeCard />
      <GoToCard />
      <Offers />
    </div>
  )
}

function Notice() {
  const session = useSession()
  const { trouble, more, saving } = useDesk((s) => ({ trouble: s.trouble, more: s.more, saving: s.saving }))
  const text =
    trouble ??
    (saving.kind === "postponed"
      ? `What you write is not saved yet: ${saving.reason}. ${saving.kept ? "It is kept on this device" : "Stay on this page"}; Biblon tries again by itself.`
      : null)
  if (text === null) return null
  return (
    <View
      role="alert"
      className="absolute inset-x-4 top-16 z-20 flex-row items-center gap-3 self-center rounded-tray border border-line bg-raised p-3 shadow-md"
    >
      <Text className="flex-1 font-ui text-[14px] text-ink">{text}</Text>
      {more && more.of === trouble ? (
        <Act
          label="See where"
          primary
          onPress={() => {
            session.opening.tray(more.tray)
            session.store.setState({ trouble: null, more: null })
          }}
        />
      ) : null}
      {trouble ? (
        <Act label="Put away" primary onPress={() => session.store.setState({ trouble: null, more: null })} />
      ) : null}
    </View>
  )
}

function Waiting() {
  const phase = useDesk((s) => s.phase)
  if (phase.kind === "open" || phase.kind === "opening") return null
  return (
    <View className="absolute inset-0 z-30 items-center justify-center bg-desk p-8">
      <Text className="mb-3 text-center font-display text-[22px] text-ink">
        {phase.kind === "missing" ? "This document is not on the shelf." : "One moment"}
      </Text>
      <Text className="text-center font-ui text-[15px] text-ink-soft">
        {phase.kind === "missing" ? "Its address may be mistyped, or it was removed." : phase.message}
      </Text>
      <Press
        role="link"
        onClick={() => router.navigate("/")}
        className="flex min-w-0 flex-col shrink-0 mt-5 h-11 justify-center rounded-button bg-murex px-5"
      >
        <Text className="font-ui-bold text-[15px] text-on-murex">Go to the shelf</Text>
      </Press>
    </View>
  )
}

/** Keys that mean the whole desk even while one types in a field of a tray: find, find a tool, print, save, help, reading. */
const deskWide = new Set(["f", "k", "p", "s", "f1", "f9"])

/** What may lie over the sheets at either width. */
function Overlays() {
  return (
    <>
      <PasteCard />
      <LinkCard />
      <PressedCard />
      <LayingCard />
      <TableRails />
      <PictureFrame />
      <Guide />
      <FindTool />
      <Notice />
      <Waiting />
      <AsideCard />
    </>
  )
}

/** Buttons do not take the keyboard away from the text. */
function keepFocus(event: MouseEvent): void {
  if (!(event.target as HTMLElement).closest("input, textarea, select, [data-selectable]")) event.preventDefault()
}

/** Fields in which one goes on typing while buttons beside them are pressed, such as that of the search. */
const keepsKeys = "[data-keeps-keys]"

/** A press outside a field takes what was typed there, for what is selected now; then the text has the keys again. */
function useLeaving(session: DeskSession): void {
  useEffect(() => {
    const leave = (event: PointerEvent) => {
      const field = document.activeElement
      const target = event.target as Element
      const isField = field instanceof HTMLInputElement || field instanceof HTMLSelectElement
      if (
        !isField ||
        field.contains(target) ||
        target.closest("input, textarea, select, label, [role=dialog]") ||
        field.closest(`[role=dialog], ${keepsKeys}`)
      )
        return
      field.blur()
      session.focus()
    }
    addEventListener("pointerdown", leave, true)
    return () => removeEventListener("pointerdown", leave, true)
  }, [session])
}

function Frame() {
  const { width, height } = useWindowDimensions()
  const kind = frameOf(width, height)
  const session = useSession()
  useLeaving(session)
  useEffect(() => {
    // Keys that belong to the whole desk work wherever the focus is.
    const onKey = (event: KeyboardEvent) => {
      const whole = event.ctrlKey || event.metaKey || event.key === "F1" || event.key === "F9"
      const reading = session.store.getState().mode === "reading"
      if (event.defaultPrevented || !whole || reading || event.target instanceof HTMLTextAreaElement) return
      // In a field of a tray most keys belong to the field.
      const inField = event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement
      const act = inField && !deskWide.has(event.key.toLowerCase()) ? null : keyAction(event)
      if (!act) return
      event.preventDefault()
      act(session)
    }
    addEventListener("keydown", onKey)
    return () => removeEventListener("keydown", onKey)
  }, [session])
  const { tray, writing, touch, mode, ruler } = useDesk((s) => ({
    mode: s.mode,
    tray: s.tray,
    writing: s.writing,
    touch: s.touch,
    ruler: s.ruler,
  }))
  if (mode === "reading")
    return (
      <div className="flex h-full flex-col bg-desk">
        <Sheets />
        <ReadingBar />
      </div>
    )
  if (kind === "wide")
    return (
      <div className="flex h-full flex-col bg-desk" onMouseDown={keepFocus}>
        <WideTopBar />
        <View className="min-h-0 flex-1 flex-row">
          <Bench wide />
          {tray ? <Tray tray={tray} wide /> : null}
          <div className="flex min-w-0 flex-1 flex-col">
            {ruler ? <Ruler /> : null}
            <Sheets />
          </div>
        </View>
        <FootLine />
        <SelectionBar />
        <Overlays />
      </div>
    )
  if (kind === "low")
    return (
      <div className="flex h-full bg-desk" onMouseDown={keepFocus}>
        <Bench wide />
        <div className="flex min-w-0 flex-1 flex-col">
          <PhoneTopBar />
          <Sheets />
        </div>
        {tray ? <Tray tray={tray} wide /> : null}
        <Overlays />
      </div>
    )
  return (
    <div className="flex h-full flex-col bg-desk" onMouseDown={keepFocus}>
      <PhoneTopBar />
      <Sheets />
      {tray ? <Tray tray={tray} wide={false} /> : null}
      {writing && touch && !tray ? <Strip /> : <Bench wide={false} />}
      <Overlays />
    </div>
  )
}

export function Desk({ id }: { id: string }) {
  const [session, setSession] = useState<DeskSession | null>(null)
  useEffect(() => {
    const opened = new DeskSession(id, keyAction)
    setSession(opened)
    return () => opened.close()
  }, [id])
  if (!session) return null
  return (
    <SessionContext.Provider value={session}>
      <Shelter session={session}>
        <Frame />
      </Shelter>
    </SessionContext.Provider>
  )
}
