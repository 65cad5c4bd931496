import type { ReactNode } from "react"
import { Text, View } from "react-native"
import { Press } from "../../../ui/bar"
import { Glyph, inkSoft } from "../../../ui/glyph"
import { CaretDown, CaretUp } from "../../../ui/icons"

/** One kind of what was found, with its count; unfolded it says why that is told, and shows the places. */
export function FoundKind({
  name,
  why,
  count,
  open,
  onTurn,
  foot,
  children,
}: {
  name: string
  why: string
  count: number
  open: boolean
  onTurn: () => void
  /** Shown folded too. */
  foot?: ReactNode
  children: ReactNode
}) {
  return (
    <View role="listitem" className="border-b border-line py-1">
      <Press
        aria-expanded={open}
        onClick={onTurn}
        className="flex min-h-[44px] w-full items-center justify-between gap-2 px-0 text-left wide:min-h-[36px]"
      >
        <span className="flex-1 font-ui text-[14px] text-ink">{name}</span>
        <span className="font-ui-bold text-[14px] text-ochre">{count}</span>
        <Glyph icon={open ? CaretUp : CaretDown} size={14} colour={inkSoft} />
      </Press>
      {open ? (
        <View className="pb-2">
          <Text className="font-ui text-[13px] leading-5 text-ink-soft">{why}</Text>
          {children}
        </View>
      ) : null}
      {foot}
    </View>
  )
}
