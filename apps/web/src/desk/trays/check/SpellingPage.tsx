/** A pass through the wrong words: each in its sentence, with what could be meant. */
import { useState } from "react"
import { Text, View } from "react-native"
import { useStore } from "zustand"
import { guessLanguage } from "@biblon/core/checking"
import { documentAttrs, leavesOf, textOf } from "@biblon/core/document"
import { knowWord, repairText, setLettersAt } from "@biblon/core/editing"
import { Press } from "../../../ui/bar"
import { Act, IconButton, WordButton } from "../../../ui/button"
import { Fold, Switch } from "../../../ui/choice"
import { TextField } from "../../../ui/field"
import { CaretLeft, CaretRight } from "../../../ui/icons"
import { useDesk, useSession } from "../../context"
import { languageName } from "../../languages"
import { forgetWord, learnWord, ownWords } from "../../ownWords"
import type { WrongWord } from "../../spelling"
import type { DeskSession } from "../../session"
import { useSuggestions } from "../../useSuggestions"
import { InContext } from "./InContext"
import { WordList } from "./WordList"

/** The language that the paragraph of a word plainly is in, if that is another than is said. */
function otherLanguage(session: DeskSession, { start, dictionary }: WrongWord) {
  if (!session.now) return null
  const leaves = leavesOf(session.now.doc)
  const leaf = leaves.at(start)
  const language = guessLanguage(textOf(leaves.node(leaf)))
  const said = dictionary.slice(0, 2)
  return language === null || language.startsWith(said)
    ? null
    : { language, from: leaves.start(leaf), to: leaves.end(leaf) }
}

function Current({ at, count, onNext }: { at: WrongWord; count: number; onNext: (direction: -1 | 1) => void }) {
  const session = useSession()
  const [typed, setTyped] = useState<string | null>(null)
  const suggestions = useSuggestions(at.word, at.dictionary)
  const own = session.now?.doc.textBetween(at.start, at.end) ?? at.word
  const guess = otherLanguage(session, at)
  const places = count > 1 ? session.spelling.places(at.word) : [at]
  const replace = (text: string, all: boolean) => {
    const repairs = (all ? places : [at]).map(({ start, end }) => ({ from: start, to: end, text }))
    session.run(repairText(repairs, all ? `“${own}” everywhere` : `“${own}” put right`))
    onNext(1)
  }
  const instead = typed ?? ""
  return (
    <View className="mt-3 rounded-tray border border-line bg-raised p-3">
      <InContext at={at} look="text-madder" />
      {guess ? (
        <View className="mt-2 flex-row">
          <WordButton
            label={`This paragraph is ${languageName(guess.language.split("-")[0] ?? guess.language)}`}
            onPress={() => {
              session.run(setLettersAt("language", guess.language, guess.from, guess.to))
              onNext(1)
            }}
          />
        </View>
      ) : null}
      <View className="mt-2 flex-row flex-wrap gap-2" role="group" aria-label="What could be meant">
        {suggestions === null ? (
          <Text className="font-ui text-[14px] text-ink-soft">Looking it up…</Text>
        ) : suggestions.length === 0 ? (
          <Text className="font-ui text-[14px] text-ink-soft">Nothing like it is in the dictionary.</Text>
        ) : (
          suggestions.map((word) => <WordButton key={word} narrow label={word} onPress={() => replace(word, false)} />)
        )}
      </View>
      <View className="mt-2 flex-row items-end gap-2">
        <View className="min-w-0 flex-1">
          <TextField
            label="Or write it yourself"
            value={instead}
            onChange={(event) => setTyped(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === "Enter" && instead) replace(instead, false)
            }}
          />
        </View>
        <WordButton narrow label="Put in" disabled={!instead} onPress={() => replace(instead, false)} />
      </View>
      {places.length > 1 && (instead || suggestions?.[0]) ? (
        <View className="mt-2 flex-row">
          <WordButton
            label={`“${instead || suggestions?.[0]}” ${places.length === 2 ? "in both places" : `in all ${places.length} places`}`}
            onPress={() => replace(instead || (suggestions?.[0] ?? ""), true)}
          />
        </View>
      ) : null}
      <View className="mt-1 flex-row flex-wrap">
        <Act
          label="Leave it here"
          onPress={() => {
            session.run(setLettersAt("language", "zxx", at.start, at.end))
            onNext(1)
          }}
        />
        <Act
          label="Right in this document"
          onPress={() => {
            session.run(knowWord(at.word, true))
            onNext(1)
          }}
        />
        <Act
          label="Learn it"
          onPress={() => {
            learnWord(at.word)
            onNext(1)
          }}
        />
      </View>
    </View>
  )
}

