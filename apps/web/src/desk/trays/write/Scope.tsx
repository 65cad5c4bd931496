/** What the Write tray shapes: the text here, everything in its style, or all headings. */
import { View } from "react-native"
import {
  chainIds,
  documentAttrs,
  headingsStyle,
  styleOf,
  type LetterFormat,
  type LetterProperty,
  type ParagraphFormat,
} from "@biblon/core/document"
import {
  changeStyleFamily,
  eachFormatted,
  eachLetters,
  formatOfStyle,
  styleValue,
  setParagraphs,
  setLetters,
  type Command,
} from "@biblon/core/editing"
import { Segment, Segments } from "../../../ui/choice"
import { useDesk, useSession } from "../../context"

interface Reach {
  /** The style of the text here. */
  at: string | undefined
  /** Keys of the styles that can be shaped as a whole, with what they are called here. */
  styles: (readonly [key: string, name: string])[]
  /** The one that is chosen; null for the text here. */
  chosen: string | null
}

function useReach(): Reach {
  const { key, name, heading, scope } = useDesk(({ editor, scope }) => {
    const key = editor ? styleValue(editor) : undefined
    const sheet = editor && documentAttrs(editor.doc).styles
    return {
      key,
      name: (sheet && key && styleOf(sheet, key)?.name) ?? "",
      heading:
        sheet !== null && key !== undefined && key !== headingsStyle && chainIds(sheet, key).includes(headingsStyle),
      scope,
    }
  })
  const styles: Reach["styles"] =
    key === undefined ? [] : [[key, `All ${name}`], ...(heading ? [[headingsStyle, "All headings"] as const] : [])]
  return { at: key, styles, chosen: scope !== null && scope.at === key ? scope.of : null }
}

/** Commands that shape what was chosen. */
export function useShaping() {
  const { chosen } = useReach()
  return {
    chosen,
    set: <K extends LetterProperty>(property: K, value: LetterFormat[K]): Command =>
      chosen === null ? setLetters(property, value) : changeStyleFamily(chosen, { letters: { [property]: value } }),
    step: <K extends LetterProperty>(
      property: K,
      next: (value: LetterFormat[K]) => LetterFormat[K],
      name: string,
    ): Command =>
      chosen === null
        ? eachLetters(property, next, name)
        : (state, dispatch) =>
            changeStyleFamily(chosen, {
              letters: { [property]: next(formatOfStyle(state, chosen).letters[property]) },
            })(state, dispatch),
    paragraph: (format: Partial<ParagraphFormat>): Command =>
      chosen === null ? setParagraphs(format) : changeStyleFamily(chosen, { paragraph: format }),
    stepParagraph: (next: (now: ParagraphFormat) => Partial<ParagraphFormat>, name: string): Command =>
      chosen === null
        ? eachFormatted(next, name)
        : (state, dispatch) =>
            changeStyleFamily(chosen, { paragraph: next(formatOfStyle(state, chosen).paragraph) })(state, dispatch),
  }
}

export function Scope() {
  const session = useSession()
  const { at, styles, chosen } = useReach()
  if (at === undefined) return null
  const choose = (of: string | null) => session.store.setState({ scope: of === null ? null : { at, of } })
  return (
    <View className="mt-3">
      <Segments label="What is shaped">
        <Segment first label="Here" on={chosen === null} onPress={() => choose(null)} />
        {styles.map(([key, name]) => (
          <Segment key={key} label={name} on={chosen === key} onPress={() => choose(key)} />
        ))}
      </Segments>
    </View>
  )
}
