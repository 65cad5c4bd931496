import { useState } from "react"
import { blocksOf, bodyOf, headingsOf, namedParts, notesOf, placesOf, sectionsOf } from "@biblon/core/document"
import { partTitle } from "@biblon/core/editing"
import { useDesk, useSession } from "../context"
import { Press } from "../../ui/bar"
import { TextField } from "../../ui/field"

/** So many places are offered at most. */
const most = 6

interface Target {
  name: string
  go: () => void
}

/** Goes to a sheet or section by its number, or to a part, heading, note or marked place by its words. */
export function GoToCard() {
  const session = useSession()
  const open = useDesk((s) => s.goingTo)
  return open ? <Card onDone={() => session.store.setState({ goingTo: false })} /> : null
}

function Card({ onDone }: { onDone: () => void }) {
  const session = useSession()
  const { doc, sheets } = useDesk((s) => ({ doc: s.editor?.doc ?? null, sheets: s.view.sheets }))
  const [typed, setTyped] = useState("")
  const targets = (): Target[] => {
    const words = typed.trim().toLowerCase()
    if (!doc || words === "") return []
    const number = Number(words)
    const sheet = Number.isInteger(number) ? Math.min(Math.max(1, number), sheets) : null
    return [
      ...(sheet === null ? [] : [{ name: `Sheet ${sheet} of ${sheets}`, go: () => void session.going.toSheet(sheet) }]),
      ...sectionsOf(doc).flatMap(({ block }, i) =>
        words === `section ${i + 1}`
          ? { name: `Section ${i + 1}`, go: () => session.going.toLeaf(blocksOf(bodyOf(doc)).leaf(block)) }
          : [],
      ),
      ...namedParts(doc).flatMap((part, i) =>
        partTitle(part).toLowerCase().includes(words)
          ? { name: `Part “${partTitle(part)}”`, go: () => session.going.toPart(i) }
          : [],
      ),
      ...notesOf(doc)
        .filter(({ label }) => label === words || words === `note ${label}`)
        .map(({ label, kind, leaf }) => ({
          name: `Mark of ${kind === "note" ? "note" : "endnote"} ${label}`,
          go: () => session.going.toLeaf(leaf),
        })),
      ...headingsOf(doc)
        .filter(({ text, label }) => `${label ?? ""} ${text}`.toLowerCase().includes(words))
        .map(({ text, label, leaf }) => ({
          name: `${label ? `${label} ` : ""}${text}`,
          go: () => session.going.toLeaf(leaf),
        })),
      ...[...placesOf(doc)]
        .filter(([name]) => name.toLowerCase().includes(words))
        .map(([name, leaf]) => ({ name: `Place “${name}”`, go: () => session.going.toLeaf(leaf) })),
    ].slice(0, most)
  }
  const offered = targets()
  const take = (target: Target | undefined) => {
    if (!target) return
    onDone()
    session.focus()
    target.go()
  }
  return (
    <form
      aria-label="Go to"
      data-keeps-keys
      className="absolute bottom-3 left-1/2 z-20 flex w-[300px] -translate-x-1/2 flex-col-reverse gap-1 rounded-tray border border-line bg-raised p-2 shadow-md"
      onSubmit={(event) => {
        event.preventDefault()
        take(offered[0])
      }}
      onKeyDown={(event) => {
        if (event.key !== "Escape") return
        onDone()
        session.focus()
      }}
    >
      <TextField
        autoFocus
        quiet
        label="Sheet, heading or note"
        placeholder="Number of a sheet, or words of a heading"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={(event) => {
          if (!event.currentTarget.form?.contains(event.relatedTarget)) onDone()
        }}
      />
      {offered.map((target, i) => (
        <Press
          key={target.name + String(i)}
          type="button"
          onClick={() => take(target)}
          className={`min-h-[44px] truncate rounded-button border-0 px-2 text-left text-[14px] wide:min-h-[34px] ${i === 0 ? "bg-murex-soft font-ui-bold text-murex" : "bg-transparent font-ui text-ink hover:bg-murex-soft/50"}`}
        >
          {target.name}
        </Press>
      ))}
      {typed.trim() !== "" && offered.length === 0 ? (
        <span className="px-2 py-1 font-ui text-[13px] text-ink-soft">
          No sheet, section, part, heading, note or place is called that.
        </span>
      ) : null}
    </form>
  )
}
