import { Text, View } from "react-native"
import { limits, type TabStop } from "@biblon/core/document"
import { withTab } from "@biblon/core/editing"
import { X } from "../../../ui/icons"
import { IconButton, WordButton } from "../../../ui/button"
import { Choice } from "../../../ui/choice"
import { LengthField } from "../../../ui/field"

export const tabKinds = [
  ["left", "Left"],
  ["center", "Centre"],
  ["right", "Right"],
  ["decimal", "Decimal"],
] as const
const leaders = [
  ["none", "No leader"],
  ["dotted", "Dots"],
  ["dashed", "Dashes"],
  ["solid", "Line"],
] as const

type Tabs = readonly TabStop[]

/** The stops that all have. */
function shared(all: readonly Tabs[]): TabStop[] {
  const [first = [], ...others] = all
  const same = (a: TabStop, b: TabStop) => a.position === b.position && a.align === b.align && a.leader === b.leader
  return first.filter((tab) => others.every((tabs) => tabs.some((other) => same(other, tab))))
}

/**
 * Tab stops, one a row.
 * @param all those of everything that is shaped; shown are those that all have
 * @param edge where the lines end, in points: there the stop of a price line stands
 */
export function TabStops({
  all,
  edge,
  onChange,
}: {
  all: readonly Tabs[]
  edge: number | null
  onChange: (change: (tabs: Tabs) => TabStop[]) => void
}) {
  const tabs = shared(all)
  const others = all.some((own) => own.length > tabs.length)
  const full = all.some((own) => own.length >= limits.tabs)
  const put = (stop: TabStop | null, from: number | null = null) => onChange((own) => withTab(own, stop, from))
  const last = Math.max(0, ...all.map((own) => own.at(-1)?.position ?? 0))
  return (
    <View role="group" aria-label="Tab stops" className="gap-2">
      {edge === null ? null : (
        <View className="flex-row">
          <WordButton
            label="Price line: dots to the right edge"
            disabled={full}
            onPress={() => put({ position: edge, align: "right", leader: "dotted" })}
          />
        </View>
      )}
      {tabs.map((tab, i) => (
        <View key={i} role="group" aria-label={`Tab stop ${i + 1}`} className="gap-2 border-b border-line pb-2">
          <View className="flex-row items-end gap-2">
            <LengthField
              label="Tab stop at"
              value={tab.position}
              min={0}
              max={1500}
              onChange={(position) => put({ ...tab, position }, tab.position)}
            />
            <IconButton
              name={`Remove tab stop ${i + 1}`}
              icon={X}
              onPress={() => put(null, tab.position)}
              className="h-11 w-11 rounded-button wide:h-9 wide:w-9"
            />
          </View>
          <View className="flex-row gap-2">
            <Choice
              label="Text stands"
              value={tab.align}
              options={tabKinds}
              onChange={(align) => put({ ...tab, align }, tab.position)}
            />
            <Choice
              label="Leader"
              value={tab.leader}
              options={leaders}
              onChange={(leader) => put({ ...tab, leader }, tab.position)}
            />
          </View>
        </View>
      ))}
      {others ? (
        <View className="flex-row items-center gap-2">
          <Text className="flex-1 font-ui text-[13px] leading-5 text-ink-soft">
            Some of these paragraphs have further stops of their own.
          </Text>
          <View className="w-[130px] flex-row">
            <WordButton label="Remove all stops" onPress={() => onChange(() => [])} />
          </View>
        </View>
      ) : null}
      <View className="flex-row">
        <WordButton
          label="Add a tab stop"
          onPress={() => put({ position: Math.round(last + 72), align: "left", leader: "none" })}
          disabled={full}
        />
      </View>
      {full ? (
        <Text className="font-ui text-[13px] text-ink-soft">{`A paragraph has up to ${limits.tabs} tab stops.`}</Text>
      ) : null}
    </View>
  )
}
