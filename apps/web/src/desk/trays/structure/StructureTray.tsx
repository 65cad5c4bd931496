import { View } from "react-native"
import { PageTabs } from "../../../ui/choice"
import { useDesk, useSession } from "../../context"
import { OutlinePage } from "./OutlinePage"
import { PartsPage } from "./PartsPage"
import { SetsPage } from "./SetsPage"
import { StylesPage } from "./StylesPage"

const pages = [
  ["styles", "Styles"],
  ["outline", "Outline"],
  ["parts", "Parts"],
  ["sets", "Sets"],
] as const
type Page = (typeof pages)[number][0]

export function StructureTray() {
  const session = useSession()
  const page = useDesk((s) => (s.pages.structure?.split("/")[0] ?? "styles") as Page)
  return (
    <View>
      <PageTabs
        label="Structure"
        pages={pages}
        page={page}
        onChoose={(next) => session.opening.tray("structure", next)}
      />
      {page === "styles" ? (
        <StylesPage />
      ) : page === "outline" ? (
        <OutlinePage />
      ) : page === "parts" ? (
        <PartsPage />
      ) : (
        <SetsPage />
      )}
    </View>
  )
}
