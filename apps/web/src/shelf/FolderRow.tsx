/** A folder on the shelf: a small stack of the sheets that lie in it. */
import { router } from "expo-router"
import { Text, View } from "react-native"
import type { Folder, ShelfContents, ShelfEntry } from "@biblon/wire"
import { api } from "../api"
import { NameField } from "../ui/NameField"
import { binning, documentsIn, folderTitle, takingApart } from "./arranging"
import { pressing } from "./carrying"
import { Mark, Place } from "./Document"
import { useShelf } from "./store"
import { whenWords } from "./words"
import { DotsThree, FolderOpen, ListChecks, PencilSimpleLine, Stack, Trash } from "../ui/icons"
import { Menu } from "../ui/menu"
import { Press } from "../ui/bar"

/** How the sheets of a stack lie: each a little off and turned. */
const lie = ["rotate(-5deg) translate(-4px, 1px)", "rotate(4deg) translate(4px, 0)", "none"]

function SheetStack({ entries }: { entries: readonly ShelfEntry[] }) {
  const shown = entries.slice(0, 3).reverse()
  const places = lie.slice(lie.length - Math.max(1, shown.length))
  return (
    <View className="relative h-[50px] w-[36px]">
      {places.map((transform, i) => {
        const entry = shown[i]
        return (
          <div
            key={transform}
            className="absolute inset-0 overflow-hidden border border-line bg-white shadow-sm"
            style={{ transform }}
          >
            {entry ? (
              <img
                src={api.pictureUrl(entry)}
                alt=""
                loading="lazy"
                draggable={false}
                className="h-full w-full object-cover object-left-top"
              />
            ) : (
              <div className="h-full w-full bg-surface" />
            )}
          </div>
        )
      })}
    </View>
  )
}

function countWords(entries: readonly ShelfEntry[]): string {
  const count = `${entries.length} ${entries.length === 1 ? "document" : "documents"}`
  const changed = Math.max(0, ...entries.map((entry) => entry.changed))
  return changed ? `${count} · changed ${whenWords(changed, Date.now())}` : count
}

function More({ folder, contents, title, onMove }: FolderProps & { title: string }) {
  const choosing = useShelf((s) => s.chosen !== null)
  const { change, choose, name } = useShelf.getState()
  if (choosing) return <Mark id={folder.id} title={title} />
  return (
    <Menu
      label={`What to do with ${title}`}
      icon={DotsThree}
      entries={[
        { label: "Rename", icon: PencilSimpleLine, act: () => name(folder.id) },
        { label: "Lay in a folder", icon: FolderOpen, act: () => onMove(folder.id) },
        { label: "Choose several", icon: ListChecks, act: () => choose([folder.id]) },
        {
          label: "Take apart",
          icon: Stack,
          act: () => void change(`${title} was taken apart`, takingApart(contents, folder.id)),
        },
        {
          label: "Put in the bin",
          icon: Trash,
          act: () => void change(`${title} is in the bin`, binning(contents, [folder.id])),
        },
      ]}
    />
  )
}

interface FolderProps {
  folder: Folder
  contents: ShelfContents
  onMove: (id: string) => void
}

export function FolderRow({ folder, contents, onMove }: FolderProps) {
  const title = folderTitle(folder, contents)
  const entries = documentsIn(contents, folder.id)
  const naming = useShelf((s) => s.naming === folder.id)
  const { name, change } = useShelf.getState()
  const press = pressing(folder.id, () => router.push(`/?folder=${folder.id}`))
  return (
    <Place id={folder.id} className="flex h-full items-center border-b border-line">
      <Press
        role="link"
        aria-label={`Open the folder ${title.text}`}
        {...press}
        tabIndex={-1}
        className="flex shrink-0 py-2.5"
      >
        <SheetStack entries={entries} />
      </Press>
      {naming ? (
        <View className="ml-3.5 flex-1">
          <NameField
            label="Name of the folder"
            name={folder.name}
            onTake={(typed) =>
              void change(typed === null ? "The name was taken away" : `The folder is called ${typed} now`, [
                { kind: "folder", id: folder.id, name: typed },
              ])
            }
            onEnd={() => name(null)}
            className="h-11 w-full px-2 font-ui text-[16px]"
          />
        </View>
      ) : (
        <Press
          role="link"
          {...press}
          className="ml-3.5 flex min-w-0 flex-1 flex-col items-stretch justify-center self-stretch text-left"
        >
          <Text
            numberOfLines={1}
            className={`font-display text-[17px] ${title.named ? "text-ink" : "italic text-ink-soft"}`}
          >
            {title.text}
          </Text>
          <Text numberOfLines={1} className="mt-0.5 font-ui text-[13px] text-ink-soft">
            {countWords(entries)}
          </Text>
        </Press>
      )}
      <More folder={folder} contents={contents} title={title.text} onMove={onMove} />
    </Place>
  )
}
