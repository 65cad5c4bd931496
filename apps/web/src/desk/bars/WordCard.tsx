import { useEffect, useState } from "react"
import { Text, View } from "react-native"
import { knowWord, repairText, setLettersAt } from "@biblon/core/editing"
import { Press } from "../../ui/bar"
import { Act } from "../../ui/button"
import { useDesk, useSession } from "../context"
import { learnWord } from "../ownWords"
import type { WrongWord } from "../spelling"
import type { Pressed } from "../store"
import { useSuggestions } from "../useSuggestions"
import { FloatingCard } from "./FloatingCard"

const width = 280
/** A card that comes before its words would grow under the pointer; most are there within so many milliseconds. */
const patience = 300

function Suggestions({ at, box }: { at: WrongWord; box: Pressed["box"] }) {
  const session = useSession()
  const suggestions = useSuggestions(at.word, at.dictionary)
  const [late, setLate] = useState(false)
  useEffect(() => {
    const timer = setTimeout(() => setLate(true), patience)
    return () => clearTimeout(timer)
  }, [])
  if (suggestions === null && !late) return null
  const act = (what: () => void) => () => {
    what()
    session.pressing.end()
  }
  return (
    <FloatingCard label={`Spelling of ${at.word}`} by={box} width={width}>
      <View className="p-1">
        {suggestions === null || suggestions.length === 0 ? (
          <Text className="px-3 py-2 font-ui text-[14px] text-ink-soft">
            {suggestions === null ? "Looking it up…" : "Nothing like it is in the dictionary."}
          </Text>
        ) : (
          suggestions.slice(0, 5).map((word) => (
            <Press
              key={word}
              onClick={act(
                () =>
                  void session.run(repairText([{ from: at.start, to: at.end, text: word }], `“${at.word}” put right`)),
              )}
              className="flex h-11 w-full items-center rounded-button px-3 text-left font-ui-bold text-[15px] text-ink hover:bg-murex-soft/50 wide:h-9"
            >
              {word}
            </Press>
          ))
        )}
      </View>
      <View className="flex-row flex-wrap border-t border-line p-1">
        <Act
          label="Leave it here"
          onPress={act(() => void session.run(setLettersAt("language", "zxx", at.start, at.end)))}
        />
        <Act label="Right in this document" onPress={act(() => void session.run(knowWord(at.word, true)))} />
        <Act label="Learn it" onPress={act(() => learnWord(at.word))} />
        <Act label="All words" onPress={act(() => session.opening.tray("check", "spelling"))} />
      </View>
    </FloatingCard>
  )
}

/** What could be meant by a wrong word that was pressed. */
export function WordCard({ pos, box }: Pressed) {
  const session = useSession()
  const at = useDesk((s) => (s.editor ? session.spelling.at(pos) : null))
  if (!at) return null
  return <Suggestions key={at.start} at={at} box={box} />
}
