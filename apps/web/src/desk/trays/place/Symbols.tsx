import { useEffect, useState } from "react"
import { Text, View } from "react-native"
import { insertText } from "@biblon/core/editing"
import { fallbackFaces } from "@biblon/core/layout/catalogue"
import { useSession } from "../../context"
import { findSymbols, useSymbols } from "../../symbols"
import { Press } from "../../../ui/bar"
import { TextField } from "../../../ui/field"
import { Choice } from "../../../ui/choice"

const faces = ["Tinos-regular", ...fallbackFaces(false)].join(", ")
/** A category shows so many at first. */
const most = 160

/** Symbols that one cannot see are shown by their place between two signs. */
function shown(char: string): string {
  return /^[\s\u00ad\u200b\u2060]$/u.test(char) ? `|${char}|` : char
}

function Grid({ items, onPick }: { items: readonly [string, string][]; onPick: (char: string) => void }) {
  const [named, setNamed] = useState("")
  return (
    <>
      <div
        role="group"
        aria-label="Symbols"
        className="grid grid-cols-[repeat(auto-fill,minmax(44px,1fr))] overflow-hidden rounded-button border border-line bg-raised"
      >
        {items.map(([char, name]) => (
          <Press
            key={char}
            type="button"
            title={name}
            aria-label={name}
            onClick={() => onPick(char)}
            onMouseEnter={() => setNamed(name)}
            onFocus={() => setNamed(name)}
            onTouchStart={() => setNamed(name)}
            className="h-11 border-0 bg-transparent text-[20px] text-ink hover:bg-murex-soft"
            style={{ fontFamily: faces }}
          >
            {shown(char)}
          </Press>
        ))}
      </div>
      <Text className="mt-1 min-h-[18px] font-ui text-[12px] text-ink-soft">{named}</Text>
    </>
  )
}

/** Symbols by category or by name, the last ones first. */
export function Symbols() {
  const session = useSession()
  const { categories, recent, load, used } = useSymbols()
  const [typed, setTyped] = useState("")
  const [category, setCategory] = useState(0)
  const [all, setAll] = useState(false)
  useEffect(() => void load(), [load])
  const pick = (char: string) => {
    session.run(insertText(char))
    session.focus()
    used(char)
  }
  if (!categories) return <Text className="font-ui text-[14px] text-ink-soft">One moment…</Text>
  const found = typed.trim() ? findSymbols(categories, typed) : null
  const items = categories[category]?.items ?? []
  const names = new Map(recent.length > 0 ? categories.flatMap((c) => c.items) : [])
  return (
    <View className="gap-2">
      <TextField
        quiet
        label="Find a symbol"
        placeholder="Name, such as arrow or alpha"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      {found ? (
        found.length > 0 ? (
          <Grid items={found} onPick={pick} />
        ) : (
          <Text className="font-ui text-[14px] text-ink-soft">
            No symbol of that name can be shown by the typefaces here.
          </Text>
        )
      ) : (
        <>
          {recent.length > 0 ? (
            <Grid items={recent.map((char) => [char, names.get(char) ?? char])} onPick={pick} />
          ) : null}
          <Choice
            quiet
            label="Category"
            value={String(category)}
            options={categories.map(({ name }, i) => [String(i), name] as const)}
            onChange={(i) => {
              setCategory(Number(i))
              setAll(false)
            }}
          />
          <Grid items={all ? items : items.slice(0, most)} onPick={pick} />
          {!all && items.length > most ? (
            <Press
              onClick={() => setAll(true)}
              className="flex min-w-0 flex-col shrink-0 h-11 justify-center self-start"
            >
              <Text className="font-ui-bold text-[14px] text-murex">{`Show all ${items.length}`}</Text>
            </Press>
          ) : null}
        </>
      )}
    </View>
  )
}
