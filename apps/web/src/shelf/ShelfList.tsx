/** What lies on the shelf or in a folder, as a list that may be long. */
import { useRef } from "react"
import { Text, View } from "react-native"
import type { ShelfContents } from "@biblon/wire"
import { Act } from "../ui/button"
import { Choice } from "../ui/choice"
import { useWindow } from "../ui/useWindow"
import { orders, type Item } from "./arranging"
import { newId, useCarrying } from "./carrying"
import { DocumentRow } from "./Document"
import { FolderRow } from "./FolderRow"
import { useShelf } from "./store"

const rowHeights = [71, 71] as const

export function ListTools({ folder }: { folder: string | null }) {
  const { order, setOrder, change, choose, name } = useShelf()
  const makeFolder = () => {
    const id = newId()
    void change("A folder was made", [{ kind: "folder", id, gone: false, name: null, folder }]).then(() => name(id))
  }
  return (
    <View className="mb-2 flex-row items-center justify-between gap-2">
      <View className="max-w-[170px] flex-1 flex-row">
        <Choice label="Order of the shelf" quiet value={order} options={orders} onChange={setOrder} />
      </View>
      <View className="flex-row">
        <Act label="Choose several" onPress={() => choose([])} />
        <Act label="New folder" onPress={makeFolder} />
      </View>
    </View>
  )
}

export function ShelfList({
  items,
  contents,
  onMove,
}: {
  items: readonly Item[]
  contents: ShelfContents
  onMove: (id: string) => void
}) {
  const list = useRef<HTMLDivElement>(null)
  const { items: inSight, height } = useWindow(list, items.length, rowHeights)
  return (
    <div ref={list} role="list" aria-label="On the shelf" className="relative border-t border-line" style={{ height }}>
      {inSight.flatMap(({ index, start }) => {
        const item = items[index]
        if (!item) return []
        return (
          <div
            key={item.id}
            role="listitem"
            aria-posinset={index + 1}
            aria-setsize={items.length}
            className="absolute inset-x-0"
            style={{ top: start, height: rowHeights[0] }}
          >
            {item.kind === "folder" ? (
              <FolderRow folder={item.folder} contents={contents} onMove={onMove} />
            ) : (
              <DocumentRow entry={item.entry} onMove={onMove} />
            )}
          </div>
        )
      })}
    </div>
  )
}

/** What is being carried, under the pointer. */
export function Carried() {
  const now = useCarrying((s) => s.now)
  if (!now) return null
  return (
    <div
      className="pointer-events-none fixed z-50 rounded-tray border border-murex bg-raised px-3 py-2 shadow-lg"
      style={{ left: now.x + 10, top: now.y + 6 }}
    >
      <Text className="font-ui text-[14px] text-ink">
        {now.ids.length === 1 ? "Lay it on a folder or a document" : `${now.ids.length} together`}
      </Text>
    </div>
  )
}
