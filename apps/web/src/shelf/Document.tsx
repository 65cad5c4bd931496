/** A document on the shelf: as a card, as a row. */
import { memo, useState, type ReactNode } from "react"
import { Text, View } from "react-native"
import type { ShelfEntry } from "@biblon/wire"
import { toDocument } from "../toDocument"
import { api } from "../api"
import { NameField } from "../ui/NameField"
import { binning } from "./arranging"
import { laidOn, pressing, turn, useCarrying } from "./carrying"
import { useShelf } from "./store"
import { sheetWords, titleWords, whenWords } from "./words"
import { Check, Copy, DotsThree, FilePlus, FolderOpen, ListChecks, PencilSimpleLine, Trash } from "../ui/icons"
import { Glyph } from "../ui/glyph"
import { Menu } from "../ui/menu"
import { Press } from "../ui/bar"

function useEntry(entry: ShelfEntry) {
  const [naming, setNaming] = useState(false)
  const counted = useShelf((s) => s.sheets[entry.id])
  const now = Date.now()
  return {
    title: titleWords(entry, now),
    facts: [
      sheetWords(entry.sheets ?? counted),
      entry.name === null ? "not named yet" : null,
      `changed ${whenWords(entry.changed, now)}`,
    ]
      .filter(Boolean)
      .join(" · "),
    naming,
    setNaming,
  }
}

export function Picture({ entry, width, height }: { entry: ShelfEntry; width: number; height: number }) {
  const askSheets = useShelf((s) => s.askSheets)
  return (
    <img
      src={api.pictureUrl(entry)}
      alt=""
      width={width}
      height={height}
      loading="lazy"
      draggable={false}
      // They are counted as the picture is made.
      onLoad={() => entry.sheets ?? askSheets(entry.id)}
      className="border border-line bg-white object-cover object-left-top"
      style={{ width, height }}
    />
  )
}

/** Whether something is chosen; shown only while things are being chosen. */
export function Mark({ id, title }: { id: string; title: string }) {
  const on = useShelf((s) => s.chosen?.has(id))
  return (
    <Press
      role="checkbox"
      aria-checked={on ?? false}
      aria-label={title}
      onClick={() => turn(id)}
      className="flex h-11 w-11 shrink-0 items-center justify-center"
    >
      <span
        className={`flex h-6 w-6 items-center justify-center rounded-button border ${on ? "border-murex bg-murex" : "border-line bg-raised"}`}
      >
        {on ? <Glyph icon={Check} size={16} colour="rgb(var(--on-murex))" /> : null}
      </span>
    </Press>
  )
}

function EntryName({ entry, onEnd }: { entry: ShelfEntry; onEnd: () => void }) {
  const change = useShelf((s) => s.change)
  return (
    <NameField
      label={`Name of ${entry.name ?? "the document"}`}
      name={entry.name}
      onTake={(name) =>
        void change(name === null ? "The name was taken away" : `It is called ${name} now`, [
          { kind: "document", id: entry.id, name },
        ])
      }
      onEnd={onEnd}
      className="h-11 w-full px-2 font-ui text-[16px]"
    />
  )
}

function More({
  entry,
  title,
  onName,
  onMove,
}: {
  entry: ShelfEntry
  title: string
  onName: () => void
  onMove: (id: string) => void
}) {
  const choosing = useShelf((s) => s.chosen !== null)
  const { change, duplicate, choose, makeStarter } = useShelf.getState()
  if (choosing) return <Mark id={entry.id} title={title} />
  return (
    <Menu
      label={`What to do with ${title}`}
      icon={DotsThree}
      entries={[
        { label: "Rename", icon: PencilSimpleLine, act: onName },
        { label: "Make a copy", icon: Copy, act: () => void duplicate([entry.id]) },
        { label: "Lay in a folder", icon: FolderOpen, act: () => onMove(entry.id) },
        { label: "Make this a starter", icon: FilePlus, act: () => void makeStarter(entry.id, title) },
        { label: "Choose several", icon: ListChecks, act: () => choose([entry.id]) },
        {
          label: "Put in the bin",
          icon: Trash,
          act: () => {
            const { contents } = useShelf.getState()
            if (contents) void change(`${title} is in the bin`, binning(contents, [entry.id]))
          },
        },
      ]}
    />
  )
}

/** What something of the shelf stands in: it shows whether it is chosen, carried, or would be laid upon. */
export function Place({ id, className, children }: { id: string; className: string; children: ReactNode }) {
  const chosen = useShelf((s) => s.chosen?.has(id) ?? false)
  const carried = useCarrying((s) => s.now?.ids.includes(id) ?? false)
  const over = useCarrying((s) => s.now?.over === id)
  return (
    <div
      {...laidOn(id)}
      data-over={over || undefined}
      className={`select-none ${className} ${carried ? "opacity-40" : ""} ${over ? "outline outline-2 outline-murex" : ""} ${over || chosen ? "bg-murex-soft" : ""}`}
    >
      {children}
    </div>
  )
}

interface DocumentProps {
  entry: ShelfEntry
  onMove: (id: string) => void
}

/** The document that was changed last. */
export function Card({ entry, onMove }: DocumentProps) {
  const { title, facts, naming, setNaming } = useEntry(entry)
  const press = pressing(entry.id, () => toDocument(entry.id))
  return (
    <Place id={entry.id} className="flex rounded-tray bg-raised p-3.5 shadow-sm">
      <Press role="link" aria-label={`Open ${title.text}`} {...press} className="flex shrink-0 flex-col">
        <Picture entry={entry} width={96} height={136} />
      </Press>
      <View className="ml-3.5 min-w-0 flex-1 justify-between">
        {naming ? (
          <EntryName entry={entry} onEnd={() => setNaming(false)} />
        ) : (
          <Press role="link" {...press} className="flex flex-col">
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
            <More entry={entry} title={title.text} onName={() => setNaming(true)} onMove={onMove} />
          </View>
        </View>
      </View>
    </Place>
  )
}

export const DocumentRow = memo(function DocumentRow({ entry, onMove }: DocumentProps) {
  const { title, facts, naming, setNaming } = useEntry(entry)
  const press = pressing(entry.id, () => toDocument(entry.id))
  return (
    <Place id={entry.id} className="flex h-full items-center border-b border-line">
      <Press
        role="link"
        aria-label={`Open ${title.text}`}
        {...press}
        tabIndex={-1}
        className="flex min-w-0 shrink-0 flex-col py-2.5"
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
          {...press}
          className="ml-3.5 flex min-w-0 flex-1 flex-col items-stretch justify-center self-stretch text-left"
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
      <More entry={entry} title={title.text} onName={() => setNaming(true)} onMove={onMove} />
    </Place>
  )
})
