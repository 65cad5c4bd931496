import { useEffect } from "react"
import { Text } from "react-native"
import { NameField } from "../../ui/NameField"
import { useDesk, useSession } from "../context"
import { Press } from "../../ui/bar"

/** The document's name; a tap makes it a field to type in. */
export function Name({ wide }: { wide: boolean }) {
  const session = useSession()
  const { name, naming } = useDesk((s) => ({ name: s.name, naming: s.naming }))
  const setNaming = (naming: boolean) => session.store.setState({ naming })
  useEffect(() => {
    document.title = `${name ?? "Not named yet"} · Biblon`
  }, [name])
  const look = `font-display ${wide ? "text-[20px]" : "text-[15px]"}`
  if (naming)
    return (
      <NameField
        label="Name of the document"
        name={name}
        onTake={(taken) => void session.rename(taken)}
        onEnd={() => setNaming(false)}
        className={`${look} h-8 px-1 ${wide ? "w-[360px]" : "w-full"}`}
      />
    )
  return (
    <Press
      aria-label={`Name: ${name ?? "not named yet"}. Rename`}
      onClick={() => setNaming(true)}
      className="-mb-1 -mt-2 flex min-w-0 flex-col shrink rounded-button px-1.5 pb-1 pt-2 hover:bg-raised"
    >
      <Text numberOfLines={1} className={`${look} ${name ? "text-ink" : "italic text-ink-soft"}`}>
        {name ?? "Not named yet"}
      </Text>
    </Press>
  )
}
