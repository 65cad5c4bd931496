import { Pressable, Text, View } from "react-native"
import { documentAttrs, styleLook } from "@biblon/core/document"
import { setStyle, styleValue } from "@biblon/core/editing"
import { faceOf } from "@biblon/core/layout/catalogue"
import { SectionTitle } from "../../ui/pieces"
import { useDesk, useSession } from "../context"

/** Samples are shown in their own look, but no larger than this, so that the list stays a list. */
const largestSample = 22

export function StructureTray() {
  const session = useSession()
  const sheet = useDesk((s) => s.editor && documentAttrs(s.editor.doc).styles)
  const current = useDesk((s) => s.editor && styleValue(s.editor))
  if (!sheet) return null
  return (
    <View>
      <SectionTitle>Styles</SectionTitle>
      <div role="listbox" aria-label="Styles" className="overflow-hidden rounded-button border border-line">
        {Object.entries(sheet.styles).map(([id, { name }], i) => {
          const { letters } = styleLook(sheet, id)
          const on = id === current
          return (
            <Pressable
              key={id}
              role="option"
              aria-selected={on}
              onPress={() => session.run(setStyle(id))}
              className={`min-h-[48px] flex-row items-center px-3 ${i === 0 ? "" : "border-t border-line"} ${on ? "bg-murex-soft" : "bg-raised hover:bg-murex-soft/50"}`}
            >
              <View className={`mr-3 h-6 w-1 rounded-full ${on ? "bg-murex" : "bg-transparent"}`} />
              <Text
                numberOfLines={1}
                className={on ? "text-murex" : "text-ink"}
                style={{ fontFamily: faceOf(letters.family, letters.bold, letters.italic), fontSize: Math.min(largestSample, letters.size * 1.2) }}
              >
                {name}
              </Text>
            </Pressable>
          )
        })}
      </div>
      <Text className="mt-3 font-ui text-[13px] leading-5 text-ink-soft">A style gives a paragraph its part in the document. Headings appear as bookmarks in the PDF.</Text>
    </View>
  )
}
