import { Text } from "react-native"
import { useDesk, useSession } from "../desk/context"
import { IconButton } from "../ui/button"
import { keyLabel } from "./keys"
import { usePocket } from "./pocket"
import { toolNamed, type Tool } from "./registry"

/** A tool of the registry as a button with its icon; shows whether it is on, off or mixed, and whether it applies. */
export function PlainToolButton({ tool, className }: { tool: Tool; className?: string }) {
  const session = useSession()
  const { extent, applies } = useDesk(({ editor }) => ({
    extent: editor ? tool.extent?.(editor) : undefined,
    applies: editor ? (tool.applies?.(editor) ?? true) : false,
  }))
  return (
    <IconButton
      name={tool.name}
      hint={keyLabel(tool)}
      icon={tool.icon}
      extent={extent}
      disabled={!applies}
      onPress={() => tool.run(session)}
      {...(className ? { className } : {})}
    >
      {tool.icon ? null : <Text className="font-ui-bold text-[12px] text-ink">{tool.name.slice(0, 2)}</Text>}
    </IconButton>
  )
}

/** The same, which a long press or the other mouse button puts into the pocket or takes out of it. */
export function ToolButton({ id, className }: { id: string; className?: string }) {
  const toggle = usePocket((s) => s.toggle)
  return (
    <div
      className={`flex items-stretch ${className?.includes("flex-1") ? "flex-1" : ""}`}
      onContextMenu={(event) => {
        event.preventDefault()
        toggle(id)
      }}
    >
      <PlainToolButton tool={toolNamed(id)} {...(className ? { className } : {})} />
    </div>
  )
}
