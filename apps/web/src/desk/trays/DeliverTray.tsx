import { Text, View } from "react-native"
import { kinds, type KindId } from "@biblon/core/formats/kinds"
import { lossesIn } from "@biblon/core/formats/losses"
import { toolNamed, type Tool } from "../../commands/registry"
import { keyLabel } from "../../commands/keys"
import { SectionTitle, Switch } from "../../ui/choice"
import { Glyph } from "../../ui/glyph"
import { useDesk, useSession } from "../context"
import { Sending } from "./Sending"
import { Printing } from "./Printing"
import { Press } from "../../ui/bar"

/** @param kind of the file, of which is said what of the document it does not carry */
function Delivery({ tool, note, kind }: { tool: Tool; note: string; kind?: KindId }) {
  const session = useSession()
  const { busy, lost } = useDesk((s) => ({
    busy: s.delivering !== null,
    lost: kind && s.editor ? lossesIn(s.editor.doc, kind).join(", ") : "",
  }))
  return (
    <Press
      disabled={busy}
      onClick={() => tool.run(session)}
      className={`flex min-w-0 shrink-0 mb-2 min-h-[60px] items-center gap-3 rounded-button border border-line bg-raised px-3 py-2 hover:bg-murex-soft/50 ${busy ? "opacity-50" : ""}`}
    >
      <Glyph icon={tool.icon} size={26} />
      <View className="flex-1">
        <Text className="font-ui-bold text-[15px] text-ink">{tool.name}</Text>
        <Text className="font-ui text-[13px] text-ink-soft">{note}</Text>
        {lost === "" ? null : <Text className="font-ui text-[13px] text-ink">{`Without ${lost}`}</Text>}
      </View>
      <Text className="hidden font-ui text-[12px] text-ink-soft wide:flex">{keyLabel(tool) ?? ""}</Text>
    </Press>
  )
}

/** A copy in another format. */
const Copy = ({ kind }: { kind: KindId }) => (
  <Delivery tool={toolNamed(`save-${kind}`)} note={kinds[kind].note} kind={kind} />
)

export function DeliverTray() {
  const session = useSession()
  const { progress, sheets, complete, page, archive } = useDesk((s) => ({
    archive: s.archive,
    page: s.pages.deliver,
    progress: s.delivering,
    sheets: s.view.sheets,
    complete: s.view.complete && s.mode === "sheets",
  }))
  return (
    <View>
      <SectionTitle>
        {complete ? `The document, ${sheets} ${sheets === 1 ? "sheet" : "sheets"}` : "The document"}
      </SectionTitle>
      <Delivery tool={toolNamed("pdf")} note={kinds.pdf.note} />
      <View className="mb-2">
        <Switch
          label="For archives (PDF/A), with what its colours mean"
          on={archive}
          onChange={(next) => session.delivery.turnArchive(next)}
        />
      </View>
      <Delivery tool={toolNamed("print")} note="The same file, to your printer" />
      <Printing key={`print ${page}`} unfolded={page === "print"} />
      <Sending key={page} unfolded={page?.startsWith("send") ?? false} />
      <SectionTitle>A copy in another format</SectionTitle>
      <Delivery tool={toolNamed("save-png")} note={kinds.png.note} />
      <Copy kind="docx" />
      <Copy kind="odt" />
      <Copy kind="rtf" />
      <Copy kind="html" />
      <Copy kind="epub" />
      <Copy kind="commonmark" />
      <Copy kind="text" />
      <Delivery tool={toolNamed("save-json")} note={kinds.json.note} />
      {progress ? (
        <View role="status" aria-live="polite" className="mt-1 flex-row items-center justify-between">
          <Text className="font-ui text-[14px] text-ink">
            {progress.stage === "layout"
              ? `Laying out, sheet ${progress.done}`
              : `Writing sheet ${progress.done} of ${progress.of}`}
          </Text>
          <Press
            onClick={() => session.delivery.stop()}
            className="flex min-w-0 flex-col shrink-0 h-11 justify-center px-3"
          >
            <Text className="font-ui-bold text-[14px] text-murex">Stop</Text>
          </Press>
        </View>
      ) : null}
    </View>
  )
}
