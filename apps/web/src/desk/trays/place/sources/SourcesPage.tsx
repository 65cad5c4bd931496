/** The sources of the document: cited at the caret, typed in, brought in, and listed in a style. */
import { useRef, useState } from "react"
import { Text, View } from "react-native"
import { documentAttrs, type Source, type Sources } from "@biblon/core/document"
import {
  changeCitationStyle,
  citedSources,
  insertQuotation,
  putSources,
  referenceList,
  removeSource,
  turnReferenceList,
} from "@biblon/core/editing"
import { citationStyles, sourceWords, writeSources, type SourcesFormat } from "@biblon/core/sources"
import { Press } from "../../../../ui/bar"
import { IconButton } from "../../../../ui/button"
import { Choice, Fold, SectionTitle, Switch } from "../../../../ui/choice"
import { TextField } from "../../../../ui/field"
import { PencilSimpleLine, Trash } from "../../../../ui/icons"
import { saveFile } from "../../../../ui/saving"
import { readSourcesFile } from "../../../../workers/fileClient"
import { useDesk, useSession } from "../../../context"
import { addSources, cite, inNotes } from "./citing"
import { keepSources, useLibrary } from "./library"
import { blankSource, SourceForm } from "./SourceForm"

/** So many are listed at once; a word narrows them down. */
const mostShown = 40
/** Bytes of the largest files that are read. */
const largest = { sources: 20_000_000, style: 300_000 }

const rowPress =
  "flex min-h-[44px] min-w-0 flex-1 flex-col justify-center rounded-button px-2 py-1 text-left hover:bg-murex-soft/50"
const button =
  "flex h-11 shrink-0 items-center rounded-button px-3 font-ui-bold text-[14px] text-murex hover:bg-murex-soft/50 wide:h-9"

const none: Sources = { style: "apa", own: null, list: {} }
const nothing: ReadonlySet<string> = new Set()

function matches(source: Source, wanted: string): boolean {
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
      <span className="truncate font-ui text-[13px] text-ink-soft">{[what, aside].filter(Boolean).join(" · ")}</span>
    </>
  )
}

/** Passages of a source, each put in as a quotation by a press. */
function Passages({ id, source }: { id: string; source: Source }) {
  const session = useSession()
  const quote = (words: string, page: string) => {
    const { now } = session
    if (!now) return
    session.run(
      insertQuotation(words, { source: id, ...(page ? { at: page } : {}) }, inNotes(documentAttrs(now.doc).sources)),
    )
    session.focus()
  }
  return source.quotations.map(({ words, page }, i) => (
    <Press key={i} className={`${rowPress} ml-3 border-l-2 border-line`} onClick={() => quote(words, page)}>
      <span className="line-clamp-2 font-ui text-[13px] text-ink">{`“${words}”`}</span>
      <span className="font-ui text-[13px] text-ink-soft">{page ? `Quote it, page ${page}` : "Quote it"}</span>
    </Press>
  ))
}

