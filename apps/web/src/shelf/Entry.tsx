import { useState } from "react"
import { router } from "expo-router"
import { Text, View } from "react-native"
import type { ShelfEntry } from "@biblon/wire"
import { api } from "../api"
import { NameField } from "../ui/NameField"
import { useShelf } from "./store"
import { sheetWords, titleWords, whenWords } from "./words"
import { Copy, DotsThree, PencilSimpleLine, Trash } from "../ui/icons"
import { Menu } from "../ui/menu"
import { Press } from "../ui/bar"

function useEntry(entry: ShelfEntry) {
  const [naming, setNaming] = useState(false)
  const sheets = useShelf((s) => s.sheets[entry.id])
  const now = Date.now()
  return {
    title: titleWords(entry, now),
    facts: [
      sheetWords(sheets),
      entry.name === null ? "not named yet" : null,
      `changed ${whenWords(entry.changed, now)}`,
    ]
      .filter(Boolean)
      .join(" · "),
    naming,
    setNaming,
  }
}

const open = (entry: ShelfEntry) => () => router.navigate(`/d/${entry.id}`)

export function Picture({ entry, width, height }: { entry: ShelfEntry; width: number; height: number }) {
  return (
    <img
      src={api.pictureUrl(entry)}
      alt=""
      width={width}
      height={height}
      loading="lazy"
      className="border border-line bg-white object-cover object-top"
      style={{ width, height }}
    />
  )
}

function EntryName({ entry, onEnd }: { entry: ShelfEntry; onEnd: () => void }) {
  const rename = useShelf((s) => s.rename)
  return (
    <NameField
      label={`Name of ${entry.name ?? "the document"}`}
      name={entry.name}
      onTake={(name) => void rename(entry.id, name)}
      onEnd={onEnd}
      className="h-11 w-full px-2 font-ui text-[16px]"
    />
  )
}

function More({ entry, title, onName }: { entry: ShelfEntry; title: string; onName: () => void }) {
  const { bin, duplicate } = useShelf()
  return (
    <Menu
      label={`What to do with ${title}`}
      icon={DotsThree}
      entries={[
        { label: "Rename", icon: PencilSimpleLine, act: onName },
        { label: "Make a copy", icon: Copy, act: () => void duplicate(entry.id) },
        { label: "Put in the bin", icon: Trash, act: () => void bin(entry) },
      ]}
    />
  )
}

/** The document that was changed last. */
export function Card({ entry }: { entry: ShelfEntry }) {
  const { title, facts, naming, setNaming } = useEntry(entry)
  return (
    <View className="flex-row rounded-tray bg-raised p-3.5 shadow-sm">
      <Press role="link" aria-label={`Open ${title.text}`} onClick={open(entry)} className="flex shrink-0 flex-col">
        <Picture entry={entry} width={96} height={136} />
      </Press>
      <View className="ml-3.5 min-w-0 flex-1 justify-between">
        {naming ? (
          <EntryName entry={entry} onEnd={() => setNaming(false)} />
        ) : (
          <Press role="link" onClick={open(entry)} className="flex flex-col">
            <Text
              numberOfLines={3}
              className={`font-display text-[19px] leading-6 ${title.named ? "text-ink" : "italic text-ink-soft"}`}
            >
              {title.text}
            </Text>
          </Press>
        )}
        <View className="flex-row items-end justify-between">
          <Text className="shrink pb-1 font-ui text-[13px] text-ink-soft">{facts}</Text>
          <View className="-mb-2 -mr-2">
            <More entry={entry} title={title.text} onName={() => setNaming(true)} />
          </View>
        </View>
      </View>
    </View>
  )
}

export function Row({ entry }: { entry: ShelfEntry }) {
  const { title, facts, naming, setNaming } = useEntry(entry)
  return (
    <View role="listitem" className="min-h-[68px] flex-row items-center border-b border-line">
      <Press
        role="link"
        aria-label={`Open ${title.text}`}
        onClick={open(entry)}
        tabIndex={-1}
        className="flex min-w-0 flex-col shrink-0 py-2.5"
      >
        <Picture entry={entry} width={36} height={50} />
      </Press>
      {naming ? (
        <View className="ml-3.5 flex-1">
          <EntryName entry={entry} onEnd={() => setNaming(false)} />
        </View>
      ) : (
        <Press
          role="link"
          onClick={open(entry)}
          className="flex min-w-0 flex-col ml-3.5 flex-1 self-stretch justify-center"
        >
          <Text
            numberOfLines={1}
            className={`text-[16px] ${title.named ? "font-ui-bold text-ink" : "font-ui italic text-ink-soft"}`}
          >
            {title.text}
          </Text>
          <Text numberOfLines={1} className="mt-0.5 font-ui text-[13px] text-ink-soft">
            {facts}
          </Text>
        </Press>
      )}
      <More entry={entry} title={title.text} onName={() => setNaming(true)} />
    </View>
  )
}
