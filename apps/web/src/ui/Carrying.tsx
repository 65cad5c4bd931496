import type { ComponentProps } from "react"
import { Glyph, inkSoft } from "./glyph"
import { DotsSixVertical } from "./icons"
import type { Carried } from "./useCarrying"

/** By which a row is carried. */
export function CarryHandle({
  label,
  onPointerDown,
}: { label: string } & Pick<ComponentProps<"div">, "onPointerDown">) {
  return (
    <div
      aria-label={label}
      role="img"
      onPointerDown={onPointerDown}
      className="flex w-9 shrink-0 cursor-grab touch-none items-center justify-center wide:w-7"
    >
      <Glyph icon={DotsSixVertical} size={16} colour={inkSoft} />
    </div>
  )
}

/** Where a carried row would land. */
export function LandingLine({ carried }: { carried: Carried | null }) {
  return carried ? (
    <div
      className="pointer-events-none absolute inset-x-0 h-[3px] rounded-full bg-laurel"
      style={{ top: carried.y - 1 }}
    />
  ) : null
}
