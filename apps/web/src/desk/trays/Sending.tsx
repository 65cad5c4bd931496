import { useState } from "react"
import { router } from "expo-router"
import { Text, View } from "react-native"
import { kinds, type KindId } from "@biblon/core/formats/kinds"
import { lossesIn } from "@biblon/core/formats/losses"
import { keep, readKept } from "../../kept"
import { Act, WordButton } from "../../ui/button"
import { Choice, Fold } from "../../ui/choice"
import { TextArea, TextField } from "../../ui/field"
import { useDesk, useSession } from "../context"

const offered = ["pdf", "docx", "odt", "html", "epub", "text"] as const satisfies readonly KindId[]
type Offered = (typeof offered)[number]

const isOffered = (kind: unknown): kind is Offered => offered.some((own) => own === kind)

/** A copy goes to somebody: address, subject, words, and the file. */
export function Sending({ unfolded }: { unfolded: boolean }) {
  const session = useSession()
  const kept = readKept("send-kind")
  const [kind, setKind] = useState<Offered>(isOffered(kept) ? kept : "pdf")
  const { busy, name, lost } = useDesk((s) => ({
    busy: s.delivering !== null,
    name: s.name,
    lost: s.editor ? lossesIn(s.editor.doc, kind).join(", ") : "",
  }))
  const keptTo = readKept("send-to")
  const [to, setTo] = useState(typeof keptTo === "string" ? keptTo : "")
  const [subject, setSubject] = useState<string | null>(null)
  const [words, setWords] = useState("")
  const [state, setState] = useState<{ sent: boolean; words: string } | null>(null)
  const send = async () => {
    setState(null)
    const problem = await session.delivery.send(kind, { to: to.trim(), subject: subject ?? name ?? "", words })
    if (problem === null) {
      keep("send-kind", kind)
      keep("send-to", to.trim())
      setWords("")
      setState({ sent: true, words: "It is in the outbox, which carries it." })
    } else if (problem !== "") setState({ sent: false, words: problem })
  }
  return (
    <Fold title="Send a copy" unfolded={unfolded}>
      <TextField
        label="To"
        type="email"
        multiple
        placeholder="orrin@harbour.example"
        value={to}
        onChange={(event) => setTo(event.target.value)}
      />
      <TextField label="Subject" value={subject ?? name ?? ""} onChange={(event) => setSubject(event.target.value)} />
      <TextArea label="Words with it" value={words} onChange={(event) => setWords(event.target.value)} />
      <View className="flex-row items-end gap-2">
        <Choice
          label="As"
          value={kind}
          options={offered.map((own) => [own, kinds[own].name] as const)}
          onChange={setKind}
        />
        <WordButton label="Send" primary disabled={busy || to.trim() === ""} onPress={() => void send()} />
      </View>
      {lost === "" ? null : <Text className="font-ui text-[13px] text-ink">{`Without ${lost}`}</Text>}
      {state ? (
        <Text
          role={state.sent ? "status" : "alert"}
          className={`font-ui text-[14px] ${state.sent ? "text-laurel" : "text-madder"}`}
        >
          {state.words}
        </Text>
      ) : null}
      <View className="-ml-3 self-start">
        <Act label="See the outbox" primary onPress={() => router.push("/outbox")} />
      </View>
    </Fold>
  )
}
