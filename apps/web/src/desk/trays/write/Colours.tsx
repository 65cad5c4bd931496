import { useEffect, useRef } from "react"
import { Text, View } from "react-native"
import { coloursInUse, type Command } from "@biblon/core/editing"
import { useDesk, useSession } from "../../context"
import { useRecents } from "../../recents"
import { trying } from "../../trying"
import { Press } from "../../../ui/bar"

export const inks: readonly (readonly [string, string])[] = [
  ["#1e1a16", "Ink"],
  ["#5e564b", "Driftwood"],
  ["#7a1f4b", "Murex"],
  ["#a8281e", "Madder"],
  ["#9a6412", "Ochre"],
  ["#3b6b4c", "Laurel"],
  ["#1f4f7a", "Deep water"],
]
export const tints: readonly (readonly [string, string])[] = [
  ["#f4e3b5", "Sand"],
  ["#f4d9c6", "Shell"],
  ["#f4e4eb", "Mallow"],
  ["#dcebe0", "Samphire"],
  ["#dce8f2", "Mist"],
  ["#e9e3d6", "Reed"],
]

interface Props {
  label: string
  value: string | null | undefined
  palette: readonly (readonly [string, string])[]
  /** What choosing a colour does; null takes it away. */
  set: (colour: string | null) => Command
  /** In words, what it is to have none; left out where there has to be one. */
  none?: string
  /** Offers the colours of the document's letters too. */
  ofDocument?: boolean
  /** Whether a colour can be seen on the text before it is chosen. */
  tried?: boolean
}

function Swatch({
  colour,
  name,
  on,
  command,
  onDone,
  tried,
}: {
  colour: string | null
  name: string
  on: boolean
  command: Command
  onDone: () => void
  tried: boolean
}) {
  const session = useSession()
  const acts = tried ? trying(session, command, onDone) : { onClick: () => void (session.run(command), onDone()) }
  return (
    <Press
      aria-label={name}
      aria-pressed={on}
      title={name}
      {...acts}
      className="flex h-11 w-9 items-center justify-center border-0 bg-transparent p-0 wide:h-9"
    >
      <span
        className={`flex h-8 w-8 items-center justify-center rounded-full border-2 ${on ? "border-murex" : "border-transparent"}`}
      >
        <span
          className="h-6 w-6 rounded-full border border-line"
          style={
            colour === null
              ? {
                  background:
                    "linear-gradient(to top right, transparent 47%, #a8281e 47%, #a8281e 53%, transparent 53%)",
                }
              : { background: colour }
          }
        />
      </span>
    </Press>
  )
}

/** Any other colour: the browser's picker, tried while one moves in it and taken when it closes. */
function Other({
  label,
  value,
  set,
  onDone,
  tried,
}: {
  label: string
  value: string
  set: Props["set"]
  onDone: (colour: string) => void
  tried: boolean
}) {
  const session = useSession()
  const input = useRef<HTMLInputElement>(null)
  useEffect(() => {
    const take = () => {
      const colour = input.current?.value.toLowerCase()
      if (!colour) return
      session.run(set(colour))
      onDone(colour)
    }
    const element = input.current
    element?.addEventListener("change", take)
    return () => element?.removeEventListener("change", take)
  })
  return (
    <label className="relative flex h-11 cursor-pointer items-center px-1 font-ui text-[13px] text-ink-soft wide:h-9">
      Other
      <input
        ref={input}
        type="color"
        aria-label={`${label}: another`}
        defaultValue={value}
        key={value}
        onInput={(event) => tried && session.trial.show(set(event.currentTarget.value.toLowerCase()))}
        className="absolute inset-0 h-full w-full cursor-pointer opacity-0"
      />
    </label>
  )
}

/** A colour that stands for itself, such as a style's: swatches without trying. */
export function ColourField({
  label,
  value,
  none,
  onChange,
}: {
  label: string
  value: string | null
  none?: string
  onChange: (colour: string | null) => void
}) {
  // What holds it makes the change; there is no command of its own to run.
  const chosen =
    (colour: string | null): Command =>
    () => {
      onChange(colour)
      return true
    }
  return (
    <Colours
      label={label}
      value={value}
      palette={none ? tints : inks}
      {...(none ? { none } : {})}
      set={chosen}
      tried={false}
    />
  )
}

/** Swatches: the palette, then the colours of the document and those used last. */
export function Colours({ label, value, palette, set, none, ofDocument, tried = true }: Props) {
  const here = useDesk(({ editor }) => (ofDocument && editor ? coloursInUse(editor.doc).join() : ""))
  const { colours: recent, used } = useRecents()
  const inPalette = new Set(palette.map(([colour]) => colour))
  const more = [...new Set([...here.split(","), ...recent])]
    .filter((colour) => /^#/.test(colour) && !inPalette.has(colour))
    .slice(0, 7)
  const done = (colour: string | null) => () => {
    if (colour !== null) used("colours", colour)
  }
  return (
    <View role="group" aria-label={label}>
      <Text className="font-ui text-[13px] text-ink-soft">{label}</Text>
      <View className="flex-row flex-wrap items-center">
        {none ? (
          <Swatch colour={null} name={none} on={value === null} command={set(null)} onDone={done(null)} tried={tried} />
        ) : null}
        {palette.map(([colour, name]) => (
          <Swatch
            key={colour}
            colour={colour}
            name={name}
            on={colour === value}
            command={set(colour)}
            onDone={done(colour)}
            tried={tried}
          />
        ))}
        {more.map((colour) => (
          <Swatch
            key={colour}
            colour={colour}
            name={colour}
            on={colour === value}
            command={set(colour)}
            onDone={done(colour)}
            tried={tried}
          />
        ))}
        <Other
          label={label}
          value={value ?? "#1e1a16"}
          set={set}
          onDone={(colour) => used("colours", colour)}
          tried={tried}
        />
      </View>
    </View>
  )
}
