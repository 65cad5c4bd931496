import { useRef, useState, type RefObject } from "react"
import { Text, View } from "react-native"
import { limits, pictureFormat, pictureSize, proportion, type PictureFormat } from "@biblon/core/document"
import { defaultBorder, pictureHere, setPicture } from "@biblon/core/editing"
import { WordButton } from "../../../../ui/button"
import { Choice, Fold, SectionTitle, Segment, Segments, Switch } from "../../../../ui/choice"
import { LengthField, NumberField } from "../../../../ui/field"
import { useDesk, useSession } from "../../../context"
import { PictureFile } from "../../PictureFile"
import { ReaderWords } from "../../ReaderWords"
import { ThicknessField } from "../../ThicknessField"
import { patterns } from "../BorderEditor"
import { ColourField } from "../Colours"
import { Wrapping } from "./Wrapping"

const shapes: readonly (readonly [PictureFormat["shape"], string])[] = [
  ["plain", "Square"],
  ["rounded", "Rounded"],
  ["round", "Round"],
  ["arch", "Arch"],
]
const tones: readonly (readonly [PictureFormat["colours"]["tone"], string])[] = [
  ["own", "Its own"],
  ["greys", "Greys"],
  ["sepia", "Brown"],
  ["tint", "Tint"],
]

/** A value from one to another, tried while it is moved and taken when it is let go. */
function Strength({
  label,
  value,
  least,
  onChange,
}: {
  label: string
  value: number
  least: number
  onChange: (value: number) => void
}) {
  const [moved, setMoved] = useState<number | null>(null)
  const shown = moved ?? value
  const take = (field: RefObject<HTMLInputElement | null>) => {
    const now = Number(field.current?.value ?? value)
    setMoved(null)
    if (now !== value) onChange(now)
  }
  const field = useRef<HTMLInputElement>(null)
  return (
    <label className="flex items-center gap-3 font-ui text-[14px] text-ink">
      <span className="w-24">{label}</span>
      <input
        ref={field}
        type="range"
        min={least}
        max={1}
        step={0.05}
        value={shown}
        onChange={(event) => setMoved(Number(event.target.value))}
        onPointerUp={() => take(field)}
        onKeyUp={() => take(field)}
        onBlur={() => take(field)}
        className="h-11 min-w-0 flex-1 accent-[rgb(var(--murex))] wide:h-8"
      />
      <span className="w-10 text-right">{Math.round(shown * 100)}</span>
    </label>
  )
}

function Colours({ colours }: Pick<PictureFormat, "colours">) {
  const session = useSession()
  const busy = useDesk((s) => s.picturing !== null)
  const change = (part: Partial<PictureFormat["colours"]>) => void session.picturing.colour(part)
  return (
    <Fold title="Colours and background">
      <Segments label="Tone of the picture">
        {tones.map(([tone, label], i) => (
          <Segment
            key={tone}
            first={i === 0}
            label={label}
            on={colours.tone === tone}
            onPress={() => change({ tone })}
          />
        ))}
      </Segments>
      <View>
        <Strength
          label="Brightness"
          value={colours.brightness}
          least={-1}
          onChange={(brightness) => change({ brightness })}
        />
        <Strength label="Contrast" value={colours.contrast} least={-1} onChange={(contrast) => change({ contrast })} />
      </View>
      <Switch
        label="Background taken away"
        on={colours.cut !== null}
        onChange={(on) => change({ cut: on ? 0.12 : null })}
      />
      {colours.cut !== null ? (
        <>
          <Strength label="How unlike" value={colours.cut} least={0} onChange={(cut) => change({ cut })} />
          <Text className="font-ui text-[13px] leading-5 text-ink-soft">
            What is reached from the edges over like colours goes. The original is kept.
          </Text>
        </>
      ) : null}
      <Text aria-live="polite" className="font-ui text-[13px] text-ink-soft">
        {busy ? "The colours are being made …" : " "}
      </Text>
    </Fold>
  )
}

