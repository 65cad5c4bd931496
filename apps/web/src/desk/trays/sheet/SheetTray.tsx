import { View } from "react-native"
import { PageTabs, Segment, Segments } from "../../../ui/choice"
import { useDesk, useSession } from "../../context"
import { BehindPage } from "./BehindPage"
import { ColumnsPage } from "./ColumnsPage"
import { EdgesPage } from "./EdgesPage"
import { PaperPage } from "./PaperPage"
import { useSetup, useSetupScope, type SetupScope } from "./useSetup"

const pages = [
  ["paper", "Paper", PaperPage],
  ["edges", "Head, foot", EdgesPage],
  ["columns", "Columns", ColumnsPage],
  ["behind", "Behind", BehindPage],
] as const
type PageId = (typeof pages)[number][0]

const scopes: readonly (readonly [SetupScope, string])[] = [
  ["all", "All sheets"],
  ["here", "This section"],
  ["on", "From here on"],
]

/** What a change holds for. */
function Scope() {
  const { sections, scope } = useSetup()
  const offered = scopes.filter(([id]) => id !== "here" || sections > 1)
  return (
    <View className="mt-3">
      <Segments label="What it holds for">
        {offered.map(([id, name], i) => (
          <Segment
            key={id}
            first={i === 0}
            label={name}
            on={scope === id || (scope === "here" && sections === 1 && id === "all")}
            onPress={() => useSetupScope.setState({ scope: id, limited: false })}
          />
        ))}
      </Segments>
    </View>
  )
}

export function SheetTray() {
  const session = useSession()
  const page = useDesk((s) => (s.pages.sheet?.split("/")[0] ?? "paper") as PageId)
  const Page = pages.find(([id]) => id === page)?.[2] ?? PaperPage
  return (
    <View>
      <PageTabs
        label="Sheet"
        pages={pages.map(([id, name]) => [id, name] as const)}
        page={page}
        onChoose={(next) => session.opening.tray("sheet", next)}
      />
      <Scope />
      <Page />
    </View>
  )
}