function Known() {
  const session = useSession()
  const learned = useStore(ownWords, (s) => s.words)
  const here = useDesk((s) => (s.editor ? documentAttrs(s.editor.doc).checks.known : null))
  const [typed, setTyped] = useState("")
  const add = () => {
    if (typed.trim()) learnWord(typed.trim())
    setTyped("")
  }
  const words = Object.keys(here ?? {})
  return (
    <Fold title="Words that are right">
      <View className="flex-row items-end gap-2">
        <View className="min-w-0 flex-1">
          <TextField
            label="A name or word of yours"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === "Enter") add()
            }}
          />
        </View>
        <WordButton narrow label="Learn" disabled={!typed.trim()} onPress={add} />
      </View>
      <Text className="font-ui text-[13px] leading-5 text-ink-soft">
        With a capital it is a name, and right with its capital only; in small letters it may begin a sentence, too.
      </Text>
      {learned.size > 0 ? <WordList title="Yours, on this device" words={[...learned]} onForget={forgetWord} /> : null}
      {words.length > 0 ? (
        <WordList title="In this document" words={words} onForget={(word) => void session.run(knowWord(word, false))} />
      ) : null}
    </Fold>
  )
}

export function SpellingPage() {
  const session = useSession()
  const { spelling } = session
  const { on, found, missing } = useStore(spelling.store)
  // The word one is at is the one with the caret.
  const at = useDesk((s) => (s.editor && found ? spelling.at(s.editor.selection.from) : null))
  const sum = [...(found?.values() ?? [])].reduce((all, own) => all + own, 0)
  const go = (direction: -1 | 1, word: string | null = null) => void spelling.go(direction, word)
  return (
    <View>
      <View className="mt-2 flex-row items-center justify-between">
        <Text role="status" className="font-ui text-[14px] text-ink">
          {!on
            ? "Spelling is not looked at."
            : found === null
              ? "Looking the words up…"
              : sum === 0
                ? "No word looks wrong."
                : `${sum} ${sum === 1 ? "word looks" : "words look"} wrong.`}
        </Text>
        <View className="flex-row">
          <IconButton name="The word before" icon={CaretLeft} disabled={sum === 0} onPress={() => go(-1)} />
          <IconButton name="The next word" icon={CaretRight} disabled={sum === 0} onPress={() => go(1)} />
        </View>
      </View>
      {at ? <Current key={at.start} at={at} count={found?.get(at.word) ?? 1} onNext={go} /> : null}
      {found && found.size > 0 ? (
        <View role="list" aria-label="Words that look wrong" className="mt-2">
          {[...found].slice(0, 200).map(([word, count]) => (
            <div key={word} role="listitem">
              <Press
                onClick={() => go(1, word)}
                className={`flex min-h-[44px] w-full items-center justify-between rounded-button px-2 text-left hover:bg-murex-soft/50 wide:min-h-[32px] ${at?.word === word ? "bg-murex-soft" : ""}`}
              >
                <span className="truncate font-ui text-[14px] text-ink">{word}</span>
                <span className="font-ui text-[13px] text-ink-soft">{count > 1 ? `${count} times` : ""}</span>
              </Press>
            </div>
          ))}
        </View>
      ) : null}
      {missing.length > 0 ? (
        <Text role="alert" className="mt-2 font-ui text-[13px] text-madder">
          {`A dictionary could not be had (${missing.join(", ")}). Its words are looked at once the server is reached again.`}
        </Text>
      ) : null}
      <Known />
      <View className="mt-2">
        <Switch label="Mark words while I write" on={on} onChange={(next) => spelling.turn(next)} />
      </View>
    </View>
  )
}
