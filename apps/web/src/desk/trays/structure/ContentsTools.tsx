import { View } from "react-native"
import { documentAttrs, headingLooks, limits, outlineLevel } from "@biblon/core/document"
import {
  changeContents,
  contentsIn,
  insertContents,
  paragraphValue,
  setParagraphs,
  usualContents,
} from "@biblon/core/editing"
import { WordButton } from "../../../ui/button"
import { Choice, Switch } from "../../../ui/choice"
import { useTyped } from "../../../ui/typed"
import { useDesk, useSession } from "../../context"
import { TextField } from "../../../ui/field"

const lookNames: Readonly<Record<(typeof headingLooks)[number], string>> = {
  dotted: "Dots to the number",
  ruled: "A line to the number",
  plain: "Number close behind",
}

/** The list of contents: put in where the caret is, and how it looks. It is always right, so there is nothing to renew. */
export function Contents() {
  const session = useSession()
  const { levels, look } = useDesk(({ editor }) => {
    const found = editor ? contentsIn(editor) : null
    return { levels: found?.levels ?? null, look: headingLooks.find((own) => own === found?.look) ?? "dotted" }
  })
  if (levels === null)
    return (
      <View className="mt-3 flex-row">
        <WordButton
          label="Put the contents here"
          onPress={() => {
            session.run(insertContents(usualContents))
            session.focus()
          }}
        />
      </View>
    )
  return (
    <View className="mt-3 gap-2">
      <View className="flex-row gap-2">
        <Choice
          label="Contents"
          value={look}
          options={headingLooks.map((own) => [own, lookNames[own]] as const)}
          onChange={(next) => session.run(changeContents({ look: next }))}
        />
        <Choice
          label="Levels"
          value={String(levels)}
          options={[1, 2, 3, 4, 5, 6].map((n) => [String(n), n === 1 ? "Only the first" : `1 to ${n}`] as const)}
          onChange={(next) => session.run(changeContents({ levels: Number(next) }))}
        />
      </View>
      <View className="flex-row">
        <WordButton label="Take the contents away" onPress={() => void session.run(changeContents(null))} />
      </View>
    </View>
  )
}

/** Whether the heading with the caret stands in the contents, and in which words. */
export function HeadingHere() {
  const session = useSession()
  const { heading, listed, words } = useDesk(({ editor }) => ({
    heading: editor !== null && outlineLevel(documentAttrs(editor.doc).styles, editor.selection.$head.parent) !== null,
    listed: editor ? paragraphValue(editor, "listed") !== false : true,
    words: editor ? (paragraphValue(editor, "listedAs") ?? "") : "",
  }))
  const typed = useTyped(
    words,
    (text) => void session.run(setParagraphs({ listedAs: text.trim() }, "Words in the contents")),
  )
  if (!heading) return null
  return (
    <View className="mt-3 gap-2">
      <Switch
        label="This heading stands in the contents"
        on={listed}
        onChange={(on) =>
          void session.run(setParagraphs({ listed: on }, on ? "In the contents" : "Not in the contents"))
        }
      />
      {listed ? (
        <TextField label="In shorter words there" {...typed} placeholder="As it is" maxLength={limits.shortForm} />
      ) : null}
    </View>
  )
}
