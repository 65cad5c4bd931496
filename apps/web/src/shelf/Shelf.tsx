/** All documents: the last one on top, ways to begin, and the rest in their folders. */
import { useCallback, useEffect, useState } from "react"
import { router, useFocusEffect, useLocalSearchParams } from "expo-router"
import { ScrollView, Text, View } from "react-native"
import type { ShelfContents } from "@biblon/wire"
import { toNewDocument } from "../toDocument"
import { Press } from "../ui/bar"
import { Act } from "../ui/button"
import { TextField } from "../ui/field"
import { Glyph, inkSoft } from "../ui/glyph"
import { CaretRight, FilePlus, Plus } from "../ui/icons"
import { MenuPlace } from "../ui/menu"
import { folderTitle, lyingIn, pathTo, type Item } from "./arranging"
import { Bin } from "./Bin"
import { BringIn, useDroppedFiles } from "./BringIn"
import { carriesInstead, laidOn, useCarrying } from "./carrying"
import { ChoosingBar, FolderChoice } from "./Choosing"
import { Card } from "./Document"
import { FoundList } from "./Found"
import { Carried, ListTools, ShelfList } from "./ShelfList"
import { useShelf } from "./store"

const again = 4000

function Heading({ children }: { children: string }) {
  return (
    <Text role="heading" aria-level={2} className="mb-3 mt-7 font-display text-[19px] text-ink">
      {children}
    </Text>
  )
}

/** One step of the way from the shelf to a folder; things can be laid on it. */
function Step({ id, title }: { id: string | null; title: string }) {
  const over = useCarrying((s) => s.now?.over === (id ?? ""))
  return (
    <Press
      {...laidOn(id)}
      onClick={() => router.navigate(id === null ? "/" : `/?folder=${id}`)}
      className={`flex h-11 min-w-0 items-center rounded-button px-2 font-ui text-[15px] text-murex hover:bg-murex-soft/50 ${over ? "bg-murex-soft outline outline-2 outline-murex" : ""}`}
    >
      <span className="truncate">{title}</span>
    </Press>
  )
}

function Way({ contents, folder }: { contents: ShelfContents; folder: string }) {
  const path = pathTo(contents, folder)
  const here = path.at(-1)
  return (
    <>
      <nav aria-label="Way to this folder" className="-ml-2 mt-4 flex flex-wrap items-center">
        <Step id={null} title="Shelf" />
        {path.slice(0, -1).map((own) => (
          <span key={own.id} className="flex min-w-0 items-center">
            <Glyph icon={CaretRight} size={14} colour={inkSoft} />
            <Step id={own.id} title={folderTitle(own, contents).text} />
          </span>
        ))}
        <Glyph icon={CaretRight} size={14} colour={inkSoft} />
      </nav>
      <Text role="heading" aria-level={1} className="font-display text-[24px] text-ink">
        {here ? folderTitle(here, contents).text : "This folder is no longer there"}
      </Text>
    </>
  )
}

/** What was done last, with the way back; Ctrl+Z takes it. */
function LastDone() {
  const { done, said, undo, hush } = useShelf()
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && event.target.closest("input, textarea, select")
      if (typing || event.shiftKey || event.altKey || event.key.toLowerCase() !== "z") return
      if (!event.ctrlKey && !event.metaKey) return
      event.preventDefault()
      void undo()
    }
    addEventListener("keydown", key)
    return () => removeEventListener("keydown", key)
  }, [undo])
  const last = done.at(-1)
  if (!said || !last) return null
  return (
    <View
      role="status"
      className="fixed inset-x-0 top-2 z-30 mx-auto w-[calc(100%-16px)] max-w-[520px] flex-row items-center gap-2 rounded-tray border border-line bg-raised px-3 py-1 shadow-lg"
    >
      <Text numberOfLines={2} className="flex-1 font-ui text-[14px] text-ink">
        {`${last.words}.`}
      </Text>
      <Act label="Undo" primary onPress={() => void undo()} />
      <Act label="Close" onPress={hush} />
    </View>
  )
}