function OwnSources({ wanted, onChange }: { wanted: string; onChange: (id: string) => void }) {
  const session = useSession()
  const { list, cited } = useDesk(({ editor }) => ({
    list: editor ? documentAttrs(editor.doc).sources.list : none.list,
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
function FromLibrary({ wanted }: { wanted: string }) {
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

const exported: readonly (readonly [SourcesFormat, string, string])[] = [
  ["bibtex", "BibTeX", ".bib"],
  ["ris", "RIS", ".ris"],
  ["csl", "CSL JSON", ".json"],
]

function StyleChoice({ tell }: { tell: (words: string) => void }) {
  const session = useSession()
  const sources = useDesk(({ editor }) => (editor ? documentAttrs(editor.doc).sources : none))
  const listed = useDesk(({ editor }) => editor !== null && referenceList(editor.doc) !== null)
  const input = useRef<HTMLInputElement>(null)
  const add = async (file: File | undefined) => {
    if (!file) return
    if (file.size > largest.style) return tell("This file is too large for a style of citation.")
    const xml = await file.text()
    const notes = /<style[^>]*\sclass="note"/.test(xml)
    if (!/<style[^>]*\sclass="(note|in-text)"/.test(xml) || !xml.includes("<citation"))
      return tell("This file holds no style of citation (CSL).")
    const name = /<title>([^<]{1,80})/.exec(xml)?.[1]?.trim() ?? file.name.slice(0, 80)
    tell("")
    session.run(changeCitationStyle("own", notes, { name, notes, xml }))
  }
  const styles = [...citationStyles, ...(sources.own ? [{ ...sources.own, id: "own" }] : [])]
  return (
    <>
      <SectionTitle>How they are cited</SectionTitle>
      <Choice
        label="Style"
        value={sources.style}
        options={styles.map(({ id, name }) => [id, name] as const)}
        onChange={(id) => session.run(changeCitationStyle(id, styles.find((own) => own.id === id)?.notes === true))}
      />
      <View className="flex-row">
        <Press className={button} onClick={() => input.current?.click()}>
          Add a style (CSL)
        </Press>
      </View>
      <input
        ref={input}
        type="file"
        accept=".csl,.xml"
        aria-label="File with a style of citation"
        className="hidden"
        onChange={(event) => {
          void add(event.target.files?.[0])
          event.target.value = ""
        }}
      />
      <Text className="font-ui text-[12px] leading-4 text-ink-soft">
        Made by citeproc-js in styles of the Citation Style Language (CSL project).
      </Text>
      <Switch label="List of references at the end" on={listed} onChange={(on) => session.run(turnReferenceList(on))} />
    </>
  )
}

export function SourcesPage() {
  const session = useSession()
  const list = useDesk(({ editor }) => (editor ? documentAttrs(editor.doc).sources.list : none.list))
  const name = useDesk((s) => s.name)
  const [wanted, setWanted] = useState("")
  const [form, setForm] = useState<{ id: string | null } | null>(null)
  const [told, setTold] = useState("")
  const input = useRef<HTMLInputElement>(null)
  const bring = async (file: File | undefined) => {
    if (!file) return
    if (file.size > largest.sources) return setTold("This list is larger than 20 MB.")
    try {
      const { sources, lost } = await readSourcesFile(await file.text())
      const { keys, known } = addSources(session, sources)
      const count = keys.length - known
      setTold(
        [
          count === 1 ? "One source came in." : `${count} sources came in.`,
          known > 0 ? `${known} ${known === 1 ? "was" : "were"} here already.` : "",
          lost > 0 ? `${lost} could not be read.` : "",
        ]
          .filter(Boolean)
          .join(" "),
      )
    } catch (error) {
      setTold(`${(error as Error).message}.`)
    }
  }
  const done = (id: string | null, source: Source | null) => {
    setForm(null)
    if (!source) return
    if (id !== null) {
      session.run(putSources({ [id]: source }))
      keepSources([source])
    } else addSources(session, [{ key: null, source }])
  }
  if (form) {
    const source = form.id === null ? blankSource : (list[form.id] ?? blankSource)
    return <SourceForm source={source} onDone={(made) => done(form.id, made)} />
  }
  return (
    <View>
      <View className="mt-3">
        <TextField
          label="Cite: a name, a title or a year"
          value={wanted}
          onChange={(event) => setWanted(event.target.value.trimStart())}
          onKeyDown={(event) => {
            const first = Object.entries(list).find(([, source]) => wanted !== "" && matches(source, wanted))
            if (event.key !== "Enter" || !first) return
            event.preventDefault()
            setWanted("")
            cite(session, first[0])
          }}
        />
      </View>
      <OwnSources wanted={wanted.trim()} onChange={(id) => setForm({ id })} />
      <FromLibrary wanted={wanted.trim()} />
      <View className="mt-1 flex-row flex-wrap">
        <Press className={button} onClick={() => setForm({ id: null })}>
          New source
        </Press>
        <Press className={button} onClick={() => input.current?.click()}>
          Bring in a list
        </Press>
      </View>
      <input
        ref={input}
        type="file"
        accept=".bib,.ris,.json,.txt"
        aria-label="File with sources"
        className="hidden"
        onChange={(event) => {
          void bring(event.target.files?.[0])
          event.target.value = ""
        }}
      />
      {told ? (
        <Text role="status" className="mt-1 font-ui text-[14px] text-ink">
          {told}
        </Text>
      ) : null}
      <StyleChoice tell={setTold} />
      <Fold title="Save the list as a file">
        <View className="flex-row flex-wrap">
          {exported.map(([format, label, ending]) => (
            <Press
              key={format}
              disabled={Object.keys(list).length === 0}
              className={`${button} disabled:opacity-40`}
              onClick={() =>
                saveFile(
                  new Blob([writeSources(list, format)], { type: "text/plain" }),
                  `${name ?? "Sources"}${ending}`,
                )
              }
            >
              {label}
            </Press>
          ))}
        </View>
      </Fold>
    </View>
  )
}
