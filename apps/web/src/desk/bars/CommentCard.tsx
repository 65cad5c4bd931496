import { Text, View } from "react-native"
import { commentsAt, type PlacedComment } from "@biblon/core/document"
import { removeComment } from "@biblon/core/editing"
import { Act } from "../../ui/button"
import { useDesk, useSession } from "../context"
import type { Pressed } from "../store"
import { FloatingCard } from "./FloatingCard"

const width = 300
const moment = new Intl.DateTimeFormat("en-GB", { dateStyle: "long" })

/** By whom and when, as far as it is known. */
function saidBy({ author, at }: PlacedComment): string {
  const time = Date.parse(at)
  return [author || "Somebody", ...(Number.isNaN(time) ? [] : [moment.format(time)])].join(", ")
}

/** What was said of the passage that was pressed. */
export function CommentCard({ pos, box }: Pressed) {
  const session = useSession()
  const doc = useDesk((s) => s.editor?.doc ?? null)
  const said = doc ? commentsAt(doc, pos) : []
  if (said.length === 0) return null
  return (
    <FloatingCard label="Comment" by={box} width={width}>
      <div className="flex max-h-[260px] flex-col overflow-y-auto">
        {said.map((comment) => (
          <View key={comment.key} className="gap-1 border-b border-line p-3 last:border-b-0">
            <Text className="font-ui-bold text-[13px] text-ink">{saidBy(comment)}</Text>
            <Text className="whitespace-pre-wrap font-ui text-[14px] leading-5 text-ink">{comment.text}</Text>
            <View className="-ml-3 flex-row">
              <Act
                label="Take away"
                onPress={() => {
                  session.run(removeComment(comment.key))
                  session.pressing.end()
                }}
              />
            </View>
          </View>
        ))}
      </div>
    </FloatingCard>
  )
}
