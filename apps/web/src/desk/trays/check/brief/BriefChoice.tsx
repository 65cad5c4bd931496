/** Which brief a document follows: one that ships, one of a person's own, one from a file, or what the document itself is like. */
import { useState } from "react"
import { Text, View } from "react-native"
import { briefOf, readyBriefs, setBrief } from "@biblon/core/brief"
import type { Brief } from "@biblon/core/document"
import { Press } from "../../../../ui/bar"
import { IconButton } from "../../../../ui/button"
import { SectionTitle } from "../../../../ui/choice"
import { FilePress } from "../../../../ui/FilePress"
import { Trash } from "../../../../ui/icons"
import { readBriefFile } from "../../../../workers/fileClient"
import { useDesk, useSession } from "../../../context"
import { dropBrief, keepBrief, useOwnBriefs } from "./ownBriefs"

const row =
  "flex min-h-[44px] min-w-0 flex-1 items-center rounded-button px-2 text-left font-ui text-[14px] text-ink hover:bg-murex-soft/50 wide:min-h-[36px]"
/** Bytes of the largest file that could hold a brief. */
const largest = 200_000

export function BriefChoice({ onChosen }: { onChosen: () => void }) {
  const session = useSession()
  const name = useDesk((s) => s.name)
  const own = useOwnBriefs((s) => s.briefs)
  const [trouble, setTrouble] = useState("")
  const choose = (brief: Brief) => {
    setTrouble("")
    session.run(setBrief(brief))
    onChosen()
  }
  const read = async (text: string, keeps: boolean) => {
    try {
      const brief = await readBriefFile(text)
      if (keeps) keepBrief({ ...brief, name: brief.name ?? "Brief" })
      choose({ ...brief, name: brief.name ?? "Brief" })
    } catch (error) {
      setTrouble(`${(error as Error).message}.`)
    }
  }
  const bring = async (file: File) => {
    if (file.size > largest) return setTrouble("This file is too large to hold a brief.")
    await read(await file.text(), true)
  }
  const fromDocument = () =>
    session.now && choose(briefOf(session.now.doc, `Like ${name ?? "this document"}`.slice(0, 80)))
  return (
    <View>
      <View role="list" aria-label="Briefs" className="mt-2">
        {readyBriefs.map((brief) => (
          <View key={brief.name} role="listitem" className="flex-row">
            <Press className={row} onClick={() => choose(brief)}>
              {brief.name}
            </Press>
          </View>
        ))}
      </View>
      {own.length > 0 ? (
        <>
          <SectionTitle>Your own</SectionTitle>
          <View role="list" aria-label="Briefs of your own">
            {own.map((brief) => (
              <View key={brief.name} role="listitem" className="flex-row items-center">
                <Press className={row} onClick={() => void read(brief.text, false)}>
                  {brief.name}
                </Press>
                <IconButton name={`Remove ${brief.name}`} icon={Trash} onPress={() => dropBrief(brief.name)} />
              </View>
            ))}
          </View>
        </>
      ) : null}
      <SectionTitle>Another one</SectionTitle>
      <View className="flex-row">
        <Press className={row} onClick={fromDocument}>
          As this document is now
        </Press>
      </View>
      <View className="flex-row">
        <FilePress className={row} label="File with a brief" accept=".json,application/json" onFile={bring}>
          From a file
        </FilePress>
      </View>
      {trouble ? (
        <Text role="alert" className="mt-2 font-ui text-[14px] text-madder">
          {trouble}
        </Text>
      ) : null}
    </View>
  )
}
