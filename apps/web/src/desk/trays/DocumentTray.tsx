import { Text, View } from "react-native"
import { documentAttrs, type LetterFormat, type Typesetting } from "@biblon/core/document"
import { changeDefaults, setTypesetting } from "@biblon/core/editing"
import { patternsFor } from "@biblon/core/layout"
import { families } from "@biblon/core/layout/catalogue"
import { Choice, SectionTitle, Segment, Segments, Switch } from "../../ui/choice"
import { NumberField } from "../../ui/field"
import { units, useUnit, type Unit } from "../../ui/units"
import { useDesk, useSession } from "../context"
import { languageName, languageOptions } from "../languages"

const unitNames: Record<Unit, string> = { cm: "cm", mm: "mm", in: "in", pt: "pt" }

function Face({
  label,
  property,
  kinds,
}: {
  label: string
  property: "family" | "familyEastAsian" | "familyComplex"
  kinds: readonly string[]
}) {
  const session = useSession()
  const { value, own } = useDesk(({ editor }) => ({
    value: editor ? documentAttrs(editor.doc).styles.defaults.letters[property] : undefined,
    own: editor ? Object.keys(documentAttrs(editor.doc).styles.fonts).join("\n") : "",
  }))
  const names = [
    ...families.filter(({ kind }) => kinds.includes(kind)).map(({ name }) => name),
    ...own.split("\n").filter(Boolean),
  ]
  return (
    <Choice
      label={label}
      value={value}
      options={names.map((name) => [name, name] as const)}
      onChange={(name) =>
        session.run(changeDefaults({ letters: { [property]: name } as Partial<LetterFormat> }, `${label}: ${name}`))
      }
    />
  )
}

function Limit({
  label,
  property,
  min,
  max,
}: {
  label: string
  property: "word" | "before" | "after" | "inRow"
  min: number
  max: number
}) {
  const session = useSession()
  const hyphenation = useDesk(({ editor }) => (editor ? documentAttrs(editor.doc).typesetting.hyphenation : null))
  return (
    <View className="flex-1 gap-1">
      <Text className="font-ui text-[13px] text-ink-soft">{label}</Text>
      <NumberField
        label={label}
        value={hyphenation?.[property]}
        min={min}
        max={max}
        step={(n, d) => n + d}
        onChange={(n) =>
          hyphenation && session.run(setTypesetting({ hyphenation: { ...hyphenation, [property]: Math.round(n) } }))
        }
      />
    </View>
  )
}

function Breaking() {
  const session = useSession()
  const { breaking, hyphenation, hyphenate, language } = useDesk(({ editor }) => {
    const attrs = editor ? documentAttrs(editor.doc) : null
    const { breaking, hyphenation } = attrs?.typesetting ?? {}
    return {
      breaking,
      hyphenation,
      hyphenate: attrs?.styles.defaults.paragraph.hyphenate === true,
      language: attrs?.styles.defaults.letters.language ?? "en-GB",
    }
  })
  const set = (change: Partial<Typesetting>) => session.run(setTypesetting(change))
  return (
    <>
      <SectionTitle>Line breaking</SectionTitle>
      <Segments label="How lines are broken">
        <Segment first label="Line by line" on={breaking === "quick"} onPress={() => set({ breaking: "quick" })} />
        <Segment label="Whole paragraph" on={breaking === "whole"} onPress={() => set({ breaking: "whole" })} />
      </Segments>
      <Text className="mt-1 font-ui text-[13px] leading-5 text-ink-soft">
        The whole paragraph at once gives justified text more even spaces; lines above the one you type in may then
        move.
      </Text>
      <SectionTitle>Hyphens</SectionTitle>
      <Switch
        label="Divide words at the end of lines"
        on={hyphenate}
        onChange={(on) =>
          session.run(changeDefaults({ paragraph: { hyphenate: on } }, on ? "Hyphenation" : "No hyphenation"))
        }
      />
      {patternsFor(language) === null ? (
        <Text className="font-ui text-[13px] leading-5 text-ochre">{`Words in ${languageName(language)} are not divided: no rules for it ship with Biblon.`}</Text>
      ) : null}
      <View className="mt-2 flex-row gap-3">
        <Limit label="Shortest word" property="word" min={2} max={30} />
        <Limit label="Hyphens in a row" property="inRow" min={1} max={20} />
      </View>
      <View className="mt-2 flex-row gap-3">
        <Limit label="Letters before" property="before" min={1} max={15} />
        <Limit label="Letters after" property="after" min={1} max={15} />
      </View>
      <Switch
        label="Divide words with a capital too"
        on={hyphenation?.capitals === true}
        onChange={(capitals) => hyphenation && set({ hyphenation: { ...hyphenation, capitals } })}
      />
    </>
  )
}

/** What holds for the whole document, and the unit in which this person measures. */
export function DocumentTray() {
  const session = useSession()
  const { unit, choose } = useUnit()
  const language = useDesk(({ editor }) =>
    editor ? documentAttrs(editor.doc).styles.defaults.letters.language : undefined,
  )
  return (
    <View>
      <SectionTitle>Language</SectionTitle>
      <Choice
        label="Language of the document"
        value={language}
        options={languageOptions(language)}
        onChange={(tag) => session.run(changeDefaults({ letters: { language: tag } }, `Language ${languageName(tag)}`))}
      />
      <Text className="mt-1 font-ui text-[13px] leading-5 text-ink-soft">
        It decides about hyphens, quotation marks, dates and decimal tabs. A passage can have another one: Write,
        Letters.
      </Text>
      <SectionTitle>Typefaces unless a style says otherwise</SectionTitle>
      <View className="gap-2">
        <Face label="Text" property="family" kinds={["serif", "sans", "mono", "hand"]} />
        <Face label="Chinese, Japanese and Korean" property="familyEastAsian" kinds={["eastAsian"]} />
        <Face label="Arabic, Hebrew, Thai and others" property="familyComplex" kinds={["complex"]} />
      </View>
      <Breaking />
      <SectionTitle>Measure in</SectionTitle>
      <Segments label="Unit of length">
        {(Object.keys(units) as Unit[]).map((own, i) => (
          <Segment key={own} first={i === 0} label={unitNames[own]} on={own === unit} onPress={() => choose(own)} />
        ))}
      </Segments>
    </View>
  )
}
