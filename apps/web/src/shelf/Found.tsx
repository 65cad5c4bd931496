import { Text, View } from "react-native"
import type { FoundDocument, ShelfContents } from "@biblon/wire"
import { toDocument } from "../toDocument"
import { leaveSearch } from "../firstWords"
import { Press } from "../ui/bar"
import { Picture } from "./Document"
import { FolderRow } from "./FolderRow"
import { titleWords } from "./words"

/** A sentence in its parts: what was found stands out. */
function partsOf(sentence: string): { text: string; found: boolean }[] {
  return sentence
    .split(/(\u0001[^\u0002]*\u0002)/)
    .filter((part) => part !== "")
    .map((part) => ({ text: part.replace(/[\u0001\u0002]/g, ""), found: part.startsWith("\u0001") }))
}

/** What is looked for in the document once it is open: the words as they were typed if they stand there so, else the first of them. */
function phraseIn(sentence: string, typed: string): string {
  const plain = sentence.replace(/[\u0001\u0002]/g, "")
  const words = typed.trim()
  return plain.toLowerCase().includes(words.toLowerCase())
    ? words
    : (partsOf(sentence).find(({ found }) => found)?.text ?? words)
}

/** A document in which something was found, with the sentence around it; it opens at that place. */
function Found({ found: { entry, sentence }, typed }: { found: FoundDocument; typed: string }) {
  const title = titleWords(entry, Date.now())
  const open = () => {
    if (sentence !== null) leaveSearch(entry.id, phraseIn(sentence, typed))
    toDocument(entry.id)
  }
  return (
    <View role="listitem" className="border-b border-line">
      <Press role="link" onClick={open} className="flex min-h-[68px] w-full items-center gap-3.5 py-2.5 text-left">
        <Picture entry={entry} width={36} height={50} />
        <View className="min-w-0 flex-1">
          <Text
            numberOfLines={1}
            className={`text-[16px] ${title.named ? "font-ui-bold text-ink" : "font-ui italic text-ink-soft"}`}
          >
            {title.text}
          </Text>
          {sentence === null ? null : (
            <Text numberOfLines={2} className="mt-0.5 font-ui text-[14px] leading-5 text-ink-soft">
              {partsOf(sentence).map(({ text, found }, i) => (
                <Text key={i} className={found ? "bg-murex-soft font-ui-bold text-murex" : ""}>
                  {text}
                </Text>
              ))}
            </Text>
          )}
        </View>
      </Press>
    </View>
  )
}

export function FoundList({
  found,
  typed,
  contents,
  onMove,
}: {
  found: readonly FoundDocument[]
  typed: string
  contents: ShelfContents
  onMove: (id: string) => void
}) {
  const wanted = typed.trim().toLowerCase()
  const folders = contents.folders.filter(({ name }) => name?.toLowerCase().includes(wanted))
  if (found.length === 0 && folders.length === 0)
    return (
      <Text role="status" className="mt-6 font-ui text-[15px] text-ink-soft">
        No document is called that or holds these words.
      </Text>
    )
  return (
    <View role="list" aria-label="Found" className="mt-4 border-t border-line">
      {folders.map((folder) => (
        <div key={folder.id} role="listitem" className="h-[71px]">
          <FolderRow folder={folder} contents={contents} onMove={onMove} />
        </div>
      ))}
      {found.map((own) => (
        <Found key={own.entry.id} found={own} typed={typed} />
      ))}
    </View>
  )
}
