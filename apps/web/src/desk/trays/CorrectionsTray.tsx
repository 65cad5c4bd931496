import { useState } from "react"
import { Text, View } from "react-native"
import { correctionKinds, type CorrectionKind } from "@biblon/core/editing"
import { X } from "../../ui/icons"
import { IconButton, WordButton } from "../../ui/button"
import { TextField } from "../../ui/field"
import { SectionTitle } from "../../ui/choice"
import { useCorrections } from "../corrections"
import { Press } from "../../ui/bar"

const words: Record<CorrectionKind, { name: string; sample: string }> = {
  quotes: { name: "Quotation marks and apostrophes", sample: '"so" → “so”' },
  dashes: { name: "Dashes", sample: "a -- b → a – b" },
  ellipsis: { name: "Ellipsis", sample: "... → …" },
  signs: { name: "Signs", sample: "(c) → ©" },
  sentences: { name: "Capital at the start of a sentence", sample: "end. so → end. So" },
  capitals: { name: "Two capitals", sample: "THe → The" },
  slips: { name: "Common slips", sample: "teh → the" },
  fractions: { name: "Fractions", sample: "1/2 → ½" },
  ordinals: { name: "Ordinals", sample: "3rd → 3ʳᵈ" },
  arrows: { name: "Arrows", sample: "-> → →" },
  lists: { name: "Lists", sample: "1. or - or [] at the start" },
  links: { name: "Addresses as links", sample: "www.…" },
}

function Row({ kind }: { kind: CorrectionKind }) {
  const { settings, toggle } = useCorrections()
  const on = !settings.off.includes(kind)
  return (
    <Press
      role="switch"
      aria-checked={on}
      aria-label={words[kind].name}
      onClick={() => toggle(kind)}
      className="flex min-w-0 shrink-0 min-h-[44px] items-center gap-3 border-b border-line py-1"
    >
      <View className="flex-1">
        <Text className="font-ui text-[14px] text-ink">{words[kind].name}</Text>
        <Text className="font-ui text-[12px] text-ink-soft">{words[kind].sample}</Text>
      </View>
      <View
        className={`h-6 w-10 justify-center rounded-full px-0.5 ${on ? "items-end bg-murex" : "items-start bg-line"}`}
      >
        <View className="h-5 w-5 rounded-full bg-raised" />
      </View>
    </Press>
  )
}

export function CorrectionsTray() {
  const { settings, setSlip } = useCorrections()
  const [typed, setTyped] = useState("")
  const [meant, setMeant] = useState("")
  const add = () => {
    if (!/^\p{L}+$/u.test(typed.trim()) || !meant.trim()) return
    setSlip(typed.trim(), meant.trim())
    setTyped("")
    setMeant("")
  }
  return (
    <View>
      <SectionTitle>While typing</SectionTitle>
      <Text className="mb-2 font-ui text-[13px] leading-5 text-ink-soft">
        Backspace or one undo takes a correction back at once.
      </Text>
      {correctionKinds.map((kind) => (
        <Row key={kind} kind={kind} />
      ))}
      <SectionTitle>Your own slips</SectionTitle>
      {Object.entries(settings.own).map(([slip, meaning]) => (
        <View key={slip} className="flex-row items-center">
          <Text className="flex-1 font-ui text-[14px] text-ink">{`${slip} → ${meaning}`}</Text>
          <IconButton name={`Remove ${slip}`} icon={X} onPress={() => setSlip(slip, null)} />
        </View>
      ))}
      <form
        className="mt-1 flex gap-2"
        onBlur={(event) => {
          // Leaving takes a pair that is complete.
          if (!event.currentTarget.contains(event.relatedTarget)) add()
        }}
        onSubmit={(event) => {
          event.preventDefault()
          add()
        }}
      >
        <TextField
          quiet
          label="What you type"
          placeholder="typed"
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          className="flex-1"
        />
        <TextField
          quiet
          label="What you mean"
          placeholder="meant"
          value={meant}
          onChange={(e) => setMeant(e.target.value)}
          className="flex-1"
        />
        <WordButton label="Add" submit narrow />
      </form>
    </View>
  )
}
