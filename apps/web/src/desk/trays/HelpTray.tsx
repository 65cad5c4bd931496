import { Text, View } from "react-native"
import { keyLabel, movementKeys } from "../../commands/keys"
import { tools } from "../../commands/registry"
import { SectionTitle } from "../../ui/choice"

function KeyRow({ name, keys }: { name: string; keys: string }) {
  return (
    <View className="min-h-[34px] flex-row items-center justify-between border-b border-line py-1.5">
      <Text className="flex-1 font-ui text-[14px] text-ink">{name}</Text>
      <Text className="font-ui-bold text-[13px] text-ink-soft">{keys}</Text>
    </View>
  )
}

/** Short how-tos and all keys, drawn from the registry. */
export function HelpTray() {
  const withHow = tools.filter((tool) => tool.how)
  const withKeys = tools.flatMap((tool) => {
    const keys = keyLabel(tool)
    return keys ? [{ name: tool.name, keys }] : []
  })
  return (
    <View>
      <SectionTitle>How to</SectionTitle>
      {withHow.map((tool) => (
        <View key={tool.id} className="mb-3">
          <Text className="font-ui-bold text-[14px] text-ink">{tool.name}</Text>
          <Text className="font-ui text-[14px] leading-5 text-ink-soft">{tool.how}</Text>
        </View>
      ))}
      <SectionTitle>Keys</SectionTitle>
      {withKeys.map((row) => (
        <KeyRow key={row.name} {...row} />
      ))}
      <SectionTitle>Moving</SectionTitle>
      {movementKeys.map((row) => (
        <KeyRow key={row.name} {...row} />
      ))}
    </View>
  )
}
