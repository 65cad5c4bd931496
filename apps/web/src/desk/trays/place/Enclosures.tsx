import { Text, View } from "react-native"
import { enclosuresOf, sizeWords } from "@biblon/core/document"
import { insertFieldOf } from "@biblon/core/editing"
import { Press } from "../../../ui/bar"
import { Act, wordLook } from "../../../ui/button"
import { SectionTitle } from "../../../ui/choice"
import { FilePress } from "../../../ui/FilePress"
import { useDesk, useSession } from "../../context"

/** Files that go along: put in at the caret, listed, and told of in a line of the text. */
export function Enclosures() {
  const session = useSession()
  const doc = useDesk((s) => s.editor?.doc)
  const found = doc ? enclosuresOf(doc) : []
  const tell = (format: string) => {
    session.run(insertFieldOf("enclosures", format, "Line of the enclosures"))
    session.focus()
  }
  return (
    <>
      <SectionTitle>Enclosures</SectionTitle>
      <FilePress label="File to enclose" accept="" className={wordLook} onFile={(file) => session.enclosing.add(file)}>
        Enclose a file
      </FilePress>
      {found.length === 0 ? (
        <Text className="font-ui text-[13px] leading-5 text-ink-soft">
          It is named at the caret, and goes along in the PDF and in what is sent.
        </Text>
      ) : (
        <>
          <View role="list" aria-label="Enclosed files">
            {found.map(({ pos, enclosure }) => (
              <View role="listitem" key={pos} className="flex-row items-center">
                <Press
                  onClick={() => session.going.toRange(pos, pos + 1)}
                  className="flex min-h-[44px] min-w-0 flex-1 flex-col items-start justify-center rounded-button px-2 text-left hover:bg-murex-soft/50 wide:min-h-[36px]"
                >
                  <span className="w-full truncate font-ui text-[14px] text-ink">{enclosure.name}</span>
                </Press>
                <Text className="font-ui text-[13px] text-ink-soft">{sizeWords(enclosure.size, "en-GB")}</Text>
                <Act label="Save" onPress={() => void session.enclosing.save(enclosure)} />
              </View>
            ))}
          </View>
          <View className="flex-row flex-wrap">
            <Act label="Put in their names" onPress={() => tell("names")} />
            <Act label="Put in how many" onPress={() => tell("")} />
          </View>
        </>
      )}
    </>
  )
}
