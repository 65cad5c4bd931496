import { Text, View } from "react-native"
import { enclosuresOf } from "@biblon/core/document"
import { kinds } from "@biblon/core/formats/kinds"
import { toolNamed, type Tool } from "../../commands/registry"
import { keyLabel } from "../../commands/keys"
import { SectionTitle, Switch } from "../../ui/choice"
import { Glyph } from "../../ui/glyph"
import { useDesk, useSession } from "../context"
import { Sending } from "./Sending"
import { Printing } from "./Printing"
import { Press } from "../../ui/bar"

function Delivery({ tool, note }: { tool: Tool; note: string }) {
  const session = useSession()
  const busy = useDesk((s) => s.delivering !== null)
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
      </View>
      <Text className="hidden font-ui text-[12px] text-ink-soft wide:flex">{keyLabel(tool) ?? ""}</Text>
    </Press>
  )
}

export function DeliverTray() {
  const session = useSession()
  const encloses = useDesk((s) => s.editor !== null && enclosuresOf(s.editor.doc).length > 0)
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
      <Switch
        label="For archives (PDF/A), with what its colours mean"
        on={archive}
        onChange={(next) => session.delivery.turnArchive(next)}
      />
      <Delivery tool={toolNamed("print")} note="The same file, to your printer" />
      <Printing key={`print ${page}`} unfolded={page === "print"} />
      <Sending key={page} unfolded={page?.startsWith("send") ?? false} />
      <SectionTitle>A copy in another format</SectionTitle>
      {encloses ? (
        <Text className="font-ui text-[13px] leading-5 text-ink-soft">
          The enclosed files go along in the PDF and in Biblon’s own file; in the others their names alone do.
        </Text>
      ) : null}
      <Delivery tool={toolNamed("save-png")} note={kinds.png.note} />
      <Delivery tool={toolNamed("save-docx")} note={kinds.docx.note} />
      <Delivery tool={toolNamed("save-odt")} note={kinds.odt.note} />
      <Delivery tool={toolNamed("save-rtf")} note={kinds.rtf.note} />
      <Delivery tool={toolNamed("save-html")} note={kinds.html.note} />
      <Delivery tool={toolNamed("save-epub")} note={kinds.epub.note} />
      <Delivery tool={toolNamed("save-commonmark")} note={kinds.commonmark.note} />
      <Delivery tool={toolNamed("save-text")} note={kinds.text.note} />
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
