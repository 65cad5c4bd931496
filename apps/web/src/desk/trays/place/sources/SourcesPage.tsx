/** The sources of the document: cited at the caret, typed in, brought in, and listed in a style. */
import { useState } from "react"
import { Text, View } from "react-native"
import { defaultSources, documentAttrs, type Source } from "@biblon/core/document"
import { putSources } from "@biblon/core/editing"
import { writeSources, type SourcesFormat } from "@biblon/core/sources"
import { Press } from "../../../../ui/bar"
import { wordLook } from "../../../../ui/button"
import { Fold } from "../../../../ui/choice"
import { TextField } from "../../../../ui/field"
import { FilePress } from "../../../../ui/FilePress"
import { fileNamed, saveFile } from "../../../../ui/saving"
import { readSourcesFile } from "../../../../workers/fileClient"
import { useDesk, useSession } from "../../../context"
import { addSources, cite } from "./citing"
import { keepSources } from "./library"
import { blankSource, SourceForm } from "./SourceForm"
import { FromLibrary, matches, OwnSources } from "./SourceRows"
import { StyleChoice } from "./StyleChoice"

/** Bytes of the largest list that is read. */
const largest = 20_000_000

const exported: readonly (readonly [SourcesFormat, string, string])[] = [
  ["bibtex", "BibTeX", ".bib"],
  ["ris", "RIS", ".ris"],
  ["csl", "CSL JSON", ".json"],
]

export function SourcesPage() {
  const session = useSession()
  const list = useDesk(({ editor }) => (editor ? documentAttrs(editor.doc).sources.list : defaultSources.list))
  const name = useDesk((s) => s.name)
  const [wanted, setWanted] = useState("")
  const [form, setForm] = useState<{ id: string | null } | null>(null)
  const [told, setTold] = useState("")
  const bring = async (file: File) => {
    if (file.size > largest) return setTold("This list is larger than 20 MB.")
    try {
      const { sources, lost } = await readSourcesFile(file)
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
        <Press className={wordLook} onClick={() => setForm({ id: null })}>
          New source
        </Press>
        <FilePress className={wordLook} label="File with sources" accept=".bib,.ris,.json,.txt" onFile={bring}>
          Bring in a list
        </FilePress>
      </View>
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
              className={`${wordLook} disabled:opacity-40`}
              onClick={() =>
                saveFile(
                  new Blob([writeSources(list, format)], { type: "text/plain" }),
                  `${fileNamed(name, "Sources")}${ending}`,
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