function Frame({ frame, set }: Pick<PictureFormat, "frame"> & { set: (change: Partial<PictureFormat>) => void }) {
  return (
    <>
      <View className="flex-row gap-2">
        <Choice
          label="Frame"
          value={frame?.pattern ?? "none"}
          options={patterns.filter(([pattern]) => pattern !== "double" && pattern !== "wavy")}
          onChange={(pattern) =>
            set({
              frame: pattern === "none" ? null : { ...(frame ?? { ...defaultBorder, width: 1 }), pattern, distance: 0 },
            })
          }
        />
        {frame ? (
          <ThicknessField
            label="Thickness of the frame"
            value={frame.width}
            onChange={(width) => set({ frame: { ...frame, width } })}
          />
        ) : null}
      </View>
      {frame ? (
        <ColourField
          label="Colour of the frame"
          value={frame.colour}
          onChange={(colour) => set({ frame: { ...frame, colour: colour ?? frame.colour } })}
        />
      ) : null}
    </>
  )
}

/** What can be done with the picture that is selected. */
export function PicturePage() {
  const session = useSession()
  const file = useRef<HTMLInputElement>(null)
  const cropping = useDesk((s) => s.cropping)
  const node = useDesk(({ editor }) => (editor ? (pictureHere(editor)?.node ?? null) : null))
  const pos = useDesk(({ editor }) => (editor ? (pictureHere(editor)?.pos ?? -1) : -1))
  if (!node) return null
  const format = pictureFormat(node)
  const size = pictureSize(node)
  const set = (change: Partial<PictureFormat>, name?: string) => void session.run(setPicture(pos, change, name))
  const ratio = proportion(node)
  const [least, most] = limits.picture.size
  return (
    <View>
      <SectionTitle>Text round it</SectionTitle>
      <Wrapping format={format} set={set} />
      <SectionTitle>Size</SectionTitle>
      <View className="flex-row gap-2">
        <LengthField
          label="Width"
          value={Math.round(size.width * 100) / 100}
          min={least}
          max={most}
          onChange={(width) =>
            set({ width, height: format.height === null ? null : width / ratio }, "Size of the picture")
          }
        />
        <LengthField
          label="Height"
          value={Math.round(size.height * 100) / 100}
          min={least}
          max={most}
          onChange={(height) => set({ width: height * ratio, height: null }, "Size of the picture")}
        />
      </View>
      <View className="mt-2 flex-row gap-2">
        <WordButton
          label="As it was"
          onPress={() => set({ width: null, height: null, turn: 0 }, "Size of the picture")}
        />
        <WordButton
          label={cropping ? "Done" : "Crop"}
          primary={cropping}
          onPress={() => session.store.setState({ cropping: !cropping })}
        />
        <WordButton label="Exchange" onPress={() => file.current?.click()} />
      </View>
      {cropping ? (
        <Text className="mt-2 font-ui text-[13px] leading-5 text-ink-soft">
          Drag the bars over the picture. What lies outside is kept and can be had back.
        </Text>
      ) : null}
      <PictureFile
        field={file}
        label="Another picture"
        onFiles={([own]) => {
          if (own) void session.picturing.replace(own)
        }}
      />
      <View className="mt-3">
        <ReaderWords
          label="What it shows, for who cannot see it"
          value={format.alt}
          asks
          onChange={(alt) => set({ alt }, "Words for the picture")}
        />
      </View>
      <SectionTitle>Shape</SectionTitle>
      <Segments label="Shape of the picture">
        {shapes.map(([shape, label], i) => (
          <Segment
            key={shape}
            first={i === 0}
            label={label}
            on={format.shape === shape}
            onPress={() => set({ shape })}
          />
        ))}
      </Segments>
      <Colours colours={format.colours} />
      <Fold title="Frame, shadow, strength, turn">
        <Frame frame={format.frame} set={set} />
        <Switch label="Shadow" on={format.shadow} onChange={(shadow) => set({ shadow })} />
        <Strength label="Strength" value={format.opacity} least={0.05} onChange={(opacity) => set({ opacity })} />
        <View className="flex-row items-center gap-3">
          <Text className="flex-1 font-ui text-[14px] text-ink">Turned (degrees)</Text>
          <View className="w-36 flex-row">
            <NumberField
              label="Turned by"
              value={Math.round(format.turn * 10) / 10}
              min={-180}
              max={180}
              step={(value, direction) => value + direction * 5}
              onChange={(turn) => set({ turn }, "Picture turned")}
            />
          </View>
        </View>
      </Fold>
    </View>
  )
}
