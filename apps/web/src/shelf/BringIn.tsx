/** A file from elsewhere becomes a document: by a button, or dropped anywhere on the shelf. */
import { useEffect, useRef } from "react"
import { Text, View } from "react-native"
import { readableEndings, readableNames } from "@biblon/core/formats/kinds"
import { toDocument } from "../toDocument"
import { Act } from "../ui/button"
import { Press } from "../ui/bar"
import { Glyph } from "../ui/glyph"
import { FileArrowUp } from "../ui/icons"
import { useShelf } from "./store"

export function BringIn({ folder }: { folder: string | null }) {
  const { reading, bringIn, stopReading } = useShelf()
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <Press
        disabled={reading !== null}
        onClick={() => input.current?.click()}
        className={`flex min-w-0 shrink-0 mt-3 h-12 items-center gap-2 self-start rounded-button border border-line bg-raised px-5 hover:bg-murex-soft/50 ${reading ? "opacity-60" : ""}`}
      >
        <Glyph icon={FileArrowUp} size={18} />
        <Text className="font-ui-bold text-[16px] text-ink">{reading ? `${reading}…` : "Bring in a file"}</Text>
      </Press>
      {reading ? (
        <View className="mt-1 self-start">
          <Act label="Stop" primary onPress={stopReading} />
        </View>
      ) : (
        <Text className="mt-2 font-ui text-[13px] text-ink-soft">
          {`${readableNames.join(", ")}; or drop it anywhere here`}
        </Text>
      )}
      <input
        ref={input}
        type="file"
        accept={readableEndings.join()}
        aria-label="File to bring in"
        onChange={(event) => {
          const file = event.target.files?.[0]
          if (file) void bringIn(file, folder).then(toDocument)
          event.target.value = ""
        }}
        className="hidden"
      />
    </>
  )
}

export function useDroppedFiles(folder: string | null): void {
  const { bringIn } = useShelf()
  useEffect(() => {
    const over = (event: DragEvent) => {
      if (event.dataTransfer?.types.includes("Files")) event.preventDefault()
    }
    const drop = (event: DragEvent) => {
      const file = event.dataTransfer?.files[0]
      if (!file) return
      event.preventDefault()
      void bringIn(file, folder).then(toDocument)
    }
    addEventListener("dragover", over)
    addEventListener("drop", drop)
    return () => {
      removeEventListener("dragover", over)
      removeEventListener("drop", drop)
    }
  }, [bringIn, folder])
}
