import { useEffect, useMemo, useRef, useState } from "react"
import { Text, View } from "react-native"
import { useDesk, useSession } from "../desk/context"
import { PushPin, X } from "../ui/icons"
import { IconButton } from "../ui/button"
import { Glyph } from "../ui/glyph"
import { keyLabel } from "./keys"
import { usePocket } from "./pocket"
import { tools, type Tool } from "./registry"
import { findTools } from "./search"
import { Dialog } from "../ui/dialog"

/** Any tool by its name or by other words for it, run from here or pinned to the pocket. */
export function FindTool() {
  const session = useSession()
  const open = useDesk((s) => s.findingTool)
  return open ? <Panel onClose={() => session.opening.findTool(false)} /> : null
}

function Panel({ onClose }: { onClose: () => void }) {
  const session = useSession()
  const editor = useDesk((s) => s.editor)
  const pocket = usePocket()
  const [typed, setTyped] = useState("")
  const [at, setAt] = useState(0)
  const list = useRef<HTMLDivElement>(null)
  const found = useMemo(
    () =>
      findTools(
        tools.filter((tool) => !tool.silent),
        typed,
      ),
    [typed],
  )
  const applies = (tool: Tool) => editor !== null && (tool.applies?.(editor) ?? true)
  const run = (tool: Tool | undefined) => {
    if (!tool || !applies(tool)) return
    onClose()
    tool.run(session)
  }
  useEffect(() => {
    list.current?.querySelector(`[aria-selected=true]`)?.scrollIntoView({ block: "nearest" })
  }, [at, found])
  return (
    <Dialog
      label="Find a tool"
      onClose={() => {
        onClose()
        session.focus()
      }}
    >
      <View className="flex-row items-center border-b border-line px-2">
        <input
          autoFocus
          role="combobox"
          aria-expanded="true"
          aria-controls="tools-found"
          aria-activedescendant={found[at] ? `tool-${found[at].id}` : undefined}
          aria-label="Find a tool"
          placeholder="A tool, or what it is for"
          style={{ outline: "none" }}
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value)
            setAt(0)
          }}
          onKeyDown={(event) => {
            if (event.key === "ArrowDown") setAt(Math.min(at + 1, found.length - 1))
            else if (event.key === "ArrowUp") setAt(Math.max(at - 1, 0))
            else if (event.key === "Enter") run(found[at])
            else return
            event.preventDefault()
          }}
          className="h-12 min-w-0 flex-1 bg-transparent px-2 font-ui text-[16px] text-ink outline-none placeholder:text-ink-soft"
        />
        <IconButton name="Close" icon={X} onPress={onClose} />
      </View>
      <div ref={list} id="tools-found" role="listbox" aria-label="Tools" className="min-h-0 overflow-auto py-1">
        {found.map((tool, i) => {
          const pinned = pocket.ids.includes(tool.id)
          return (
            <div
              key={tool.id}
              className={`flex flex-row items-center ${i === at ? "bg-murex-soft" : ""} ${applies(tool) ? "" : "opacity-50"}`}
            >
              <div
                id={`tool-${tool.id}`}
                role="option"
                aria-selected={i === at}
                aria-disabled={!applies(tool)}
                onClick={() => run(tool)}
                onMouseMove={() => setAt(i)}
                className="flex min-h-[44px] min-w-0 flex-1 cursor-pointer flex-row items-center gap-3 pl-4"
              >
                <View className="w-6 items-center">
                  <Glyph icon={tool.icon} size={20} />
                </View>
                <Text numberOfLines={1} className="flex-1 font-ui text-[15px] text-ink">
                  {tool.name}
                </Text>
                <Text className="hidden font-ui text-[12px] text-ink-soft wide:flex">{keyLabel(tool) ?? ""}</Text>
              </div>
              <IconButton
                name={pinned ? `Take ${tool.name} out of the pocket` : `Put ${tool.name} in the pocket`}
                icon={PushPin}
                extent={pinned ? "on" : "off"}
                onPress={() => pocket.toggle(tool.id)}
                className="mx-1 h-11 w-11 rounded-button"
              />
            </div>
          )
        })}
        {found.length === 0 ? (
          <Text className="px-4 py-3 font-ui text-[14px] text-ink-soft">
            No tool answers to that. Try another word for what you want to do.
          </Text>
        ) : null}
      </div>
    </Dialog>
  )
}
