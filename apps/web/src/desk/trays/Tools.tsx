import { Text, View } from "react-native"
import { toolNamed } from "../../commands/registry"
import { Glyph } from "../../ui/glyph"
import { useDesk, useSession } from "../context"
import { Press } from "../../ui/bar"

/** Tools with their signs and words: side by side, or in two columns, after which one goes on writing. */
export function Tools({
  tools,
  columns = false,
}: {
  tools: readonly (readonly [id: string, label: string])[]
  columns?: boolean
}) {
  const session = useSession()
  const applies = useDesk(({ editor }) =>
    tools.map(([id]) => (editor ? (toolNamed(id).applies?.(editor) ?? true) : false)).join(),
  ).split(",")
  const placed = columns ? "min-w-[46%] gap-1 px-1.5" : "justify-center gap-2"
  return (
    <View className={`flex-row gap-2 ${columns ? "flex-wrap" : ""}`}>
      {tools.map(([id, label], i) => {
        const off = applies[i] === "false"
        return (
          <Press
            key={id}
            disabled={off}
            onClick={() => {
              toolNamed(id).run(session)
              if (columns) session.focus()
            }}
            className={`flex min-w-0 h-11 flex-1 items-center rounded-button border border-line bg-raised hover:bg-murex-soft/50 wide:h-9 ${placed} ${off ? "opacity-40" : ""}`}
          >
            <Glyph icon={toolNamed(id).icon} size={18} />
            <Text numberOfLines={columns ? 1 : undefined} className="font-ui text-[14px] text-ink">
              {label}
            </Text>
          </Press>
        )
      })}
    </View>
  )
}
