import { useRef, useState, type KeyboardEvent } from "react"
import { Text, View } from "react-native"
import { namedPartAt, namedParts, partSigns, type NamedPart } from "@biblon/core/document"
import { addPart, deletePart, joinPart, movePart, partTitle, renamePart, startPart } from "@biblon/core/editing"
import { Press } from "../../../ui/bar"
import { WordButton } from "../../../ui/button"
import { CarryHandle, LandingLine } from "../../../ui/Carrying"
import { SectionTitle } from "../../../ui/choice"
import { TextField } from "../../../ui/field"
import { Glyph, ink, murex } from "../../../ui/glyph"
import { useTyped } from "../../../ui/typed"
import { useCarrying } from "../../../ui/useCarrying"
import { useDesk, useSession } from "../../context"
import { partDrawing, partDrawings } from "../../partSigns"

/** Parts with the sheets that they stand on, as "3–7"; without them in flow view. */
function useParts(): { parts: readonly NamedPart[]; here: number; sheets: readonly string[] } {
  const session = useSession()
  const { doc, head, flow } = useDesk((s) => ({
    doc: s.editor?.doc ?? null,
    head: s.editor?.selection.head ?? 0,
    flow: s.mode === "flow",
    // With these, what is said of sheets is said anew.
    sheets: s.view.sheets,
    complete: s.view.complete,
  }))
  const parts = doc ? namedParts(doc) : []
  const ranges = flow ? [] : session.going.sheetsOfParts()
  return {
    parts,
    here: doc ? namedPartAt(doc, head) : -1,
    sheets: parts.map((_, i) => {
      const [first, last] = ranges[i] ?? []
      return first === undefined || last === undefined ? "" : first === last ? `${first}` : `${first}–${last}`
    }),
  }
}

/** What is said of the part with the caret, to be changed. */
function PartHere({ part, index, many }: { part: NamedPart; index: number; many: boolean }) {
  const session = useSession()
  const name = useTyped(part.name, (typed) => void session.run(renamePart(index, { name: typed })))
  return (
    <View className="gap-2 rounded-tray border border-line bg-raised p-3">
      <TextField label="Name of this part" placeholder={partTitle(part)} {...name} />
      <div role="group" aria-label="Sign of this part" className="grid grid-cols-8">
        {partSigns.map((sign) => (
          <Press
            key={sign}
            aria-label={`Sign: ${sign}`}
            aria-pressed={part.sign === sign}
            onClick={() => session.run(renamePart(index, { sign: part.sign === sign ? null : sign }))}
            className={`flex h-11 items-center justify-center rounded-button border-0 wide:h-8 ${part.sign === sign ? "bg-murex-soft" : "bg-transparent hover:bg-murex-soft/50"}`}
          >
            <Glyph icon={partDrawings[sign]} size={20} colour={part.sign === sign ? murex : ink} />
          </Press>
        ))}
      </div>
      <View className="flex-row flex-wrap gap-2">
        {index > 0 ? (
          <WordButton narrow label="Join with the part before" onPress={() => void session.run(joinPart(index))} />
        ) : many ? null : (
          <WordButton narrow label="No parts" onPress={() => void session.run(joinPart(index))} />
        )}
        {many ? (
          <WordButton narrow label="Take away with its text" onPress={() => void session.run(deletePart(index))} />
        ) : null}
      </View>
    </View>
  )
}

function NewPart({ count }: { count: number }) {
  const session = useSession()
  const here = useDesk(({ editor }) => (editor ? startPart({ name: "Part", sign: null })(editor) : false))
  const [typed, setTyped] = useState("")
  const make = (command: typeof addPart) => {
    // What stands before the first part is going to be one too.
    const name = typed.trim() || `Part ${Math.max(2, count + 1)}`
    if (!session.run(command({ name, sign: null }))) return
    setTyped("")
    session.focus()
  }
  return (
    <form
      aria-label="New part"
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        make(addPart)
      }}
    >
      <SectionTitle>New part</SectionTitle>
      <TextField label="Its name" value={typed} onChange={(event) => setTyped(event.target.value)} />
      <View className="flex-row gap-2">
        <WordButton label="From here on" disabled={!here} onPress={() => make(startPart)} />
        <WordButton label="At the end" submit />
      </View>
    </form>
  )
}

/** The parts of a long work: to go to, to name, to move. */
export function PartsPage() {
  const session = useSession()
  const { parts, here, sheets } = useParts()
  const list = useRef<HTMLDivElement>(null)
  const { carried, carry } = useCarrying(list, (row, before) => session.run(movePart(row, before ?? parts.length)))
  const onKey = (index: number) => (event: KeyboardEvent) => {
    const before = { ArrowUp: index - 1, ArrowDown: index + 2 }[event.key]
    if (!event.altKey || before === undefined) return
    event.preventDefault()
    event.stopPropagation()
    session.run(movePart(index, before))
  }
  const current = parts[here]
  return (
    <View className="mt-3 gap-3">
      {parts.length === 0 ? (
        <Text className="font-ui text-[14px] leading-5 text-ink-soft">
          A long work can be in parts, each with a name of its own, in one document: chapters, annexes, the letters of a
          year. You switch between them here, move them, and they are printed and sent together.
        </Text>
      ) : (
        <div ref={list} role="list" aria-label="Parts" className="relative flex flex-col">
          {parts.map((part, i) => (
            <div
              key={`${part.name} ${i}`}
              role="listitem"
              data-row={i}
              className={`flex h-11 items-stretch rounded-button wide:h-9 ${i === here ? "bg-murex-soft" : "hover:bg-murex-soft/40"} ${carried?.row === i ? "opacity-50" : ""}`}
            >
              <Press
                aria-current={i === here}
                onClick={() => session.going.toPart(i)}
                onKeyDown={onKey(i)}
                className={`flex min-w-0 flex-1 items-center gap-2 border-0 bg-transparent px-2 text-left text-[15px] ${i === here ? "font-ui-bold text-murex" : "font-ui text-ink"}`}
              >
                <Glyph icon={partDrawing(part.sign)} size={20} colour={i === here ? murex : ink} />
                <span className="min-w-0 flex-1 truncate">{partTitle(part)}</span>
                <span className="shrink-0 font-ui text-[13px] text-ink-soft">{sheets[i]}</span>
              </Press>
              <CarryHandle label={`Move the part ${partTitle(part)}`} onPointerDown={carry(i)} />
            </div>
          ))}
          <LandingLine carried={carried} />
        </div>
      )}
      {current ? <PartHere key={here} part={current} index={here} many={parts.length > 1} /> : null}
      <NewPart count={parts.length} />
      {parts.length > 1 ? (
        <Text className="font-ui text-[13px] leading-5 text-ink-soft">
          Going to a part leads to where you were in it. Drag the dots, or press Alt with an arrow key, to move one; its
          heads and feet go along.
        </Text>
      ) : null}
    </View>
  )
}
