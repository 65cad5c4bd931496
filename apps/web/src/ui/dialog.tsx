import type { ReactNode } from "react"
import { Dialog as Base } from "@base-ui/react/dialog"

/** Something that has the whole attention until it is closed: by Escape, by a press beside it, by what is in it. */
export function Dialog({ label, onClose, children }: { label: string; onClose: () => void; children: ReactNode }) {
  return (
    <Base.Root open onOpenChange={(open) => !open && onClose()}>
      <Base.Portal>
        <Base.Backdrop className="fixed inset-0 z-40 bg-black/25" />
        <Base.Popup
          aria-label={label}
          finalFocus={false}
          className="fixed left-1/2 top-3 z-40 flex max-h-[70%] w-[calc(100%-24px)] max-w-[520px] -translate-x-1/2 flex-col overflow-hidden rounded-tray border border-line bg-surface shadow-lg outline-none wide:top-16"
        >
          {children}
        </Base.Popup>
      </Base.Portal>
    </Base.Root>
  )
}
