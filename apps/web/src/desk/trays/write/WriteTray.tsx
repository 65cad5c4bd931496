import { View } from "react-native"
import { selectedRect } from "@biblon/core/editing"
import { PageTabs } from "../../../ui/pieces"
import { useDesk, useSession } from "../../context"
import { LettersPage } from "./LettersPage"
import { ListPage } from "./ListPage"
import { ParagraphPage } from "./ParagraphPage"
import { TablePage } from "./table/TablePage"

const pages = [
  ["table", "Table"],
  ["letters", "Letters"],
  ["paragraph", "Paragraph"],
  ["list", "List"],
] as const
type Page = (typeof pages)[number][0]

export function WriteTray() {
  const session = useSession()
  // In a table its tools come first.
  const inTable = useDesk(({ editor }) => editor !== null && selectedRect(editor) !== null)
  const wished = useDesk((s) => (s.pages.write ?? (inTable ? "table" : "letters")) as Page)
  const page = wished === "table" && !inTable ? "letters" : wished
  return (
    <View>
      <PageTabs
        label="What to shape"
        pages={inTable ? pages : pages.slice(1)}
        page={page}
        onChoose={(next) => session.openTray("write", next)}
      />
      {page === "table" ? (
        <TablePage />
      ) : page === "letters" ? (
        <LettersPage />
      ) : page === "paragraph" ? (
        <ParagraphPage />
      ) : (
        <ListPage />
      )}
    </View>
  )
}
