import { Menu as Base } from "@base-ui/react/menu"
import { Glyph } from "./glyph"
import type { Icon } from "./icons"

export interface MenuEntry {
  label: string
  icon: Icon
  act: () => void
}

/** One list serves all buttons of a screen, so that a long list of these is light. */
const handle = Base.createHandle<readonly MenuEntry[]>()

/** A button with a sign that opens a few things to do; the screen has to hold a MenuPlace. */
export function Menu({ label, icon, entries }: { label: string; icon: Icon; entries: readonly MenuEntry[] }) {
  return (
    <Base.Trigger
      handle={handle}
      payload={entries}
      aria-label={label}
      title={label}
      className="flex h-11 w-11 shrink-0 cursor-pointer items-center justify-center rounded-button hover:bg-murex-soft/50 data-[popup-open]:bg-murex-soft"
    >
      <Glyph icon={icon} />
    </Base.Trigger>
  )
}

/** Where the things to do of all buttons are shown. */
export function MenuPlace() {
  return (
    <Base.Root handle={handle}>
      {({ payload = [] }: { payload?: readonly MenuEntry[] }) => (
        <Base.Portal>
          <Base.Positioner sideOffset={4} align="end" className="z-50">
            <Base.Popup className="min-w-[180px] rounded-tray border border-line bg-surface p-1 shadow-lg outline-none">
              {payload.map(({ label: words, icon: sign, act }) => (
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
      )}
    </Base.Root>
  )
}
