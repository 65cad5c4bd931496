import { useRef, useState } from "react"
import { Text, View } from "react-native"
import { linkAt, linkTargets, linkToTarget, readAddress, removeLink, setLink } from "@biblon/core/editing"
import { useDesk, useSession } from "../context"
import { linkWords } from "../linkWords"
import { Act, WordButton } from "../../ui/button"
import { Choice } from "../../ui/choice"
import { TextField } from "../../ui/field"
import { FloatingCard } from "./FloatingCard"

const width = 320

/** The field has the keys when it comes. Where it lies is the card's to say: nothing is scrolled for it. */
const takeKeys = (field: HTMLInputElement | null): void => field?.focus({ preventScroll: true })

function Editor({ href, onDone }: { href: string | null; onDone: () => void }) {
  const session = useSession()
  const [typed, setTyped] = useState(href && !href.startsWith("#") ? href.replace(/^mailto:/, "") : "")
  const [wrong, setWrong] = useState(false)
  const doc = useDesk((s) => s.editor?.doc ?? null)
  const targets = doc ? linkTargets(doc) : []
  const end = () => {
    ended.current = true
    onDone()
    session.focus()
  }
  const ended = useRef(false)
  /** Going elsewhere takes what was typed, if it leads anywhere. */
  const leave = () => {
    const address = readAddress(typed)
    if (!ended.current && address && address !== href) session.run(setLink(address))
  }
  const take = () => {
    const address = readAddress(typed)
    if (!address) return setWrong(true)
    session.run(setLink(address))
    end()
  }
  return (
    <form
      className="flex flex-col gap-2 p-2"
      onSubmit={(event) => {
        event.preventDefault()
        take()
      }}
      onKeyDown={(event) => {
        if (event.key === "Escape") end()
      }}
    >
      <div className="flex gap-2">
        <TextField
          ref={takeKeys}
          quiet
          label="Address"
          placeholder="Web or e-mail address"
          wrong={
            wrong ? "This is no web or e-mail address. Type one such as ferry.example or imre@ferry.example." : null
          }
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value)
            setWrong(false)
          }}
          onBlur={leave}
          className="flex-1"
        />
        <WordButton label="Link" primary submit narrow />
      </div>
      {targets.length > 0 ? (
        <Choice
          label="or a place of this document"
          value={undefined}
          none="Choose a heading or place"
          options={targets.map(
            (target, i) =>
              [String(i), `${"\u2003".repeat(Math.max(0, (target.level ?? 1) - 1))}${target.text}`] as const,
          )}
          onChange={(i) => {
            const target = targets[Number(i)]
            if (target) session.run(linkToTarget(target))
            end()
          }}
        />
      ) : null}
    </form>
  )
}

/** Under the caret when it stands in a link, and while one is being made. */
export function LinkCard() {
  const session = useSession()
  const { caret, link, editing } = useDesk((s) => {
    const found = s.editor && s.editor.selection.empty ? linkAt(s.editor) : null
    const link = found?.href ?? null
    const editing = s.linking
    const shown = editing || (link !== null && s.writing)
    return { caret: shown ? (s.view.selection.from ?? s.view.caret) : null, link, editing }
  })
  if (!caret) return null
  return (
    <FloatingCard label="Link" by={caret} width={width}>
      {editing ? (
        <Editor href={link} onDone={() => session.opening.link(false)} />
      ) : (
        <>
          <Text numberOfLines={2} className="px-3 pt-2.5 font-ui text-[14px] text-ink">
            {linkWords(link ?? "")}
          </Text>
          <View className="flex-row p-1">
            <Act label="Open" primary onPress={() => session.going.alongLink(link ?? "")} />
            <Act label="Edit" onPress={() => session.opening.link(true)} />
            <Act label="Remove" onPress={() => session.run(removeLink)} />
          </View>
        </>
      )}
    </FloatingCard>
  )
}
