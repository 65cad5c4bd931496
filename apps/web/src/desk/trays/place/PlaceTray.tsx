import { useState } from "react"
import { Pressable, Text, View } from "react-native"
import { dateFormats, documentAttrs, formatDate } from "@biblon/core/document"
import { insertField, insertText } from "@biblon/core/editing"
import { toolNamed } from "../../../commands/registry"
import { Glyph, SectionTitle, Segment, Segments } from "../../../ui/pieces"
import { useDesk, useSession } from "../../context"
import { Captions } from "./Captions"
import { NoteNumbers } from "./NoteNumbers"
import { Pictures } from "./Pictures"
import { Symbols } from "./Symbols"
import { TableGrid } from "./TableGrid"

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
          <Pressable
            key={format}
            accessibilityRole="button"
            onPress={() => {
              session.run(kept ? insertField(format) : insertText(formatDate(now, format, language)))
              session.focus()
            }}
            className="min-h-[44px] justify-center px-3 hover:bg-murex-soft/50 wide:min-h-[34px]"
          >
            <Text className="font-ui text-[15px] text-ink">{formatDate(now, format, language)}</Text>
          </Pressable>
        ))}
      </View>
    </>
  )
}

/** Tools side by side, each with its words. */
function Tools({ tools }: { tools: readonly (readonly [id: string, label: string])[] }) {
  const session = useSession()
  const applies = useDesk(({ editor }) =>
    tools.map(([id]) => (editor ? (toolNamed(id).applies?.(editor) ?? true) : false)).join(),
  ).split(",")
  return (
    <View className="flex-row gap-2">
      {tools.map(([id, label], i) => {
        const off = applies[i] === "false"
        return (
          <Pressable
            key={id}
            accessibilityRole="button"
            disabled={off}
            onPress={() => toolNamed(id).run(session)}
            className={`h-11 flex-1 flex-row items-center justify-center gap-2 rounded-button border border-line bg-raised hover:bg-murex-soft/50 wide:h-9 ${off ? "opacity-40" : ""}`}
          >
            <Glyph icon={toolNamed(id).icon} size={18} />
            <Text className="font-ui text-[14px] text-ink">{label}</Text>
          </Pressable>
        )
      })}
    </View>
  )
}

export function PlaceTray() {
  return (
    <View>
      <TableGrid />
      <Pictures />
      <Captions />
      <SectionTitle>Notes</SectionTitle>
      <Tools
        tools={[
          ["note", "Footnote"],
          ["endnote", "Endnote"],
          ["cross-note", "Mark ⇄ note"],
        ]}
      />
      <NoteNumbers />
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
