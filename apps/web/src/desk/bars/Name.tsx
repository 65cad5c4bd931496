import { useEffect, useState } from "react"
import { Pressable, Text, TextInput } from "react-native"
import { useDesk, useSession } from "../context"

/** The document's name; a tap makes it a field to type in. */
export function Name({ wide }: { wide: boolean }) {
  const session = useSession()
  const name = useDesk((s) => s.name)
  const [typed, setTyped] = useState<string | null>(null)
  useEffect(() => {
    document.title = `${name ?? "Not named yet"} · Biblon`
  }, [name])
  const take = () => {
    if (typed !== null && typed.trim() !== (name ?? "")) void session.rename(typed.trim() || null)
    setTyped(null)
  }
  const look = `font-display ${wide ? "text-[20px]" : "text-[17px]"}`
  if (typed !== null)
    return (
      <TextInput
        autoFocus
        selectTextOnFocus
        aria-label="Name of the document"
        value={typed}
        maxLength={200}
        onChangeText={setTyped}
        onBlur={take}
        onSubmitEditing={take}
        onKeyPress={(event) => {
          if (event.nativeEvent.key === "Escape") setTyped(null)
        }}
        className={`${look} min-w-0 rounded-button bg-raised px-1.5 text-ink ${wide ? "w-[360px]" : "w-full"}`}
      />
    )
  return (
    <Pressable accessibilityRole="button" aria-label={`Name: ${name ?? "not named yet"}. Rename`} onPress={() => setTyped(name ?? "")} className="min-w-0 shrink rounded-button px-1.5 hover:bg-raised">
      <Text numberOfLines={1} className={`${look} ${name ? "text-ink" : "italic text-ink-soft"}`}>
        {name ?? "Not named yet"}
      </Text>
    </Pressable>
  )
}
