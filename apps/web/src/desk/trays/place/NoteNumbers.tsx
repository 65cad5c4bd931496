import { View } from "react-native"
import { documentAttrs, noteForms, type NoteSettings } from "@biblon/core/document"
import { changeNotes, markHere, noteHere, turnNote } from "@biblon/core/editing"
import { WordButton } from "../../../ui/button"
import { Choice, Fold } from "../../../ui/choice"
import { useDesk, useSession } from "../../context"

type NoteForm = NoteSettings["end"]["form"]

const formNames: Readonly<Record<NoteForm, string>> = {
  decimal: "1, 2, 3",
  lowerRoman: "i, ii, iii",
  upperRoman: "I, II, III",
  lowerLetter: "a, b, c",
  upperLetter: "A, B, C",
  signs: "*, †, ‡, §",
}
const forms = noteForms.map((form) => [form, formNames[form]] as const)

/** How notes are numbered; and a note that is here made one of the other kind. */
export function NoteNumbers() {
  const session = useSession()
  const { settings, kind } = useDesk(({ editor }) => ({
    settings: editor ? documentAttrs(editor.doc).notes : null,
    kind: editor ? ((noteHere(editor) ?? markHere(editor))?.kind ?? null) : null,
  }))
  if (!settings) return null
  return (
    <>
      {kind ? (
        <View className="mt-2 flex-row">
          <WordButton
            label={kind === "note" ? "Make it an endnote" : "Make it a footnote"}
            onPress={() => {
              session.run(turnNote)
              session.focus()
            }}
          />
        </View>
      ) : null}
      <Fold title="How notes are numbered">
        <View className="flex-row gap-2">
          <Choice
            label="Footnotes"
            value={settings.foot.form}
            options={forms}
            onChange={(form) => session.run(changeNotes("foot", { form }))}
          />
          <Choice
            label="Counted anew"
            value={settings.foot.restart}
            options={[
              ["document", "Never"],
              ["section", "In each section"],
              ["sheet", "On each sheet"],
            ]}
            onChange={(restart) => session.run(changeNotes("foot", { restart }))}
          />
        </View>
        <Choice
          label="Endnotes"
          value={settings.end.form}
          options={forms}
          onChange={(form) => session.run(changeNotes("end", { form }))}
        />
      </Fold>
    </>
  )
}
