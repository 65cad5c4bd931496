/** A source, typed in: asks only for what its kind needs. */
import { useState } from "react"
import { View } from "react-native"
import { limits, type Source } from "@biblon/core/document"
import { Press } from "../../../../ui/bar"
import { Choice } from "../../../../ui/choice"
import { TextArea, TextField } from "../../../../ui/field"
import { askedOf, kindNames, namesFrom, namesText, type Role, type SourceField } from "./kinds"

export const blankSource: Source = {
  kind: "book",
  names: {},
  fields: {},
  issued: "",
  accessed: "",
  remarks: "",
  quotations: [],
}

const button = "flex h-11 items-center justify-center rounded-button px-4 font-ui-bold text-[14px] wide:h-9"

export function SourceForm({ source, onDone }: { source: Source; onDone: (source: Source | null) => void }) {
  const [own, setOwn] = useState(source)
  // What is typed stays as it is typed until it is taken.
  const [names, setNames] = useState<Partial<Record<Role, string>>>(() =>
    Object.fromEntries(Object.entries(source.names).map(([role, list]) => [role, namesText(list)])),
  )
  const [passage, setPassage] = useState({ words: "", page: "" })
  const { roles, fields, accessed } = askedOf(own.kind)
  const field = (key: SourceField, text: string) => {
    const { [key]: _old, ...rest } = own.fields
    setOwn({ ...own, fields: text === "" ? rest : { ...rest, [key]: text } })
  }
  const done = () => {
    const typed = Object.fromEntries(
      Object.entries(names).flatMap(([role, text]) => (namesFrom(text).length > 0 ? [[role, namesFrom(text)]] : [])),
    ) as Source["names"]
    const quotations = passage.words.trim()
      ? [...own.quotations, { words: passage.words.trim(), page: passage.page.trim() }]
      : own.quotations
    onDone({ ...own, names: typed, quotations })
  }
  const empty = Object.keys(own.fields).length === 0 && Object.values(names).every((text) => text.trim() === "")
  return (
    <View role="form" aria-label="Source" className="mt-2 gap-2">
      <Choice label="Kind" value={own.kind} options={kindNames} onChange={(kind) => setOwn({ ...own, kind })} />
      {roles.map(([role, label]) => (
        <TextField
          key={role}
          label={`${label} (Family, Given; …)`}
          named={label}
          maxLength={limits.source.field}
          value={names[role] ?? ""}
          onChange={(event) => setNames({ ...names, [role]: event.target.value })}
        />
      ))}
      {fields.map(([key, label]) => (
        <TextField
          key={key}
          label={label}
          maxLength={limits.source.field}
          value={own.fields[key] ?? ""}
          onChange={(event) => field(key, event.target.value)}
        />
      ))}
      <TextField
        label="Year, or date as 2019-05-04"
        named="Date"
        maxLength={100}
        value={own.issued}
        onChange={(event) => setOwn({ ...own, issued: event.target.value })}
      />
      {accessed ? (
        <TextField
          label="Read on, as 2026-11-03"
          named="Read on"
          maxLength={100}
          value={own.accessed}
          onChange={(event) => setOwn({ ...own, accessed: event.target.value })}
        />
      ) : null}
      <TextArea
        label="Your notes"
        maxLength={limits.source.remarks}
        value={own.remarks}
        onChange={(event) => setOwn({ ...own, remarks: event.target.value })}
      />
      <TextArea
        label="A passage to quote"
        maxLength={limits.source.remarks}
        value={passage.words}
        onChange={(event) => setPassage({ ...passage, words: event.target.value })}
      />
      {passage.words ? (
        <TextField
          label="Its page"
          maxLength={100}
          value={passage.page}
          onChange={(event) => setPassage({ ...passage, page: event.target.value })}
        />
      ) : null}
      <View className="flex-row gap-2">
        <Press disabled={empty} className={`${button} bg-murex text-on-murex disabled:opacity-40`} onClick={done}>
          Keep
        </Press>
        <Press className={`${button} text-murex hover:bg-murex-soft/50`} onClick={() => onDone(null)}>
          Leave it
        </Press>
      </View>
    </View>
  )
}
