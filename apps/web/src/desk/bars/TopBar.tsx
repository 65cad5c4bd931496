import { router } from "expo-router"
import { Text, View } from "react-native"
import { ToolButton } from "../../commands/ToolButton"
import { keyLabel } from "../../commands/keys"
import { toolNamed } from "../../commands/registry"
import { IconButton } from "../../ui/button"
import { Glyph, inkSoft } from "../../ui/glyph"
import { useDesk, useSession } from "../context"
import { Name } from "./Name"
import { SavingMark } from "./SavingMark"
import { CaretLeft, Compass, DeviceMobile, Files } from "../../ui/icons"
import { Press } from "../../ui/bar"

const toShelf = () => router.navigate("/")

/** The page's own heading, for those who listen to it. */
function Heading() {
  const name = useDesk((s) => s.name)
  return <h1 className="sr-only">{name ?? "A document without a name"}</h1>
}

export function PhoneTopBar() {
  const session = useSession()
  const mode = useDesk((s) => s.mode)
  return (
    <View role="banner" className="h-14 flex-row items-center border-b border-line bg-surface pr-1">
      <Heading />
      <IconButton name="Back to the shelf" icon={CaretLeft} onPress={toShelf} />
      <View className="min-w-0 flex-1">
        <Name wide={false} />
        <SavingMark />
      </View>
      <ToolButton id="undo" className="h-11 w-10 rounded-button" />
      <ToolButton id="redo" className="h-11 w-10 rounded-button" />
      <ToolButton id="find-tool" className="h-11 w-10 rounded-button" />
      <IconButton
        name={mode === "flow" ? "Show the sheets" : "Show the text in flow"}
        icon={mode === "flow" ? Files : DeviceMobile}
        onPress={() => session.viewing.setMode(mode === "flow" ? "sheets" : "flow")}
      />
    </View>
  )
}

export function WideTopBar() {
  const session = useSession()
  return (
    <View role="banner" className="h-14 flex-row items-center gap-3 border-b border-line bg-surface px-4">
      <Heading />
      <Press
        role="link"
        aria-label="Back to the shelf"
        onClick={toShelf}
        className="flex min-w-0 shrink-0 h-9 items-center gap-2 rounded-button px-2 hover:bg-raised"
      >
        <Glyph icon={CaretLeft} size={18} />
        <Text className="font-ui-bold text-[15px] text-ink">Shelf</Text>
      </Press>
      <View className="h-8 w-px bg-line" />
      <View className="min-w-0 flex-1 flex-row items-center gap-2">
        <Name wide />
        <View className="self-center">
          <SavingMark />
        </View>
      </View>
      <ToolButton id="undo" className="h-9 w-9 rounded-button" />
      <ToolButton id="redo" className="h-9 w-9 rounded-button" />
      <ToolButton id="tray-changes" className="h-9 w-9 rounded-button" />
      <ToolButton id="find" className="h-9 w-9 rounded-button" />
      <Press
        onClick={() => session.opening.findTool(true)}
        className="flex min-w-0 shrink-0 h-9 w-[210px] items-center gap-2 rounded-button border border-line bg-raised px-3 hover:bg-murex-soft/50"
      >
        <Glyph icon={Compass} size={18} colour={inkSoft} />
        <Text className="flex-1 font-ui text-[14px] text-ink-soft">Find a tool</Text>
        <Text className="font-ui text-[12px] text-ink-soft">{keyLabel(toolNamed("find-tool"))}</Text>
      </Press>
      <Press
        onClick={() => session.opening.tray("deliver")}
        className="flex min-w-0 flex-col shrink-0 h-9 items-center justify-center rounded-button bg-murex px-4 hover:opacity-90"
      >
        <Text className="font-ui-bold text-[15px] text-on-murex">Deliver</Text>
      </Press>
    </View>
  )
}
