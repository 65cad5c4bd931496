/** What a citation names: its sources, where in them, and the words round them. */
import { Text, View } from "react-native"
import { citationItems, documentAttrs, limits, type CitationItem, type Sources } from "@biblon/core/document"
import { changeCitation } from "@biblon/core/editing"
import { sourceWords } from "@biblon/core/sources"
import { Act } from "../../../../ui/button"
import { Choice, Switch } from "../../../../ui/choice"
import { TextField } from "../../../../ui/field"
import { useTyped } from "../../../../ui/typed"
import { useDesk, useSession } from "../../../context"

const none: Sources["list"] = {}

function Part({ label, value, onTake }: { label: string; value: string; onTake: (text: string) => void }) {
  const typed = useTyped(value, (text) => onTake(text.trim()))
  return <TextField label={label} maxLength={limits.name} className="flex-1" {...typed} />
}

function Item({
  item,
  name,
  onChange,
}: {
  item: CitationItem
  name: string
  onChange: (item: CitationItem | null) => void
}) {
  const { source, at = "", before = "", after = "", bare = false } = item
  const made = (change: Partial<CitationItem>) => onChange({ source, at, before, after, bare, ...change })
  return (
    <View className="border-b border-line pb-2">
      <View className="flex-row items-center justify-between">
        <Text numberOfLines={1} className="min-w-0 flex-1 font-ui-bold text-[14px] text-ink">
          {name}
        </Text>
        <Act label="Without it" onPress={() => onChange(null)} />
      </View>
      <View className="flex-row gap-2">
        <Part label="Page" value={at} onTake={(text) => made({ at: text })} />
        <Part label="Before" value={before} onTake={(text) => made({ before: text })} />
        <Part label="After" value={after} onTake={(text) => made({ after: text })} />
      </View>
      <Switch label="Without its author" on={bare} onChange={(on) => made({ bare: on })} />
    </View>
  )
}

export function CitationOptions({ pos, format }: { pos: number; format: string }) {
  const session = useSession()
  const list = useDesk(({ editor }) => (editor ? documentAttrs(editor.doc).sources.list : none))
  const items = citationItems(format)
  const take = (next: readonly CitationItem[]) => session.run(changeCitation(pos, next))
  const nameOf = (id: string) => {
    const source = Object.hasOwn(list, id) ? list[id] : undefined
    if (!source) return "A source that is missing"
    const { who, when, what } = sourceWords(source)
    return [who || what, when].filter(Boolean).join(", ")
  }
  const others = Object.keys(list).filter((id) => !items.some(({ source }) => source === id))
  return (
    <View className="gap-2">
      {items.map((item, i) => (
        <Item
          key={`${i} ${item.source}`}
          item={item}
          name={nameOf(item.source)}
          onChange={(next) =>
            take(next ? items.map((own, n) => (n === i ? next : own)) : items.filter((_own, n) => n !== i))
          }
        />
      ))}
      {others.length > 0 ? (
        <Choice
          label="Another source in it"
          value={undefined}
          none="Choose"
          options={others.slice(0, 500).map((id) => [id, nameOf(id)] as const)}
          onChange={(source) => take([...items, { source }])}
        />
      ) : null}
    </View>
  )
}
