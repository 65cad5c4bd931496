import { Text, View } from "react-native"
import { textOf } from "@biblon/core/document"
import { Press } from "../../ui/bar"
import { SectionTitle } from "../../ui/choice"
import { leafOf } from "../brought"
import { useDesk, useSession } from "../context"

/** So many places of one thing are listed. */
const mostShown = 30

/** What was left out of the file that the document was made of, each with the way to its place. */
export function BroughtTray() {
  const session = useSession()
  const brought = useDesk((s) => s.brought)
  if (!brought || brought.left.length === 0)
    return (
      <Text className="mt-3 font-ui text-[14px] leading-5 text-ink-soft">
        Here stands what was left out of a file, or taken in otherwise, as long as the document is open that was made of
        it.
      </Text>
    )
  return (
    <View>
      <Text className="mt-3 font-ui text-[14px] leading-5 text-ink">
        {`${brought.file} was brought in. The file itself is as it was; this is not in the document, or is there otherwise:`}
      </Text>
      {brought.left.map(({ what, count, places }) => (
        <View key={what}>
          <SectionTitle>{`${what[0]?.toUpperCase()}${what.slice(1)} (${count})`}</SectionTitle>
          {places.slice(0, mostShown).map((place) => (
            <Press
              key={place.leaf}
              onClick={() => session.now && session.going.toLeaf(leafOf(session.now.doc, place))}
              className="flex min-h-[44px] w-full items-center rounded-button px-2 text-left hover:bg-murex-soft/50 wide:min-h-[34px]"
            >
              <span className="truncate font-ui text-[14px] text-ink">
                {textOf(place.node).trim() || "(a paragraph without text)"}
              </span>
            </Press>
          ))}
          {places.length > mostShown ? (
            <Text className="px-2 font-ui text-[13px] text-ink-soft">{`and ${places.length - mostShown} more places`}</Text>
          ) : null}
        </View>
      ))}
    </View>
  )
}
