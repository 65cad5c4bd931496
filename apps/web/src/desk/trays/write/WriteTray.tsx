import { View } from "react-native"
import { PageTabs } from "../../../ui/pieces"
import { useDesk, useSession } from "../../context"
import { LettersPage } from "./LettersPage"
import { ListPage } from "./ListPage"
import { ParagraphPage } from "./ParagraphPage"

const pages = [
  ["letters", "Letters"],
  ["paragraph", "Paragraph"],
  ["list", "List"],
] as const
type Page = (typeof pages)[number][0]

export function WriteTray() {
  const session = useSession()
  const page = useDesk((s) => (s.pages.write ?? "letters") as Page)
  return (
    <View>
      <PageTabs label="What to shape" pages={pages} page={page} onChoose={(next) => session.openTray("write", next)} />
      {page === "letters" ? <LettersPage /> : page === "paragraph" ? <ParagraphPage /> : <ListPage />}
    </View>
  )
}
