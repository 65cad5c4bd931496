import { Text, View } from "react-native"
import { limits } from "@biblon/core/document"
import { NumberField } from "../../ui/field"

/** How thick a line is, in points: in small steps where it is thin. To stand in a row. */
export function ThicknessField({
  label,
  value,
  onChange,
}: {
  label: string
  value: number
  onChange: (value: number) => void
}) {
  return (
    <View className="flex-1 gap-1">
      <Text className="font-ui text-[13px] text-ink-soft">Thickness (pt)</Text>
      <View className="flex-row">
        <NumberField
          label={label}
          value={value}
          min={limits.border.width[0]}
          max={limits.border.width[1]}
          step={(n, d) => n + d * (n < 1 || (n === 1 && d < 0) ? 0.25 : 0.5)}
          onChange={onChange}
        />
      </View>
    </View>
  )
}
