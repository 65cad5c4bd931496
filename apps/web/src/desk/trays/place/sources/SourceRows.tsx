/** Sources in rows: a press cites. */
import { Text, View } from "react-native"
import { documentAttrs, type Source, type Sources } from "@biblon/core/document"
import { citedSources, removeSource } from "@biblon/core/editing"
import { sourceWords } from "@biblon/core/sources"
import { Press } from "../../../../ui/bar"
import { IconButton } from "../../../../ui/button"
import { SectionTitle } from "../../../../ui/choice"
import { PencilSimpleLine, Trash } from "../../../../ui/icons"
import { useDesk, useSession } from "../../../context"
import { addSources, cite, quote } from "./citing"
import { useLibrary } from "./library"

/** So many are listed at once; a word narrows them down. */
const mostShown = 40

const rowPress =
  "flex min-h-[44px] min-w-0 flex-1 flex-col justify-center rounded-button px-2 py-1 text-left hover:bg-murex-soft/50"

const none: Sources["list"] = {}
const nothing: ReadonlySet<string> = new Set()

export function matches(source: Source, wanted: string): boolean {
  const { who, when, what } = sourceWords(source)
  const text = `${who} ${when} ${what} ${Object.values(source.names)
    .flatMap((all) => all.map(({ family, literal }) => family ?? literal ?? ""))
    .join(" ")}`.toLowerCase()
  return wanted
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word))
}

function inOneLine(source: Source): string {
  const { who, when, what } = sourceWords(source)
  return [who, when, what].filter(Boolean).join(", ")
}

function SourceWords({ source, aside }: { source: Source; aside: string }) {
  const { who, when, what } = sourceWords(source)
  return (
    <>
      <span className="flex font-ui text-[14px] text-ink">
        <span className="truncate">{who || "No author"}</span>
        {when ? <span className="shrink-0 whitespace-pre">{`, ${when}`}</span> : null}
      </span>
      <span className="truncate font-ui text-[13px] text-ink-soft">{[aside, what].filter(Boolean).join(" · ")}</span>
    </>
  )
}

/** Passages of a source, each put in as a quotation by a press. */
function Passages({ id, source }: { id: string; source: Source }) {
  const session = useSession()
  return source.quotations.map(({ words, page }, i) => (
    <Press
      key={i}
      className={`${rowPress} ml-3 border-l-2 border-line`}
      onClick={() => quote(session, id, words, page)}
    >
      <span className="line-clamp-2 font-ui text-[13px] text-ink">{`“${words}”`}</span>
      <span className="font-ui text-[13px] text-ink-soft">{page ? `Quote it, page ${page}` : "Quote it"}</span>
    </Press>
  ))
}

export function OwnSources({ wanted, onChange }: { wanted: string; onChange: (id: string) => void }) {
  const session = useSession()
  const { list, cited } = useDesk(({ editor }) => ({
    list: editor ? documentAttrs(editor.doc).sources.list : none,
    cited: editor ? citedSources(editor.doc) : nothing,
  }))
  const all = Object.entries(list).filter(([, source]) => wanted === "" || matches(source, wanted))
  const missing = [...cited].filter((id) => !Object.hasOwn(list, id)).length
  return (
    <>
      {missing > 0 ? (
        <Text role="status" className="mt-2 font-ui text-[14px] text-ochre">
          {missing === 1
            ? "One source that is cited is missing here."
            : `${missing} sources that are cited are missing here.`}
        </Text>
      ) : null}
      <View role="list" aria-label="Sources of the document" className="mt-1">
        {all.slice(0, mostShown).map(([id, source]) => (
          <View key={id} role="listitem" className="border-b border-line">
            <View className="flex-row items-center">
              <Press
                className={rowPress}
                title="Cite at the caret"
                aria-label={`Cite ${inOneLine(source)}`}
                onClick={() => cite(session, id)}
              >
                <SourceWords source={source} aside={cited.has(id) ? "" : "not cited"} />
              </Press>
              <IconButton
                name={`Change ${sourceWords(source).what || id}`}
                icon={PencilSimpleLine}
                onPress={() => onChange(id)}
              />
              <IconButton
                name={`Take out ${sourceWords(source).what || id}`}
                icon={Trash}
                onPress={() => session.run(removeSource(id))}
              />
            </View>
            <Passages id={id} source={source} />
          </View>
        ))}
      </View>
      {all.length > mostShown ? (
        <Text className="font-ui text-[13px] text-ink-soft">{`and ${all.length - mostShown} more: type a name`}</Text>
      ) : null}
      {Object.keys(list).length === 0 ? (
        <Text className="mt-2 font-ui text-[14px] leading-5 text-ink-soft">
          No sources yet. Type one in, or bring in a list as BibTeX, RIS or CSL JSON.
        </Text>
      ) : null}
    </>
  )
}

/** Those of the person's library that match, to be taken into the document. */
export function FromLibrary({ wanted }: { wanted: string }) {
  const session = useSession()
  const library = useLibrary((s) => s.sources)
  if (wanted.length < 2) return null
  const found = library.filter((source) => matches(source, wanted)).slice(0, 8)
  if (found.length === 0) return null
  return (
    <>
      <SectionTitle>In your library</SectionTitle>
      <View role="list" aria-label="In your library">
        {found.map((source, i) => (
          <View key={i} role="listitem" className="flex-row">
            <Press
              className={rowPress}
              aria-label={`Cite ${inOneLine(source)}`}
              onClick={() => {
                const [key] = addSources(session, [{ key: null, source }]).keys
                if (key) cite(session, key)
              }}
            >
              <SourceWords source={source} aside="" />
            </Press>
          </View>
        ))}
      </View>
    </>
  )
}
