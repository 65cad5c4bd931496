import { View } from "react-native"
import { PageTabs } from "../../../ui/choice"
import { useDesk, useSession } from "../../context"
import { BriefPage } from "./brief/BriefPage"
import { CountPage } from "./CountPage"
import { SpellingPage } from "./SpellingPage"
import { TidyPage } from "./TidyPage"
import { WordingPage } from "./wording/WordingPage"

const pages = [
  ["spelling", "Spelling"],
  ["wording", "Wording"],
  ["tidy", "Tidy"],
  ["brief", "Brief"],
  ["count", "Count"],
] as const
type Page = (typeof pages)[number][0]

export function CheckTray() {
  const session = useSession()
  const page = useDesk((s) => (s.pages.check ?? "spelling") as Page)
  return (
    <View>
      <PageTabs label="Check" pages={pages} page={page} onChoose={(next) => session.opening.tray("check", next)} />
      {page === "spelling" ? (
        <SpellingPage />
      ) : page === "wording" ? (
        <WordingPage />
      ) : page === "tidy" ? (
        <TidyPage />
      ) : page === "brief" ? (
        <BriefPage />
      ) : (
        <CountPage />
      )}
    </View>
  )
}
