import { Text, View } from "react-native"
import { IconButton } from "../../../ui/button"
import { SectionTitle } from "../../../ui/choice"
import { X } from "../../../ui/icons"

/** Words that somebody has said something of, each to be forgotten. */
export function WordList({
  title,
  words,
  forget = "Forget",
  shown = (word) => word,
  onForget,
}: {
  title: string
  words: readonly string[]
  /** What the button is called that takes a word out. */
  forget?: string
  shown?: (word: string) => string
  onForget: (word: string) => void
}) {
  return (
    <>
      <SectionTitle>{title}</SectionTitle>
      <View role="list" aria-label={title} className="flex-row flex-wrap gap-1.5">
        {words.map((word) => (
          <View
            role="listitem"
            key={word}
            className="flex-row items-center rounded-button border border-line bg-raised pl-2.5"
          >
            <Text className="font-ui text-[14px] text-ink">{shown(word)}</Text>
            <IconButton
              name={`${forget} ${shown(word)}`}
              icon={X}
              onPress={() => onForget(word)}
              className="h-11 w-9 wide:h-8 wide:w-7"
            />
          </View>
        ))}
      </View>
    </>
  )
}
