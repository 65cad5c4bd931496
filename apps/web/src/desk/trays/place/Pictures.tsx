import { useRef, useState } from "react"
import { Text, View } from "react-native"
import { WordButton } from "../../../ui/button"
import { Fold, SectionTitle } from "../../../ui/choice"
import { useDesk, useSession } from "../../context"
import { PictureFile } from "../PictureFile"
import { drawings, drawingFile } from "./drawings"
import { Press } from "../../../ui/bar"
import { TextField } from "../../../ui/field"

/** Pictures from a file, the camera, or our own drawings. */
export function Pictures() {
  const session = useSession()
  const busy = useDesk((s) => s.picturing)
  const file = useRef<HTMLInputElement>(null)
  const camera = useRef<HTMLInputElement>(null)
  const take = (files: File[]) => void session.picturing.add(files)
  return (
    <>
      <SectionTitle>Picture</SectionTitle>
      <View className="flex-row gap-2">
        <WordButton label="From a file" disabled={busy !== null} onPress={() => file.current?.click()} />
        <WordButton label="From the camera" disabled={busy !== null} onPress={() => camera.current?.click()} />
      </View>
      <PictureFile field={file} label="Pictures to put in" several onFiles={take} />
      <PictureFile field={camera} label="Picture from the camera" camera onFiles={take} />
      {busy ? (
        <Text aria-live="polite" className="mt-1 font-ui text-[13px] text-ink-soft">{`${busy}: on its way …`}</Text>
      ) : null}
      <Fold title="Our drawings">
        <Drawings />
      </Fold>
    </>
  )
}

function Drawings() {
  const session = useSession()
  const [wanted, setWanted] = useState("")
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean)
  const found = drawings.filter(({ name, words: own }) =>
    words.every((word) => `${name} ${own}`.toLowerCase().includes(word)),
  )
  return (
    <>
      <TextField
        quiet
        label="Find a drawing"
        placeholder="Name, such as buoy or letter"
        value={wanted}
        onChange={(event) => setWanted(event.target.value)}
      />
      <div className="grid grid-cols-4 gap-2">
        {found.map((drawing) => (
          <Press
            key={drawing.name}
            type="button"
            title={drawing.name}
            aria-label={drawing.name}
            className="aspect-square rounded-button border border-line bg-raised p-1.5 hover:border-murex"
            onClick={() => void session.picturing.add([drawingFile(drawing)], { width: 120, alt: drawing.name })}
          >
            <svg
              viewBox="0 0 48 48"
              className="block h-full w-full"
              aria-hidden="true"
              dangerouslySetInnerHTML={{ __html: drawing.svg }}
            />
          </Press>
        ))}
      </div>
      {found.length === 0 ? (
        <Text className="font-ui text-[13px] text-ink-soft">No drawing is called that. Try another word.</Text>
      ) : null}
    </>
  )
}
