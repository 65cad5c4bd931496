/** A word or phrase looked up beside the text: what it means, and what a library holds of it. */
import { useEffect, useState } from "react"
import { Text, View } from "react-native"
import { textOf, type Source } from "@biblon/core/document"
import { repairText, wordAround } from "@biblon/core/editing"
import type { EditorState } from "prosemirror-state"
import type { LibraryMood, Meaning, Work } from "@biblon/wire"
import { api } from "../../../api"
import { Press } from "../../../ui/bar"
import { Chip, wordLook } from "../../../ui/button"
import { Fold, PageTabs, Segment, Segments } from "../../../ui/choice"
import { TextField } from "../../../ui/field"
import { useDesk, useSession } from "../../context"
import { addSources, quote } from "../place/sources/citing"
import { blankSource } from "../place/sources/SourceForm"
import { useAnswer, type Answer } from "./useAnswer"

const pages = [
  ["words", "Words"],
  ["library", "Library"],
] as const
type Page = (typeof pages)[number][0]

/** So many letters of a selection are looked up. */
const longest = 80

/** The word at the caret or the words that are selected, with where they stand. */
function wordsHere({ doc, selection }: EditorState): { text: string; from: number; to: number } {
  const { $head, empty } = selection
  if (!empty) {
    // What is selected may be the whole of a long document.
    const { from, to } = selection
    const text = to - from > longest * 10 ? "" : doc.textBetween(from, to, " ").trim()
    return { text: text.length <= longest ? text : "", from, to }
  }
  if (!$head.parent.isTextblock) return { text: "", from: $head.pos, to: $head.pos }
  const { from, to } = wordAround(textOf($head.parent), $head.parentOffset)
  const text = textOf($head.parent).slice(from, to)
  return { text: /\p{L}/u.test(text) ? text : "", from: $head.start() + from, to: $head.start() + to }
}

/** A word that takes the place of another begins as that does. */
const likeCase = (word: string, before: string) =>
  /^\p{Lu}/u.test(before) ? word.slice(0, 1).toUpperCase() + word.slice(1) : word

function MeaningRow({ meaning, onTake }: { meaning: Meaning; onTake: (word: string) => void }) {
  return (
    <View role="listitem" className="border-b border-line py-2">
      <Text className="font-ui text-[14px] leading-5 text-ink">
        <Text className="font-ui text-ink-soft">{`${meaning.part}  `}</Text>
        {meaning.sense}
      </Text>
      {meaning.examples[0] ? (
        <Text className="font-ui text-[13px] italic leading-5 text-ink-soft">{`“${meaning.examples[0]}”`}</Text>
      ) : null}
      {meaning.words.length > 0 ? (
        <View className="mt-1 flex-row flex-wrap gap-1">
          {meaning.words.map((word) => (
            <Chip key={word} label={word} on={false} onPress={() => onTake(word)} />
          ))}
        </View>
      ) : null}
    </View>
  )
}

function Words({ asked }: { asked: string }) {
  const session = useSession()
  const { answer, waiting } = useAnswer(asked, api.meanings, 0)
  const take = (word: string) => {
    const { now } = session
    const here = now && wordsHere(now)
    if (!here?.text) return
    session.run(
      repairText([{ from: here.from, to: here.to, text: likeCase(word, here.text) }], `“${here.text}” replaced`),
    )
    session.focus()
  }
  return (
    <>
      <Status
        asked={asked}
        answer={answer}
        waiting={waiting}
        before="Put the caret into a word, or type one above."
        nothing={(of) => `Nothing is known of “${of}”. The words here are English.`}
        count={answer?.found?.meanings.length}
      />
      <View role="list" aria-label="Meanings">
        {answer?.found?.meanings.map((meaning, i) => (
          <MeaningRow key={i} meaning={meaning} onTake={take} />
        ))}
      </View>
    </>
  )
}

/** What there is to say beside what was found: how to ask, that it is asked, that it is in vain. */
function Status({
  asked,
  answer,
  waiting,
  before,
  nothing,
  count,
}: {
  asked: string
  answer: Answer<unknown> | null
  waiting: boolean
  /** Said before anything is asked. */
  before: string
  nothing: (of: string) => string
  /** How much was found. */
  count: number | undefined
}) {
  const problem = answer?.problem ?? null
  const words = asked === "" ? before : answer && count === 0 ? nothing(answer.of) : ""
  const said = waiting ? "Looking…" : (problem ?? words)
  return said ? (
    <Text
      role="status"
      className={`mt-2 font-ui text-[14px] leading-5 ${problem && !waiting ? "text-madder" : "text-ink-soft"}`}
    >
      {said}
    </Text>
  ) : null
}

