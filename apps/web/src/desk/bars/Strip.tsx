import { ScrollView, Text, View } from "react-native"
import { documentAttrs, entryOf } from "@biblon/core/document"
import { letterValue, styleValue } from "@biblon/core/editing"
import { Pocket } from "../../commands/Pocket"
import { ToolButton } from "../../commands/ToolButton"
import { IconButton } from "../../ui/button"
import { useDesk, useSession } from "../context"
import { Keyboard } from "../../ui/icons"
import { Bar, Press } from "../../ui/bar"

/** The name of the style of the selected paragraphs. */
export function useStyleName(): string {
  return useDesk(({ editor }) => {
    const id = editor && styleValue(editor)
    return (editor && id && entryOf(documentAttrs(editor.doc).styles.styles, id)?.name) || "Several styles"
  })
}

/** What the next letter will look like: its typeface, size and colour. */
function Letters() {
  const session = useSession()
  const { family, size, colour, highlight } = useDesk(({ editor }) => ({
    family: editor ? letterValue(editor, "family") : undefined,
    size: editor ? letterValue(editor, "size") : undefined,
    colour: editor ? letterValue(editor, "colour") : undefined,
    highlight: editor ? letterValue(editor, "highlight") : undefined,
  }))
  return (
    <Press
      aria-label={`Letters: ${family ?? "several typefaces"}, ${size === undefined ? "several sizes" : `size ${size}`}`}
      onClick={() => session.opening.tray("write", "letters")}
      className="flex min-w-0 shrink-0 h-11 items-center gap-2 rounded-button px-3"
    >
      <View className="h-4 w-4 rounded-full border border-line" style={{ backgroundColor: colour }} />
      <Text
        numberOfLines={1}
        className="max-w-[120px] font-ui text-[14px] text-ink"
        style={{ backgroundColor: highlight ?? undefined }}
      >
        {`${family ?? "Several"} ${size ?? "–"}`}
      </Text>
    </Press>
  )
}

/** What the bench becomes while the keyboard is up: one line of the tools that are used most. */
export function Strip() {
  const session = useSession()
  const style = useStyleName()
  return (
    <Bar label="Tools for the text" className="h-[52px] items-center border-t border-line bg-surface">
      <ScrollView
        horizontal
        keyboardShouldPersistTaps="always"
        showsHorizontalScrollIndicator={false}
        contentContainerClassName="items-center px-1"
        className="flex-1"
      >
        <Pocket upright={false} />
        <Press
          aria-label={`Style: ${style}`}
          onClick={() => session.opening.tray("structure")}
          className="flex min-w-0 flex-col shrink-0 h-11 justify-center rounded-button px-3"
        >
          <Text className="font-ui-bold text-[14px] text-murex">{style}</Text>
        </Press>
        <Letters />
        {[
          "bold",
          "italic",
          "underline",
          "align-center",
          "select-all",
          "list-marks",
          "list-numbers",
          "level-up",
          "level-deeper",
          "align-left",
          "align-right",
          "align-justify",
          "strike",
          "link",
          "copy",
          "cut",
          "paste",
        ].map((id) => (
          <ToolButton key={id} id={id} />
        ))}
      </ScrollView>
      <View className="h-8 w-px bg-line" />
      <IconButton name="Put the keyboard away" icon={Keyboard} onPress={() => session.blur()} className="h-11 w-14" />
    </Bar>
  )
}
