/** All documents: the last one on top, a way to begin, and the rest. */
import { useCallback, useEffect, useRef } from "react"
import { router, useFocusEffect } from "expo-router"
import { readableEndings, readableNames } from "@biblon/core/formats/kinds"
import { ScrollView, Text, View } from "react-native"
import { Glyph } from "../ui/glyph"
import { Card, Row } from "./Entry"
import { Bin } from "./Bin"
import { Found } from "./Found"
import { useShelf } from "./store"
import { titleWords } from "./words"
import { FileArrowUp, Plus } from "../ui/icons"
import { Press } from "../ui/bar"
import { Act } from "../ui/button"
import { TextField } from "../ui/field"
import type { FoundDocument } from "@biblon/wire"

const again = 4000

function Heading({ children }: { children: string }) {
  return (
    <Text role="heading" aria-level={2} className="mb-3 mt-7 font-display text-[19px] text-ink">
      {children}
    </Text>
  )
}

/** A file from elsewhere becomes a document; it may also be dropped anywhere on the shelf. */
function BringIn() {
  const { reading, bringIn, stopReading } = useShelf()
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <Press
        disabled={reading !== null}
        onClick={() => input.current?.click()}
        className={`flex min-w-0 shrink-0 mt-3 h-12 items-center gap-2 self-start rounded-button border border-line bg-raised px-5 hover:bg-murex-soft/50 ${reading ? "opacity-60" : ""}`}
      >
        <Glyph icon={FileArrowUp} size={18} />
        <Text className="font-ui-bold text-[16px] text-ink">{reading ? `${reading}…` : "Bring in a file"}</Text>
      </Press>
      {reading ? (
        <View className="mt-1 self-start">
          <Act label="Stop" primary onPress={stopReading} />
        </View>
      ) : (
        <Text className="mt-2 font-ui text-[13px] text-ink-soft">
          {`${readableNames.join(", ")}; or drop it anywhere here`}
        </Text>
      )}
      <input
        ref={input}
        type="file"
        accept={readableEndings.join()}
        aria-label="File to bring in"
        onChange={(event) => {
          const file = event.target.files?.[0]
          if (file) void bringIn(file).then(openDocument)
          event.target.value = ""
        }}
        className="hidden"
      />
    </>
  )
}

function useDroppedFiles(): void {
  const { bringIn } = useShelf()
  useEffect(() => {
    const over = (event: DragEvent) => {
      if (event.dataTransfer?.types.includes("Files")) event.preventDefault()
    }
    const drop = (event: DragEvent) => {
      const file = event.dataTransfer?.files[0]
      if (!file) return
      event.preventDefault()
      void bringIn(file).then(openDocument)
    }
    addEventListener("dragover", over)
    addEventListener("drop", drop)
    return () => {
      removeEventListener("dragover", over)
      removeEventListener("drop", drop)
    }
  }, [bringIn])
}

function openDocument(id: string | null): void {
  if (id) router.navigate(`/d/${id}`)
}

function FoundList({ found, typed }: { found: readonly FoundDocument[]; typed: string }) {
  if (found.length === 0)
    return (
      <Text role="status" className="mt-6 font-ui text-[15px] text-ink-soft">
        No document is called that or holds these words.
      </Text>
    )
  return (
    <View role="list" aria-label="Found" className="mt-4 border-t border-line">
      {found.map((own) => (
        <Found key={own.entry.id} found={own} typed={typed} />
      ))}
    </View>
  )
}

export function Shelf() {
  const { entries, trouble, load, create } = useShelf()
  useDroppedFiles()
  useFocusEffect(
    useCallback(() => {
      document.title = "Shelf · Biblon"
      void load()
    }, [load]),
  )
  useEffect(() => {
    if (!trouble) return
    const timer = setTimeout(() => void load(), again)
    return () => clearTimeout(timer)
  }, [trouble, load])
  const { words, found, search, justBinned, restore } = useShelf()
  const [latest, ...others] = entries ?? []
  return (
    <ScrollView
      role="main"
      className="flex-1 bg-desk"
      contentContainerClassName="mx-auto w-full max-w-[1080px] px-[18px] pb-16 pt-6 wide:px-10 wide:pt-10"
    >
      <Text role="heading" aria-level={1} className="font-display text-[28px] text-ink">
        Biblon
      </Text>
      {trouble ? (
        <Text role="alert" className="mt-4 rounded-tray bg-raised p-3 font-ui text-[14px] text-madder">
          {trouble}
        </Text>
      ) : null}
      {justBinned ? (
        <View role="status" className="mt-3 flex-row items-center gap-2 rounded-tray bg-raised px-3 py-1">
          <Text numberOfLines={1} className="flex-1 font-ui text-[14px] text-ink">
            {`${titleWords(justBinned, Date.now()).text} is in the bin.`}
          </Text>
          <Act label="Undo" primary onPress={() => void restore(justBinned.id)} />
        </View>
      ) : null}
      {entries && (entries.length > 0 || words !== "") ? (
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
      {found ? <FoundList found={found} typed={words} /> : null}
      <View className={`wide:flex-row wide:items-start wide:gap-12 ${found ? "hidden" : ""}`}>
        <View className="wide:w-[400px]">
          {latest ? (
            <>
              <Heading>Go on with</Heading>
              <Card entry={latest} />
            </>
          ) : null}
          <Heading>Begin</Heading>
          <Press
            onClick={() => void create().then(openDocument)}
            className="flex min-w-0 shrink-0 h-12 items-center gap-2 self-start rounded-button bg-murex px-5 hover:opacity-90"
          >
            <Glyph icon={Plus} size={18} colour="rgb(var(--on-murex))" />
            <Text className="font-ui-bold text-[16px] text-on-murex">A blank sheet</Text>
          </Press>
          <BringIn />
          {entries?.length === 0 ? (
            <Text className="mt-4 font-ui text-[15px] text-ink-soft">
              The shelf is empty. Begin with a blank sheet: it is kept as you write.
            </Text>
          ) : null}
        </View>
        {others.length > 0 ? (
          <View className="min-w-0 wide:flex-1">
            <Heading>On the shelf</Heading>
            <View role="list" className="border-t border-line">
              {others.map((entry) => (
                <Row key={entry.id} entry={entry} />
              ))}
            </View>
          </View>
        ) : null}
      </View>
      {found ? null : <Bin />}
    </ScrollView>
  )
}
