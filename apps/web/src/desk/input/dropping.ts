/** What is dragged here from elsewhere and dropped on the sheets. */
import type { Place } from "../view/source"
import type { SheetView } from "../view/sheetView"

export function attachDropping(
  host: HTMLElement,
  view: SheetView,
  dropped: (place: Place, data: DataTransfer | null) => void,
  signal: AbortSignal,
): void {
  const dragOver = (event: DragEvent) => {
    event.preventDefault()
    view.showDropCaret(view.atClient(event.clientX, event.clientY))
  }
  const drop = (event: DragEvent) => {
    event.preventDefault()
    view.showDropCaret(null)
    const place = view.atClient(event.clientX, event.clientY)
    if (place) dropped(place, event.dataTransfer)
  }
  host.addEventListener("dragover", dragOver, { signal })
  host.addEventListener("dragleave", () => view.showDropCaret(null), { signal })
  host.addEventListener("drop", drop, { signal })
}
