/** Documents to begin from, as a wall of their first sheets by what they are for. */
import { useCallback, useState } from "react"
import { router, useFocusEffect, useLocalSearchParams } from "expo-router"
import { ScrollView, Text, View } from "react-native"
import type { Starter } from "@biblon/wire"
import { toDocument, toNewDocument } from "../toDocument"
import { api } from "../api"
import { Press } from "../ui/bar"
import { Act } from "../ui/button"
import { Glyph, murex } from "../ui/glyph"
import { CaretLeft, DotsThree, PencilSimpleLine, Trash } from "../ui/icons"
import { Menu, MenuPlace } from "../ui/menu"
import { useShelf } from "./store"

const own = "Yours"

/** By what they are for; people's own first. */
function groupsOf(starters: readonly Starter[]): [purpose: string, starters: Starter[]][] {
  const groups = new Map<string, Starter[]>()
  for (const starter of [...starters].sort((a, b) => Number(a.purpose !== null) - Number(b.purpose !== null))) {
    const purpose = starter.purpose ?? own
    groups.set(purpose, [...(groups.get(purpose) ?? []), starter])
  }
  return [...groups]
}

function Sheet({ starter, onBegin, onRemove }: { starter: Starter; onBegin: () => void; onRemove: () => void }) {
  return (
    <View role="listitem" className="w-[46%] wide:w-[31%]">
      <Press
        onClick={onBegin}
        className="group flex w-full flex-col items-stretch gap-2 rounded-tray p-2 text-left hover:bg-murex-soft/50"
      >
        <span className="flex h-[190px] items-center wide:h-[270px] justify-center">
          <img
            src={api.pictureUrl(starter)}
            alt=""
            className="max-h-full max-w-full border border-line bg-white shadow-sm group-hover:shadow-lg"
          />
        </span>
        <span className="font-ui text-[15px] text-ink">{starter.name}</span>
      </Press>
      {starter.purpose === null ? (
        <View className="absolute right-0 top-0">
          <Menu
            label={`What to do with the starter ${starter.name}`}
            icon={DotsThree}
            entries={[
              { label: "Change it", icon: PencilSimpleLine, act: () => toDocument(starter.id) },
              { label: "Remove it", icon: Trash, act: onRemove },
            ]}
          />
        </View>
      ) : null}
    </View>
  )
}

/** What was removed last can be had back at once. */
interface Removed {
  name: string
  back: Awaited<ReturnType<typeof api.changeShelf>>["back"]
}

function useStarters() {
  const [starters, setStarters] = useState<Starter[] | null>(null)
  const [trouble, setTrouble] = useState<string | null>(null)
  const [removed, setRemoved] = useState<Removed | null>(null)
  const load = useCallback(async () => {
    try {
      setStarters(await api.starters())
      setTrouble(null)
    } catch {
      setTrouble("The starters cannot be reached. A blank sheet can still be begun from the shelf.")
    }
  }, [])
  const attempt = async (act: () => Promise<void>) => {
    try {
      await act()
      await load()
    } catch (error) {
      setTrouble(`It was not done: ${(error as Error).message}.`)
    }
  }
  return {
    starters,
    trouble,
    removed,
    load,
    remove: ({ id, name }: Starter) =>
      attempt(async () => {
        const { back } = await api.changeShelf([{ kind: "document", id, binned: true, removed: true }])
        setRemoved({ name, back })
      }),
    restore: () =>
      attempt(async () => {
        if (removed) await api.changeShelf(removed.back)
        setRemoved(null)
      }),
  }
}

export function Starters() {
  const { starters, trouble, removed, load, remove, restore } = useStarters()
  const begin = useShelf((s) => s.begin)
  const shelfTrouble = useShelf((s) => s.trouble)
  const folder = useLocalSearchParams<{ folder?: string }>().folder ?? null
  useFocusEffect(
    useCallback(() => {
      document.title = "Starters · Biblon"
      void load()
    }, [load]),
  )
  const said = trouble ?? shelfTrouble
  return (
    <ScrollView
      role="main"
      className="flex-1 bg-desk"
      contentContainerClassName="mx-auto w-full max-w-[1080px] px-[18px] pb-16 pt-6 wide:px-10 wide:pt-10"
    >
      <Press
        role="link"
        onClick={() => router.navigate(folder === null ? "/" : `/?folder=${folder}`)}
        className="-ml-2 flex h-11 items-center gap-1 self-start rounded-button px-2 font-ui text-[15px] text-murex hover:bg-murex-soft/50"
      >
        <Glyph icon={CaretLeft} size={18} colour={murex} />
        Shelf
      </Press>
      <Text role="heading" aria-level={1} className="mt-1 font-display text-[28px] text-ink">
        Starters
      </Text>
      <Text className="mt-1 font-ui text-[15px] text-ink-soft">
        Tap one, and a copy of it is yours. A tap on its sample text takes it whole, to be typed over.
      </Text>
      {said ? (
        <Text role="alert" className="mt-4 rounded-tray bg-raised p-3 font-ui text-[14px] text-madder">
          {said}
        </Text>
      ) : null}
      {removed ? (
        <View role="status" className="mt-3 flex-row items-center gap-2 rounded-tray bg-raised px-3 py-1">
          <Text numberOfLines={1} className="flex-1 font-ui text-[14px] text-ink">
            {`${removed.name} was removed.`}
          </Text>
          <Act label="Undo" primary onPress={() => void restore()} />
        </View>
      ) : null}
      {groupsOf(starters ?? []).map(([purpose, group]) => (
        <View key={purpose}>
          <Text role="heading" aria-level={2} className="mb-2 mt-7 font-display text-[19px] text-ink">
            {purpose}
          </Text>
          <View role="list" aria-label={purpose} className="-mx-2 flex-row flex-wrap gap-x-4 gap-y-3">
            {group.map((starter) => (
              <Sheet
                key={starter.id}
                starter={starter}
                onBegin={() => void begin(folder, starter.id).then(toNewDocument)}
                onRemove={() => void remove(starter)}
              />
            ))}
          </View>
        </View>
      ))}
      <MenuPlace />
    </ScrollView>
  )
}
