import { useDesk, useSession } from "../desk/context"
import { IconButton } from "../ui/pieces"
import { keyLabel } from "./keys"
import { toolNamed } from "./registry"

/** A tool of the registry as a button with its icon; shows whether it is on, off or mixed, and whether it applies. */
export function ToolButton({ id, className }: { id: string; className?: string }) {
  const session = useSession()
  const tool = toolNamed(id)
  const { extent, applies } = useDesk(({ editor }) => ({
    extent: editor ? tool.extent?.(editor) : undefined,
    applies: editor ? (tool.applies?.(editor) ?? true) : false,
  }))
  return <IconButton name={tool.name} hint={keyLabel(tool)} icon={tool.icon} extent={extent} disabled={!applies} onPress={() => tool.run(session)} {...(className ? { className } : {})} />
}
