import { useEffect, useState } from "react"
import { Text, View } from "react-native"
import { allCounted, counting, readingEase, readingMinutes, type Count, type Counted } from "@biblon/core/checking"
import { documentAttrs, headingsOf, leavesOf, namedPartAt, namedParts } from "@biblon/core/document"
import type { EditorState } from "prosemirror-state"
import { SectionTitle, Segment, Segments, Switch } from "../../../ui/choice"
import { TextField } from "../../../ui/field"
import { inSlices } from "../../../ui/slices"
import { keep, readKept } from "../../../kept"
import { useDesk, useSession } from "../../context"

type Reach = "document" | "part" | "section" | "selection"

const figures = new Intl.NumberFormat("en")
/** Milliseconds of rest after a change before it is counted. */
const rest = 250

/** From where to where it is counted; null where there is nothing of that kind. */
function endsOf({ doc, selection }: EditorState, reach: Reach): { from: number; to: number } | null {
  if (reach === "document") return { from: 0, to: doc.content.size }
  if (reach === "selection") return selection.empty ? null : { from: selection.from, to: selection.to }
  if (reach === "part") {
    const part = namedParts(doc)[namedPartAt(doc, selection.head)]
    return part ? { from: part.start, to: part.end } : null
  }
  const leaves = leavesOf(doc)
  const leaf = leaves.at(selection.head)
  const heading = headingsOf(doc).findLast((own) => own.leaf <= leaf && leaf < own.end)
  return heading ? { from: leaves.start(heading.leaf), to: leaves.end(heading.end - 1) } : null
}

function useCount(reach: Reach, counted: Counted): Count | null {
  const session = useSession()
  const editor = useDesk((s) => s.editor)
  const [count, setCount] = useState<Count | null>(null)
  useEffect(() => {
    let wanted = true
    const act = async () => {
      const state = session.now
      const ends = state && endsOf(state, reach)
      const made = ends ? await inSlices(counting(state.doc, counted, ends.from, ends.to), () => wanted) : null
      if (wanted) setCount(made)
    }
    const timer = setTimeout(() => void act(), rest)
    return () => {
      wanted = false
      clearTimeout(timer)
    }
  }, [session, editor, reach, counted])
  return count
}

function Row({ name, value }: { name: string; value: string }) {
  return (
    <View className="min-h-[34px] flex-row items-center justify-between border-b border-line py-1">
      <Text className="font-ui text-[14px] text-ink">{name}</Text>
      <Text className="font-ui-bold text-[14px] text-ink">{value}</Text>
    </View>
  )
}

function minutesWords(minutes: number): string {
  if (minutes < 1) return "under a minute"
  const hours = Math.floor(minutes / 60)
  const rest = Math.round(minutes % 60)
  return hours > 0 ? `${hours} h ${rest} min` : `${rest} min`
}

const ease: readonly (readonly [least: number, words: string])[] = [
  [80, "very easy"],
  [60, "plain"],
  [40, "asks for attention"],
  [20, "hard"],
  [0, "very hard"],
]

/** How much of a goal is reached, as a ring. */
function Ring({ part }: { part: number }) {
  const radius = 26
  const round = 2 * Math.PI * radius
  return (
    <svg width={64} height={64} viewBox="0 0 64 64" aria-hidden>
      <circle cx={32} cy={32} r={radius} fill="none" stroke="rgb(var(--line))" strokeWidth={6} />
      <circle
        cx={32}
        cy={32}
        r={radius}
        fill="none"
        stroke={part >= 1 ? "rgb(var(--laurel))" : "rgb(var(--murex))"}
        strokeWidth={6}
        strokeLinecap="round"
        strokeDasharray={`${Math.min(1, part) * round} ${round}`}
        transform="rotate(-90 32 32)"
      />
    </svg>
  )
}

function Goal({ words, id }: { words: number; id: string }) {
  const kept = readKept(`goal-${id}`)
  const [goal, setGoal] = useState(typeof kept === "number" && kept > 0 ? kept : 0)
  return (
    <View className="mt-3 flex-row items-center gap-3">
      {goal > 0 ? <Ring part={words / goal} /> : null}
      <View className="flex-1">
        <TextField
          label="Words to reach"
          inputMode="numeric"
          value={goal > 0 ? String(goal) : ""}
          onChange={(event) => {
            const next = Math.min(10_000_000, Number(event.target.value.replace(/\D/g, "")) || 0)
            keep(`goal-${id}`, next)
            setGoal(next)
          }}
        />
        {goal > 0 ? (
          <Text role="status" className="mt-1 font-ui text-[13px] text-ink-soft">
            {words >= goal
              ? `Reached, with ${figures.format(words - goal)} to spare`
              : `${figures.format(goal - words)} to go`}
          </Text>
        ) : null}
      </View>
    </View>
  )
}

export function CountPage() {
  const session = useSession()
  const [reach, setReach] = useState<Reach>("document")
  const [counted, setCounted] = useState(allCounted)
  const count = useCount(reach, counted)
  const { sheets, parts, english } = useDesk((s) => ({
    sheets: s.view.sheets,
    parts: s.editor !== null && namedParts(s.editor.doc).length > 0,
    english: s.editor ? documentAttrs(s.editor.doc).styles.defaults.letters.language.startsWith("en") : false,
  }))
  const level = count && english ? readingEase(count) : null
  const turn = (name: keyof Counted) => (on: boolean) => setCounted({ ...counted, [name]: on })
  return (
    <View>
      <View className="mt-3">
        <Segments label="What is counted">
          <Segment first label="Document" on={reach === "document"} onPress={() => setReach("document")} />
          {parts ? <Segment label="This part" on={reach === "part"} onPress={() => setReach("part")} /> : null}
          <Segment label="This section" on={reach === "section"} onPress={() => setReach("section")} />
          <Segment label="Selected" on={reach === "selection"} onPress={() => setReach("selection")} />
        </Segments>
      </View>
      {count ? (
        <View className="mt-2">
          <Row name="Words" value={figures.format(count.words)} />
          <Row name="Characters" value={figures.format(count.characters)} />
          <Row name="Characters without blanks" value={figures.format(count.charactersWithoutBlanks)} />
          <Row name="Sentences" value={figures.format(count.sentences)} />
          <Row name="Paragraphs" value={figures.format(count.paragraphs)} />
          {reach === "document" && sheets > 0 ? <Row name="Sheets" value={figures.format(sheets)} /> : null}
          <Row name="Time to read" value={minutesWords(readingMinutes(count))} />
          {level === null ? null : (
            <Row
              name="Ease of reading"
              value={`${level} of 100, ${ease.find(([least]) => level >= least)?.[1] ?? ""}`}
            />
          )}
        </View>
      ) : (
        <Text className="mt-3 font-ui text-[14px] text-ink-soft">
          {reach === "selection"
            ? "Nothing is selected."
            : reach === "section"
              ? "The caret stands under no heading."
              : reach === "part"
                ? "The caret stands in no part."
                : "Counting…"}
        </Text>
      )}
      {reach === "document" && count ? <Goal words={count.words} id={session.id} /> : null}
      <SectionTitle>What counts</SectionTitle>
      <Switch label="Notes" on={counted.notes} onChange={turn("notes")} />
      <Switch label="Captions" on={counted.captions} onChange={turn("captions")} />
      <Switch label="References" on={counted.references} onChange={turn("references")} />
    </View>
  )
}
