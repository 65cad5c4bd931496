/** How the window lies over the canvas, in pixels. Asking the browser has it lay out the page, so it is asked only when that may have changed. */
interface Known {
  scrollTop: number
  scrollLeft: number
  clientHeight: number
  clientWidth: number
}

export class Room {
  private known: Known | null = null

  constructor(private readonly host: HTMLElement) {}

  private get now(): Known {
    const { scrollTop, scrollLeft, clientHeight, clientWidth } = this.known ?? this.host
    return (this.known ??= { scrollTop, scrollLeft, clientHeight, clientWidth })
  }

  get scrollTop(): number {
    return this.now.scrollTop
  }
  get scrollLeft(): number {
    return this.now.scrollLeft
  }
  get clientHeight(): number {
    return this.now.clientHeight
  }
  get clientWidth(): number {
    return this.now.clientWidth
  }

  /** To be called when window or canvas may have another size, or were scrolled. */
  changed(): void {
    this.known = null
  }

  scrollTo(y: number): void {
    this.host.scrollTop = y
    this.known = null
  }

  scrollAside(x: number): void {
    this.host.scrollLeft = x
    this.known = null
  }
}
