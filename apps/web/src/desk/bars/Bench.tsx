import { Text, View } from "react-native"
import { Pocket } from "../../commands/Pocket"
import { ToolButton } from "../../commands/ToolButton"
import { Glyph, inkSoft, murex } from "../../ui/glyph"
import { useDesk, useSession } from "../context"
import { trays } from "../trays"
import { Press } from "../../ui/bar"

/** The stages of the work: along the bottom of a phone, at the left of a wide screen. */
export function Bench({ wide }: { wide: boolean }) {
  const session = useSession()
  const open = useDesk((s) => s.tray)
  return (
    <View
      role="navigation"
      aria-label="Bench"
      className={
        wide
          ? "w-[84px] items-center gap-1 overflow-y-auto border-r border-line bg-surface py-2.5"
          : "h-[68px] flex-row items-center justify-around border-t border-line bg-surface px-1.5"
      }
    >
      {trays
        .filter((tray) => tray.stage)
        .map(({ id, name, icon }) => {
          const on = id === open
          return (
            <Press
              key={id}
              aria-expanded={on}
              onClick={() => session.opening.tray(on ? null : id)}
              className={`flex min-w-0 flex-col shrink-0 items-center justify-center gap-1 rounded-button ${wide ? "h-[58px] w-[68px]" : "h-[54px] flex-1"} ${on ? "bg-murex-soft" : "hover:bg-murex-soft/50"}`}
            >
              <Glyph icon={icon} size={24} colour={on ? murex : inkSoft} />
              <Text className={`text-[12px] ${on ? "font-ui-bold text-murex" : "font-ui text-ink-soft"}`}>{name}</Text>
            </Press>
          )
        })}
      {wide ? (
        <>
          <View className="mt-3 border-t border-line pt-2">
            <Pocket upright />
          </View>
          <View className="flex-1" />
          <ToolButton id="tray-help" />
        </>
      ) : null}
    </View>
  )
}
