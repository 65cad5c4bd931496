import { useState } from "react"
import { Text, View } from "react-native"
import { dateFormats, documentAttrs, formatDate } from "@biblon/core/document"
import { insertField, insertText } from "@biblon/core/editing"
import { PageTabs, SectionTitle, Segment, Segments } from "../../../ui/choice"
import { useDesk, useSession } from "../../context"
import { Tools } from "../Tools"
import { Captions } from "./Captions"
import { Enclosures } from "./Enclosures"
import { NoteNumbers } from "./NoteNumbers"
import { Pictures } from "./Pictures"
import { SourcesPage } from "./sources/SourcesPage"
import { Symbols } from "./Symbols"
import { TableGrid } from "./TableGrid"
import { Press } from "../../../ui/bar"

function Dates() {
  const session = useSession()
  const [kept, setKept] = useState(false)
  const language = useDesk((s) => (s.editor ? documentAttrs(s.editor.doc).styles.defaults.letters.language : "en-GB"))
  const now = new Date()
  return (
    <>
      <Segments label="How the date behaves">
        <Segment first label="Fixed" on={!kept} onPress={() => setKept(false)} />
        <Segment label="Kept up to date" on={kept} onPress={() => setKept(true)} />
      </Segments>
      <View className="mt-2 overflow-hidden rounded-button border border-line bg-raised">
        {Object.keys(dateFormats).map((format) => (
          <Press
            key={format}
            onClick={() => {
              session.run(kept ? insertField(format) : insertText(formatDate(now, format, language)))
              session.focus()
            }}
            className="flex min-w-0 flex-col shrink-0 min-h-[44px] justify-center px-3 hover:bg-murex-soft/50 wide:min-h-[34px]"
          >
            <Text className="font-ui text-[15px] text-ink">{formatDate(now, format, language)}</Text>
          </Press>
        ))}
      </View>
    </>
  )
}

const pages = [
  ["objects", "Things"],
  ["sources", "Sources"],
] as const
type Page = (typeof pages)[number][0]

export function PlaceTray() {
  const session = useSession()
  const page = useDesk((s) => (s.pages.place ?? "objects") as Page)
  return (
    <View>
      <PageTabs label="Place" pages={pages} page={page} onChoose={(next) => session.opening.tray("place", next)} />
      {page === "sources" ? <SourcesPage /> : <Things />}
    </View>
  )
}

function Things() {
  return (
    <View>
      <TableGrid />
      <Pictures />
      <Captions />
      <SectionTitle>Notes</SectionTitle>
      <Tools
        columns
        tools={[
          ["note", "Footnote"],
          ["endnote", "Endnote"],
          ["cross-note", "Mark ⇄ note"],
        ]}
      />
      <NoteNumbers />
      <Enclosures />
      <SectionTitle>Breaks</SectionTitle>
      <Tools
        tools={[
          ["sheet-break", "New sheet"],
          ["column-break", "New column"],
        ]}
      />
      <View className="h-2" />
      <Tools
        tools={[
          ["blank-sheet", "Blank sheet"],
          ["line-break", "New line"],
        ]}
      />
      <SectionTitle>Symbols</SectionTitle>
      <Symbols />
      <SectionTitle>Date and time</SectionTitle>
      <Dates />
    </View>
  )
}
