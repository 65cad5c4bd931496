import { useRef } from "react"
import { View } from "react-native"
import { documentAttrs, limits, type Watermark as Words } from "@biblon/core/document"
import { families } from "@biblon/core/layout/catalogue"
import { WordButton } from "../../../ui/button"
import { Choice, SectionTitle } from "../../../ui/choice"
import { useTyped } from "../../../ui/typed"
import { useDesk } from "../../context"
import { trying } from "../../trying"
import { PictureFile } from "../PictureFile"
import { Colours, inks } from "../write/Colours"
import { Slide } from "../write/Slide"
import { useSetup } from "./useSetup"
import { Press } from "../../../ui/bar"
import { TextField } from "../../../ui/field"

const usual: Words = { text: "Draft", family: "Literata", size: 120, angle: 45, colour: "#7a1f4b", strength: 0.15 }
const offered = ["Draft", "Copy", "In confidence"]

/** Words, or a picture, behind the text. */
export function Watermark() {
  const { session, setup, change, command } = useSetup()
  const file = useRef<HTMLInputElement>(null)
  const watermark = setup?.watermark ?? null
  const own = useDesk(({ editor }) => (editor ? Object.keys(documentAttrs(editor.doc).styles.fonts).join("\n") : ""))
  const made = (part: Partial<Words>) =>
    command((now) => ({ ...now, watermark: { ...usual, ...now.watermark, ...part } }), "Watermark")
  const put = (part: Partial<Words> | null) =>
    change(
      (now) => ({ ...now, watermark: part && { ...usual, ...now.watermark, ...part } }),
      part ? "Watermark" : "No watermark",
    )
  const typed = useTyped(watermark?.text ?? "", (text) => put(text.trim() === "" ? null : { text: text.trim() }))
  return (
    <>
      <SectionTitle>Watermark</SectionTitle>
      <TextField
        quiet
        label="Words behind the text"
        placeholder="Words behind the text"
        maxLength={limits.watermark}
        {...typed}
      />
      <View className="flex-row gap-2">
        {offered.map((text) => (
          <Press
            key={text}
            type="button"
            aria-pressed={watermark?.text === text}
            className={`h-11 min-w-0 flex-1 rounded-button border border-line px-1 text-[14px] wide:h-9 ${watermark?.text === text ? "bg-murex-soft font-ui-bold text-murex" : "bg-raised font-ui text-ink hover:bg-murex-soft/50"}`}
            {...trying(session, made({ text }))}
          >
            {text}
          </Press>
        ))}
      </View>
      <View className="flex-row">
        <WordButton
          label={watermark?.picture ? "Words in place of the picture" : "A picture behind the text"}
          onPress={() => {
            if (!watermark?.picture) return file.current?.click()
            const { picture: _gone, ...words } = watermark
            change((now) => ({ ...now, watermark: words }), "Watermark")
          }}
        />
      </View>
      <PictureFile
        field={file}
        label="Picture behind the text"
        onFiles={([chosen]) => {
          if (chosen)
            void session.picturing
              .upload(chosen)
              .then((source) => source && put({ picture: { asset: source.asset, pixels: [...source.pixels] } }))
        }}
      />
      {watermark ? (
        <>
          <View className="flex-row gap-2">
            <Choice
              label="Typeface"
              value={watermark.family}
              options={[...families.map(({ name }) => name), ...own.split("\n").filter(Boolean)].map(
                (name) => [name, name] as const,
              )}
              onChange={(family) => put({ family })}
            />
            <WordBelow label="Take it away" onPress={() => put(null)} />
          </View>
          <Slide
            label="Size (pt), less where the sheet is too small"
            value={watermark.size}
            min={12}
            max={300}
            step={6}
            typed={limits.size}
            set={(size) => made({ size })}
          />
          <Slide
            label="Angle"
            value={watermark.angle}
            min={-90}
            max={90}
            step={5}
            typed={limits.angle}
            set={(angle) => made({ angle })}
          />
          <Slide
            label="Strength (%)"
            value={Math.round(watermark.strength * 100)}
            min={2}
            max={100}
            step={1}
            set={(strength) => made({ strength: strength / 100 })}
          />
          <Colours
            label="Colour of the words"
            value={watermark.colour}
            palette={inks}
            set={(colour) => made({ colour: colour ?? usual.colour })}
          />
        </>
      ) : null}
    </>
  )
}

/** A button beside a choice with words above it. */
function WordBelow({ label, onPress }: { label: string; onPress: () => void }) {
  return (
    <View className="flex-1 flex-row items-end">
      <WordButton label={label} onPress={onPress} />
    </View>
  )
}
