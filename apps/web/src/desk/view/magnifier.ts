/** A round glass over the place a finger means, while it drags a handle. */
const size = 116
const power = 1.7
/** The glass stands so far above the finger. */
const above = 96

export class Magnifier {
  private glass: HTMLElement | null = null

  /** Shows what lies at a point of the window, from the painted sheets. */
  show(canvas: HTMLElement, x: number, y: number): void {
    const sheet = [...canvas.querySelectorAll<HTMLElement>(".sheet")].find((s) => {
      const { top, bottom } = s.getBoundingClientRect()
      return y >= top && y <= bottom
    })
    if (!sheet) return this.hide()
    const glass = (this.glass ??= this.make())
    const rect = sheet.getBoundingClientRect()
    const copy = sheet.cloneNode(true) as HTMLElement
    copy.style.transformOrigin = "0 0"
    copy.style.transform = `translate(${size / 2 - (x - rect.left) * power}px, ${size / 2 - (y - rect.top) * power}px) scale(${power})`
    glass.replaceChildren(copy)
    glass.style.transform = `translate(${Math.max(4, Math.min(innerWidth - size - 4, x - size / 2))}px, ${Math.max(4, y - above - size / 2)}px)`
  }

  hide(): void {
    this.glass?.remove()
    this.glass = null
  }

  private make(): HTMLElement {
    const glass = document.createElement("div")
    glass.className = "canvas magnifier"
    glass.setAttribute("aria-hidden", "true")
    document.body.append(glass)
    return glass
  }
}
