/** How sources are cited: the style, one that is added, and whether they are listed. */
import { Text, View } from "react-native"
import { defaultSources, documentAttrs } from "@biblon/core/document"
import { changeCitationStyle, referenceList, turnReferenceList } from "@biblon/core/editing"
import { citationStyles } from "@biblon/core/sources"
import { wordLook } from "../../../../ui/button"
import { Choice, SectionTitle, Switch } from "../../../../ui/choice"
import { FilePress } from "../../../../ui/FilePress"
import { useDesk, useSession } from "../../../context"

/** Bytes of the largest style that is read. */
const largest = 300_000

export function StyleChoice({ tell }: { tell: (words: string) => void }) {
  const session = useSession()
  const sources = useDesk(({ editor }) => (editor ? documentAttrs(editor.doc).sources : defaultSources))
  const listed = useDesk(({ editor }) => editor !== null && referenceList(editor.doc) !== null)
  const add = async (file: File) => {
    if (file.size > largest) return tell("This file is too large for a style of citation.")
    const xml = await file.text()
    const notes = /<style[^>]*\sclass="note"/.test(xml)
    if (!/<style[^>]*\sclass="(note|in-text)"/.test(xml) || !xml.includes("<citation"))
      return tell("This file holds no style of citation (CSL).")
    const name = /<title>([^<]{1,80})/.exec(xml)?.[1]?.trim() ?? file.name.slice(0, 80)
    tell("")
    session.run(changeCitationStyle("own", notes, { name, notes, xml }))
  }
  const styles = [...citationStyles, ...(sources.own ? [{ ...sources.own, id: "own" }] : [])]
  return (
    <>
      <SectionTitle>How they are cited</SectionTitle>
      <Choice
        label="Style"
        value={sources.style}
        options={styles.map(({ id, name }) => [id, name] as const)}
        onChange={(id) => session.run(changeCitationStyle(id, styles.find((own) => own.id === id)?.notes === true))}
      />
      <View className="flex-row">
        <FilePress className={wordLook} label="File with a style of citation" accept=".csl,.xml" onFile={add}>
          Add a style (CSL)
        </FilePress>
      </View>
      <Text className="font-ui text-[12px] leading-4 text-ink-soft">
        Made by citeproc-js in styles of the Citation Style Language (CSL project).
      </Text>
      <Switch label="List of references at the end" on={listed} onChange={(on) => session.run(turnReferenceList(on))} />
    </>
  )
}
