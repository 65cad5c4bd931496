import { Pressable, ScrollView, Text, View } from "react-native"
import { documentAttrs } from "@biblon/core/document"
import { styleValue } from "@biblon/core/editing"
import { Pocket } from "../../commands/Pocket"
import { ToolButton } from "../../commands/ToolButton"
import { IconButton } from "../../ui/pieces"
import { useDesk, useSession } from "../context"
import { Keyboard } from "../../ui/icons"

/** The name of the style of the selected paragraphs. */
export function useStyleName(): string {
  return useDesk(({ editor }) => {
    const id = editor && styleValue(editor)
    return (editor && id && documentAttrs(editor.doc).styles.styles[id]?.name) || "Several styles"
  })
}

/** What the bench becomes while the keyboard is up: one line of the tools that are used most. */
export function Strip() {
  const session = useSession()
  const style = useStyleName()
  return (
    <View role="toolbar" aria-label="Tools for the text" className="h-[52px] flex-row items-center border-t border-line bg-surface">
      <ScrollView horizontal keyboardShouldPersistTaps="always" showsHorizontalScrollIndicator={false} contentContainerClassName="items-center px-1" className="flex-1">
        <Pocket upright={false} />
        <Pressable accessibilityRole="button" aria-label={`Style: ${style}`} onPress={() => session.openTray("structure")} className="h-11 justify-center rounded-button px-3">
          <Text className="font-ui-bold text-[14px] text-murex">{style}</Text>
        </Pressable>
        {["bold", "italic", "underline", "link", "copy", "cut", "paste", "align-left", "align-center", "align-right", "align-justify"].map((id) => (
          <ToolButton key={id} id={id} />
        ))}
      </ScrollView>
      <View className="h-8 w-px bg-line" />
      <IconButton name="Put the keyboard away" icon={Keyboard} onPress={() => session.blur()} className="h-11 w-14" />
    </View>
  )
}