function sourceOfWork({
  kind,
  authors,
  title,
  year,
  publisher,
  place,
  journal,
  volume,
  issue,
  pages: at,
}: Work): Source {
  const fields = Object.entries({
    title,
    publisher,
    "publisher-place": place,
    "container-title": journal,
    volume,
    issue,
    page: at,
  }).filter(([, value]) => value !== undefined && value !== "")
  return {
    ...blankSource,
    kind,
    names: { author: authors },
    fields: Object.fromEntries(fields) as Source["fields"],
    issued: String(year),
  }
}

function WorkRow({ work }: { work: Work }) {
  const session = useSession()
  const take = (words: string, page: string) => {
    const [source] = addSources(session, [{ key: null, source: sourceOfWork(work) }]).keys
    if (source !== undefined) quote(session, source, words, page)
  }
  const { authors, year, title, journal, publisher } = work
  return (
    <View role="listitem" className="border-b border-line py-2">
      <Text className="font-ui-bold text-[14px] leading-5 text-ink">{title}</Text>
      <Text className="font-ui text-[13px] leading-5 text-ink-soft">
        {`${authors.map(({ family, given }) => `${given} ${family}`).join(" and ")}, ${year}, ${journal ?? publisher ?? ""}`}
      </Text>
      {work.passages.map(({ words, page }) => (
        <Press
          key={words}
          aria-label={`Quote: ${words}`}
          onClick={() => take(words, page)}
          className="mt-1 flex min-h-[44px] w-full flex-col justify-center rounded-button border-l-2 border-line px-2 py-1 text-left hover:bg-murex-soft/50"
        >
          <span className="font-ui text-[14px] leading-5 text-ink">{`“${words}”`}</span>
          <span className="font-ui text-[13px] text-murex">{`Quote it, page ${page}`}</span>
        </Press>
      ))}
    </View>
  )
}

const moods: readonly (readonly [LibraryMood, string])[] = [
  ["well", "Well"],
  ["slow", "Slowly"],
  ["silent", "Not at all"],
]

function LibraryPage({ asked }: { asked: string }) {
  const [again, setAgain] = useState(0)
  const { answer, waiting } = useAnswer(asked, api.works, again)
  const [mood, setMood] = useState<LibraryMood>("well")
  const known = answer?.found?.mood
  useEffect(() => {
    if (known) setMood(known)
  }, [known])
  const provoke = (next: LibraryMood) => {
    setMood(next)
    void api.setLibraryMood(next).then(
      () => setAgain((n) => n + 1),
      () => undefined,
    )
  }
  return (
    <>
      <Status
        asked={asked}
        answer={answer}
        waiting={waiting}
        before="Type a subject, a name or a year."
        nothing={(of) => `The library holds nothing of “${of}”.`}
        count={answer?.found?.found.length}
      />
      {answer?.problem && !waiting ? (
        <Press className={wordLook} onClick={() => setAgain((n) => n + 1)}>
          Ask again
        </Press>
      ) : null}
      <View role="list" aria-label="In the library">
        {answer?.found?.found.map((work) => (
          <WorkRow key={work.id} work={work} />
        ))}
      </View>
      <Fold title="A library to practise with">
        <Text className="mb-2 font-ui text-[13px] leading-5 text-ink-soft">
          Its articles and books are made up. Here one can have it answer:
        </Text>
        <Segments label="How the library answers">
          {moods.map(([id, label], i) => (
            <Segment key={id} first={i === 0} label={label} on={mood === id} onPress={() => provoke(id)} />
          ))}
        </Segments>
      </Fold>
    </>
  )
}

export function LookUpTray() {
  const session = useSession()
  const page = useDesk((s) => (s.pages.lookup ?? "words") as Page)
  const here = useDesk(({ editor }) => (editor ? wordsHere(editor).text : ""))
  const [typed, setTyped] = useState<string | null>(null)
  // What is typed counts until the caret goes to another word.
  useEffect(() => setTyped(null), [here])
  const asked = (typed ?? here).trim()
  return (
    <View>
      <PageTabs label="Look up" pages={pages} page={page} onChoose={(next) => session.opening.tray("lookup", next)} />
      <View className="mt-3">
        <TextField
          label="Look up"
          value={typed ?? here}
          maxLength={longest}
          onChange={(event) => setTyped(event.target.value)}
        />
      </View>
      {page === "words" ? <Words asked={asked} /> : <LibraryPage asked={asked} />}
      {page === "words" ? (
        <Text className="mt-3 font-ui text-[12px] leading-4 text-ink-soft">
          Meanings from the lexical database of Princeton University.
        </Text>
      ) : null}
    </View>
  )
}
