/** Several things of the shelf at once: what to do with those that are chosen, and the folder that they are laid in. */
import { useEffect } from "react"
import { Text, View } from "react-native"
import type { ShelfContents } from "@biblon/wire"
import { Press } from "../ui/bar"
import { Act } from "../ui/button"
import { Dialog } from "../ui/dialog"
import { Glyph, inkSoft } from "../ui/glyph"
import { Check, Copy, FolderOpen, FolderPlus, SelectionAll, Trash, type Icon } from "../ui/icons"
import { binning, folderTitle, gathering, moving, pathTo, withInside, type Item } from "./arranging"
import { newId } from "./carrying"
import { useShelf } from "./store"

function Tool({
  label,
  icon,
  disabled,
  onPress,
}: {
  label: string
  icon: Icon
  disabled?: boolean
  onPress: () => void
}) {
  return (
    <Press
      disabled={disabled}
      onClick={onPress}
      className="flex h-14 min-w-0 flex-1 flex-col items-center justify-center gap-0.5 rounded-button font-ui text-[12px] text-ink enabled:hover:bg-murex-soft/50 disabled:opacity-40"
    >
      <Glyph icon={icon} size={20} />
      {label}
    </Press>
  )
}

export function ChoosingBar({
  contents,
  items,
  onMove,
}: {
  contents: ShelfContents
  items: readonly Item[]
  onMove: () => void
}) {
  const { chosen, choose, change, duplicate } = useShelf()
  useEffect(() => {
    if (!chosen) return
    const leave = (event: KeyboardEvent) => event.key === "Escape" && !event.defaultPrevented && choose(null)
    addEventListener("keydown", leave)
    return () => removeEventListener("keydown", leave)
  }, [chosen, choose])
  if (!chosen) return null
  const ids = [...chosen]
  const none = ids.length === 0
  const documents = ids.filter((id) => contents.documents.some((entry) => entry.id === id))
  const what = ids.length === 1 ? "It is" : `${ids.length} are`
  return (
    <div
      role="region"
      aria-label="With those that are chosen"
      className="fixed inset-x-0 bottom-0 z-30 mx-auto max-w-[620px] border-t border-line bg-surface px-2 pb-2 shadow-lg wide:bottom-4 wide:rounded-tray wide:border"
    >
      <View className="flex-row items-center justify-between pl-2">
        <Text role="status" className="font-ui text-[14px] text-ink-soft">
          {none ? "Tap what you want to choose" : `${ids.length} chosen`}
        </Text>
        <Act label="Done" primary onPress={() => choose(null)} />
      </View>
      <View className="flex-row">
        <Tool label="All" icon={SelectionAll} onPress={() => choose(items.map(({ id }) => id))} />
        <Tool label="Into a folder" icon={FolderOpen} disabled={none} onPress={onMove} />
        <Tool label="Copies" icon={Copy} disabled={documents.length === 0} onPress={() => void duplicate(documents)} />
        <Tool
          label="Bin"
          icon={Trash}
          disabled={none}
          onPress={() => void change(`${what} in the bin`, binning(contents, ids))}
        />
      </View>
    </div>
  )
}

/** The folders in the order of a tree, with how deep each lies. */
function treeOf(contents: ShelfContents): { id: string; title: string; depth: number }[] {
  return contents.folders
    .map((folder) => {
      const path = pathTo(contents, folder.id).map((own) => folderTitle(own, contents).text)
      return { id: folder.id, title: path.at(-1) ?? "", depth: path.length, key: path.join("\u0000") }
    })
    .sort((a, b) => a.key.localeCompare(b.key))
}

/** The folder that things are laid in is chosen, or made. */
export function FolderChoice({
  contents,
  ids,
  inside,
  onClose,
}: {
  contents: ShelfContents
  ids: readonly string[]
  /** Where a new folder is made. */
  inside: string | null
  onClose: () => void
}) {
  const { change, name } = useShelf()
  const inIt = withInside(contents, ids)
  const what = ids.length === 1 ? "It was" : `${ids.length} were`
  const lay = (to: string | null) => {
    void change(`${what} moved`, moving(contents, ids, to))
    onClose()
  }
  const gather = () => {
    const id = newId()
    void change("A folder was made", gathering(contents, ids, id, inside)).then(() => name(id))
    onClose()
  }
  const row =
    "flex h-11 w-full items-center gap-2 rounded-button px-2 text-left font-ui text-[15px] text-ink enabled:hover:bg-murex-soft/50 disabled:opacity-40"
  const places = [{ id: null, title: "On the shelf", depth: 0 }, ...treeOf(contents)]
  const here = [...contents.documents, ...contents.folders]
    .filter(({ id }) => ids.includes(id))
    .map(({ folder }) => folder)
  return (
    <Dialog label="Lay in a folder" onClose={onClose}>
      <Text role="heading" aria-level={2} className="px-4 pt-3 font-display text-[17px] text-ink">
        Lay in a folder
      </Text>
      <div className="min-h-0 flex-1 overflow-y-auto p-2">
        <Press onClick={gather} className={row}>
          <Glyph icon={FolderPlus} size={18} />
          In a new folder
        </Press>
        {places.map(({ id, title, depth }) => {
          const all = here.every((own) => own === id)
          return (
            <Press
              key={id}
              disabled={all || (id !== null && inIt.has(id))}
              onClick={() => lay(id)}
              className={row}
              style={{ paddingLeft: 8 + depth * 18 }}
            >
              <Glyph icon={all ? Check : FolderOpen} size={18} colour={inkSoft} />
              <span className="truncate">{title}</span>
            </Press>
          )
        })}
      </div>
    </Dialog>
  )
}