function Begin({ folder, empty }: { folder: string | null; empty: boolean }) {
  const begin = useShelf((s) => s.begin)
  const place = folder === null ? "" : `?folder=${folder}`
  return (
    <>
      <Heading>Begin</Heading>
      <View className="flex-row flex-wrap gap-3">
        <Press
          onClick={() => void begin(folder).then(toNewDocument)}
          className="flex min-w-0 shrink-0 h-12 items-center gap-2 self-start rounded-button bg-murex px-5 hover:opacity-90"
        >
          <Glyph icon={Plus} size={18} colour="rgb(var(--on-murex))" />
          <Text className="font-ui-bold text-[16px] text-on-murex">A blank sheet</Text>
        </Press>
        <Press
          role="link"
          onClick={() => router.push(`/starters${place}`)}
          className="flex min-w-0 shrink-0 h-12 items-center gap-2 self-start rounded-button border border-murex bg-raised px-5 hover:bg-murex-soft/50"
        >
          <Glyph icon={FilePlus} size={18} colour="rgb(var(--murex))" />
          <Text className="font-ui-bold text-[16px] text-murex">A starter</Text>
        </Press>
      </View>
      <BringIn folder={folder} />
      {empty ? (
        <Text className="mt-4 font-ui text-[15px] text-ink-soft">
          {folder === null
            ? "The shelf is empty. Begin with a blank sheet: it is kept as you write."
            : "Nothing lies in this folder yet. Drag documents onto it, or begin one here."}
        </Text>
      ) : null}
    </>
  )
}

function Lying({
  contents,
  items,
  folder,
  onMove,
}: {
  /** null until it is known: a document can be begun all the same. */
  contents: ShelfContents | null
  items: readonly Item[]
  folder: string | null
  onMove: (id: string) => void
}) {
  const latest = folder === null ? contents?.documents[0] : undefined
  const others = items.filter(({ id }) => id !== latest?.id)
  return (
    <div ref={carriesInstead} className="flex flex-col wide:flex-row wide:items-start wide:gap-12">
      <View className="wide:w-[400px]">
        {latest ? (
          <>
            <Heading>Go on with</Heading>
            <Card entry={latest} onMove={onMove} />
          </>
        ) : null}
        <Begin folder={folder} empty={contents !== null && items.length === 0 && !latest} />
      </View>
      {contents && (latest || others.length > 0 || folder !== null) ? (
        <View className="min-w-0 wide:flex-1">
          <Heading>{folder === null ? "On the shelf" : "In this folder"}</Heading>
          <ListTools folder={folder} />
          <ShelfList items={others} contents={contents} onMove={onMove} />
        </View>
      ) : null}
    </div>
  )
}

export function Shelf() {
  const { contents, trouble, load, words, found, search, choose, order } = useShelf()
  const folder = useLocalSearchParams<{ folder?: string }>().folder ?? null
  const [moved, setMoved] = useState<readonly string[] | null>(null)
  const moveOne = useCallback((id: string) => setMoved([id]), [])
  useDroppedFiles(folder)
  useFocusEffect(
    useCallback(() => {
      document.title = "Shelf · Biblon"
      void load()
      return () => choose(null)
    }, [load, choose]),
  )
  useEffect(() => choose(null), [folder, choose])
  useEffect(() => {
    if (!trouble) return
    const timer = setTimeout(() => void load(), again)
    return () => clearTimeout(timer)
  }, [trouble, load])
  const items = contents ? lyingIn(contents, folder, order) : []
  return (
    <View className="flex-1">
      <ScrollView
        role="main"
        className="flex-1 bg-desk"
        contentContainerClassName="mx-auto w-full max-w-[1080px] px-[18px] pb-28 pt-6 wide:px-10 wide:pt-10"
      >
        {folder !== null && contents ? (
          <Way contents={contents} folder={folder} />
        ) : (
          <Text role="heading" aria-level={1} className="font-display text-[28px] text-ink">
            Biblon
          </Text>
        )}
        {trouble ? (
          <Text role="alert" className="mt-4 rounded-tray bg-raised p-3 font-ui text-[14px] text-madder">
            {trouble}
          </Text>
        ) : null}
        {contents && folder === null && (contents.documents.length > 0 || words !== "") ? (
          <TextField
            quiet
            type="search"
            label="Find on the shelf"
            placeholder="A name, or words of a document"
            value={words}
            onChange={(event) => void search(event.target.value)}
            className="mt-4 max-w-[520px]"
          />
        ) : null}
        {contents && found && folder === null ? (
          <FoundList found={found} typed={words} contents={contents} onMove={moveOne} />
        ) : (
          <>
            <Lying contents={contents} items={items} folder={folder} onMove={moveOne} />
            {contents && folder === null ? <Bin binned={contents.binned} /> : null}
          </>
        )}
      </ScrollView>
      {/* Beside what scrolls, so that they stay where they are on the screen. */}
      <LastDone />
      <MenuPlace />
      <Carried />
      {contents ? (
        <ChoosingBar
          contents={contents}
          items={items}
          onMove={() => setMoved([...(useShelf.getState().chosen ?? [])])}
        />
      ) : null}
      {moved && contents ? (
        <FolderChoice contents={contents} ids={moved} inside={folder} onClose={() => setMoved(null)} />
      ) : null}
    </View>
  )
}
