import { View } from "react-native"
import { paragraphValue, placeTab } from "@biblon/core/editing"
import type { TabStop } from "@biblon/core/document"
import { X } from "../../../ui/icons"
import { Choice, IconButton, LengthField, WordButton } from "../../../ui/pieces"
import { useDesk, useSession } from "../../context"

export const tabKinds = [["left", "Left"], ["center", "Centre"], ["right", "Right"], ["decimal", "Decimal"]] as const
const leaders = [["none", "No leader"], ["dotted", "Dots"], ["dashed", "Dashes"], ["solid", "Line"]] as const

/** The tab stops of the paragraph, one a row. */
export function TabStops() {
  const session = useSession()
  const tabs = useDesk(({ editor }) => (editor ? paragraphValue(editor, "tabs") : undefined))
  const add = () => {
    const last = tabs?.at(-1)?.position ?? 0
    session.run(placeTab({ position: Math.round(last + 72), align: "left", leader: "none" }))
  }
  const change = (tab: TabStop, by: Partial<TabStop>) => session.run(placeTab({ ...tab, ...by }, tab.position))
  return (
    <View role="group" aria-label="Tab stops" className="gap-2">
      {(tabs ?? []).map((tab, i) => (
        <View key={i} role="group" aria-label={`Tab stop ${i + 1}`} className="gap-2 border-b border-line pb-2">
          <View className="flex-row items-end gap-2">
            <LengthField label="Tab stop at" value={tab.position} min={0} max={1500} onChange={(position) => change(tab, { position })} />
            <IconButton name={`Remove tab stop ${i + 1}`} icon={X} onPress={() => session.run(placeTab(null, tab.position))} className="h-11 w-11 rounded-button wide:h-9 wide:w-9" />
          </View>
          <View className="flex-row gap-2">
            <Choice label="Text stands" value={tab.align} options={tabKinds} onChange={(align) => change(tab, { align })} />
            <Choice label="Leader" value={tab.leader} options={leaders} onChange={(leader) => change(tab, { leader })} />
          </View>
        </View>
      ))}
      <View className="flex-row">
        <WordButton label="Add a tab stop" onPress={add} disabled={tabs === undefined} />
      </View>
    </View>
  )
}
