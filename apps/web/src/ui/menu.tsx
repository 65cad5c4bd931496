import { Menu as Base } from "@base-ui/react/menu"
import { Glyph } from "./glyph"
import type { Icon } from "./icons"

export interface MenuEntry {
  label: string
  icon: Icon
  act: () => void
}

/** A button with a sign that opens a few things to do. */
export function Menu({ label, icon, entries }: { label: string; icon: Icon; entries: readonly MenuEntry[] }) {
  return (
    <Base.Root>
      <Base.Trigger
        aria-label={label}
        title={label}
        className="flex h-11 w-11 shrink-0 cursor-pointer items-center justify-center rounded-button hover:bg-murex-soft/50 data-[popup-open]:bg-murex-soft"
      >
        <Glyph icon={icon} />
      </Base.Trigger>
      <Base.Portal>
        <Base.Positioner sideOffset={4} align="end" className="z-50">
          <Base.Popup className="min-w-[180px] rounded-tray border border-line bg-surface p-1 shadow-lg outline-none">
            {entries.map(({ label: words, icon: sign, act }) => (
              <Base.Item
                key={words}
                onClick={act}
                className="flex h-11 cursor-pointer items-center gap-3 rounded-button px-3 font-ui text-[15px] text-ink outline-none data-[highlighted]:bg-murex-soft"
              >
                <Glyph icon={sign} size={18} />
                {words}
              </Base.Item>
            ))}
          </Base.Popup>
        </Base.Positioner>
      </Base.Portal>
    </Base.Root>
  )
}
