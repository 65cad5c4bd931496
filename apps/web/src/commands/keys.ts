/** From keys to tools and movements. */
import type { Motion } from "../desk/input/movement"
import type { DeskSession } from "../desk/session"
import { tools, type Tool } from "./registry"

const mac = /Mac|iP(hone|ad)/.test(navigator.platform)

/** A key with its modifiers, as the registry writes it: "Mod+Shift+z". */
function nameOf(event: KeyboardEvent): string {
  const mod = mac ? event.metaKey : event.ctrlKey
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
  return `${mod ? "Mod+" : ""}${event.altKey ? "Alt+" : ""}${event.shiftKey ? "Shift+" : ""}${key}`
}

const byKey = new Map<string, Tool>(tools.flatMap((tool) => (tool.keys ?? []).map((key) => [key, tool] as const)))

const motions: Record<string, Motion> = {
  ArrowLeft: "left",
  ArrowRight: "right",
  ArrowUp: "up",
  ArrowDown: "down",
  Home: "lineStart",
  End: "lineEnd",
  PageUp: "pageUp",
  PageDown: "pageDown",
  "Mod+Home": "documentStart",
  "Mod+End": "documentEnd",
  ...(mac
    ? {
        "Alt+ArrowLeft": "wordLeft",
        "Alt+ArrowRight": "wordRight",
        "Mod+ArrowLeft": "lineStart",
        "Mod+ArrowRight": "lineEnd",
        "Mod+ArrowUp": "documentStart",
        "Mod+ArrowDown": "documentEnd",
      }
    : { "Mod+ArrowLeft": "wordLeft", "Mod+ArrowRight": "wordRight" }),
}

/** What a key stands for; null for keys that mean nothing here, such as letters. */
export function keyAction(event: KeyboardEvent): ((session: DeskSession) => void) | null {
  const name = nameOf(event)
  const tool = byKey.get(name)
  if (tool) return (session) => tool.run(session)
  const motion = motions[name.replace("Shift+", "")]
  const { shiftKey } = event
  return motion ? (session) => session.move(motion, shiftKey) : null
}

const control = mac ? "⌘" : "Ctrl"

/** How one moves, for the help. With Shift each of them selects. */
export const movementKeys: readonly { name: string; keys: string }[] = [
  { name: "By character and by line", keys: "Arrows" },
  { name: "By word", keys: mac ? "Alt+←, →" : "Ctrl+←, →" },
  { name: "To the ends of the line", keys: mac ? "⌘+←, →" : "Home, End" },
  { name: "By a screenful", keys: "Page Up, Page Down" },
  { name: "To the ends of the document", keys: mac ? "⌘+↑, ↓" : "Ctrl+Home, Ctrl+End" },
  { name: "Select while moving", keys: "with Shift" },
]

/** A shortcut in words for people. */
export function keyLabel(tool: Tool): string | null {
  const key = tool.keys?.[0] ?? tool.keysShown
  return key
    ? key
        .replace("Mod", control)
        .replace("ArrowUp", "↑")
        .replace("ArrowDown", "↓")
        .replace(/\+([a-z])$/, (_, letter: string) => `+${letter.toUpperCase()}`)
    : null
}
