import { View } from "react-native"
import { pictureHere, selectedRect } from "@biblon/core/editing"
import { PageTabs } from "../../../ui/choice"
import { useDesk, useSession } from "../../context"
import { LettersPage } from "./LettersPage"
import { ListPage } from "./ListPage"
import { ParagraphPage } from "./ParagraphPage"
import { PicturePage } from "./picture/PicturePage"
import { TablePage } from "./table/TablePage"

const pages = [
  ["picture", "Picture"],
  ["table", "Table"],
  ["letters", "Letters"],
  ["paragraph", "Paragraph"],
  ["list", "List"],
] as const
type Page = (typeof pages)[number][0]

const contents: Readonly<Record<Page, () => React.JSX.Element | null>> = {
  picture: PicturePage,
  table: TablePage,
  letters: LettersPage,
  paragraph: ParagraphPage,
  list: ListPage,
}

export function WriteTray() {
  const session = useSession()
  // In a table or on a picture the tools for that come first.
  const { inTable, onPicture } = useDesk(({ editor }) => ({
    inTable: editor !== null && selectedRect(editor) !== null,
    onPicture: editor !== null && pictureHere(editor) !== null,
  }))
  const chosen = useDesk((s) => s.pages.write as Page | undefined)
  const shown = onPicture
    ? pages.filter(([key]) => key === "picture" || key === "paragraph")
    : pages.filter(([key]) => key !== "picture" && (key !== "table" || inTable))
  const page = (shown.find(([key]) => key === chosen) ?? shown[0] ?? pages[2])[0]
  const Content = contents[page]
  return (
    <View>
      <PageTabs
        label="What to shape"
        pages={shown}
        page={page}
        onChoose={(next) => session.opening.tray("write", next)}
      />
      <Content />
    </View>
  )
}
