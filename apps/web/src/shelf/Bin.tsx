import { useState } from "react"
import { Text, View } from "react-native"
import type { ShelfChange, ShelfEntry } from "@biblon/wire"
import { Press } from "../ui/bar"
import { Act } from "../ui/button"
import { Glyph, inkSoft } from "../ui/glyph"
import { CaretDown, CaretUp } from "../ui/icons"
import { Picture } from "./Document"
import { useShelf } from "./store"
import { titleWords } from "./words"

/** Removed for good, a day later; until then it can be taken back. */
const removing = (entries: readonly ShelfEntry[]): ShelfChange[] =>
  entries.map(({ id }) => ({ kind: "document", id, removed: true }))

function Binned({ entry }: { entry: ShelfEntry }) {
  const change = useShelf((s) => s.change)
  const title = titleWords(entry, Date.now())
  return (
    <View role="listitem" className="min-h-[60px] flex-row flex-wrap items-center gap-2 border-b border-line py-1.5">
      <Picture entry={entry} width={30} height={42} />
      <Text
        numberOfLines={1}
        className={`min-w-[120px] flex-1 text-[15px] ${title.named ? "font-ui text-ink" : "font-ui italic text-ink-soft"}`}
      >
        {title.text}
      </Text>
      <Act
        label="Back on the shelf"
        primary
        onPress={() =>
          void change(`${title.text} is back on the shelf`, [{ kind: "document", id: entry.id, binned: false }])
        }
      />
      <Act label="Remove for good" onPress={() => void change(`${title.text} was removed`, removing([entry]))} />
    </View>
  )
}

/** The drawer at the end: what was put away and can be had again. */
export function Bin({ binned }: { binned: readonly ShelfEntry[] }) {
  const change = useShelf((s) => s.change)
  const [open, setOpen] = useState(false)
  if (binned.length === 0) return null
  return (
    <View className="mt-6 rounded-tray border border-line bg-surface px-3">
      <Press
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        className="flex h-11 w-full items-center justify-between text-left font-ui text-[15px] text-ink"
      >
        {`Bin, ${binned.length} ${binned.length === 1 ? "document" : "documents"}`}
        <Glyph icon={open ? CaretUp : CaretDown} size={16} colour={inkSoft} />
      </Press>
      {open ? (
        <View className="border-t border-line pb-2">
          <View role="list">
            {binned.map((entry) => (
              <Binned key={entry.id} entry={entry} />
            ))}
          </View>
          <View className="mt-1 self-start">
            <Act label="Empty the bin" onPress={() => void change("The bin was emptied", removing(binned))} />
          </View>
        </View>
      ) : null}
    </View>
  )
}
