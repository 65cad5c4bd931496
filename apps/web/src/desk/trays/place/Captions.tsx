import { useState } from "react"
import { Text, View } from "react-native"
import { captionLabels, type ReferencePart } from "@biblon/core/document"
import { insertCaption, insertContents, insertReference, referenceTargets, usualLabels } from "@biblon/core/editing"
import { WordButton } from "../../../ui/button"
import { Choice, Fold, SectionTitle, Segment, Segments } from "../../../ui/choice"
import { useDesk, useSession } from "../../context"
import { Press } from "../../../ui/bar"
import { TextField } from "../../../ui/field"

const own = "own"

/** Captions with numbers of their own, lists of them, and references to them. */
export function Captions() {
  const session = useSession()
  const [chosen, setChosen] = useState<string>(usualLabels[0])
  const [word, setWord] = useState("")
  const known = useDesk(({ editor }) => (editor ? captionLabels(editor.doc).join("\n") : ""))
  const labels = [...new Set([...usualLabels, ...known.split("\n").filter(Boolean)])]
  const label = chosen === own ? word : chosen
  const applies = useDesk(({ editor }) => editor !== null && insertCaption(label, "below")(editor))
  const put = (side: "above" | "below") => {
    session.run(insertCaption(label, side))
    session.focus()
  }
  return (
    <>
      <SectionTitle>Caption</SectionTitle>
      <View className="flex-row gap-2">
        <Choice
          label="Called"
          value={chosen}
          options={[...labels.map((name) => [name, name] as const), [own, "Another word …"] as const]}
          onChange={setChosen}
        />
        {chosen === own ? (
          <TextField
            label="Word"
            value={word}
            onChange={(event) => setWord(event.target.value)}
            placeholder="Chart"
            className="flex-1"
          />
        ) : null}
      </View>
      <View className="mt-2 flex-row gap-2">
        <WordButton label="Above it" disabled={!applies} onPress={() => put("above")} />
        <WordButton label="Below it" disabled={!applies} onPress={() => put("below")} />
      </View>
      <Fold title="Refer to a figure, table or heading">
        <References />
      </Fold>
      {known ? (
        <Fold title="List of captions">
          <Text className="font-ui text-[13px] leading-5 text-ink-soft">
            Stands before the paragraph with the caret, always right, like the contents.
          </Text>
          <View className="flex-row flex-wrap gap-2">
            {known.split("\n").map((name) => (
              <WordButton
                key={name}
                label={`List of ${name.toLowerCase()}s`}
                onPress={() => {
                  session.run(insertContents({ levels: 1, look: "dotted", of: name }))
                  session.focus()
                }}
              />
            ))}
          </View>
        </Fold>
      ) : null}
    </>
  )
}

const parts: readonly (readonly [ReferencePart, string])[] = [
  ["number", "Number"],
  ["words", "Words"],
  ["sheet", "Sheet"],
]
/** So many are shown at once. */
const most = 40

function References() {
  const session = useSession()
  const [part, setPart] = useState<ReferencePart>("number")
  const doc = useDesk(({ editor }) => editor?.doc ?? null)
  const targets = doc ? referenceTargets(doc) : []
  return (
    <>
      <Segments label="What the reference shows">
        {parts.map(([value, name], i) => (
          <Segment key={value} first={i === 0} label={name} on={part === value} onPress={() => setPart(value)} />
        ))}
      </Segments>
      {targets.length === 0 ? (
        <Text className="font-ui text-[13px] leading-5 text-ink-soft">
          Once there is a caption, a heading or a marked place, it can be referred to here.
        </Text>
      ) : (
        <View className="overflow-hidden rounded-button border border-line bg-raised">
          {targets.slice(0, most).map((target) => (
            <Press
              key={target.leaf}
              onClick={() => {
                session.run(insertReference(target, part))
                session.focus()
              }}
              className="flex min-w-0 flex-col shrink-0 min-h-[44px] justify-center px-3 hover:bg-murex-soft/50 wide:min-h-[34px]"
            >
              <Text numberOfLines={1} className="font-ui text-[14px] text-ink">
                {target.text}
              </Text>
            </Press>
          ))}
        </View>
      )}
    </>
  )
}
