/** Things of the shelf dragged onto a folder, onto one another, or onto the path above; and a long press that begins to choose. */
import type { MouseEvent, PointerEvent } from "react"
import { create } from "zustand"
import { followPress } from "../ui/followPress"
import { gathering, lyingIn, between, moving, withInside } from "./arranging"
import { useShelf } from "./store"

interface Carrying {
  ids: readonly string[]
  x: number
  y: number
  /** What they would be laid on: the id of a folder or document, empty for the shelf itself; null for nothing. */
  over: string | null
}

export const useCarrying = create<{ now: Carrying | null }>(() => ({ now: null }))

/** Milliseconds after which a finger that rests chooses what it rests on. */
const longPress = 450
/** Pixels of movement up to which a press is none but a press. */
const slack = { mouse: 6, touch: 10 }
/** So near the edges, in pixels, the shelf scrolls while something is dragged; by so much a frame. */
const edge = 70
const scrollStep = 9

/** The attributes of something onto which others can be laid. */
export const laidOn = (id: string | null) => ({ "data-lays": id ?? "" })

/** What lies under the pointer onto which those that are carried can be laid. */
function targetAt(x: number, y: number, ids: readonly string[]): string | null {
  const { contents } = useShelf.getState()
  const id = document.elementFromPoint(x, y)?.closest<HTMLElement>("[data-lays]")?.dataset.lays
  if (id === undefined || !contents || ids.includes(id) || withInside(contents, ids).has(id)) return null
  return id
}

/** Scrolls what holds the list while the pointer is near its upper or lower edge. Returns whether it did. */
function scrollNear(y: number): boolean {
  const scroller = document.querySelector("main")
  const by = y < edge ? -scrollStep : y > innerHeight - edge ? scrollStep : 0
  const before = scroller?.scrollTop
  if (by !== 0) scroller?.scrollBy(0, by)
  return scroller?.scrollTop !== before
}

function layDown({ ids, over }: Carrying): void {
  const { contents, change, name } = useShelf.getState()
  if (!contents || over === null) return
  const what = ids.length === 1 ? "It was" : `${ids.length} were`
  const under = contents.documents.find(({ id }) => id === over)
  if (!under) return void change(`${what} moved`, moving(contents, ids, over || null))
  const made = newId()
  void change("A folder was made", gathering(contents, [...ids, over], made, under.folder)).then(() => name(made))
}

/** A new id for a folder. */
export function newId(): string {
  return [...crypto.getRandomValues(new Uint8Array(12))].map((byte) => (byte % 36).toString(36)).join("")
}

/** A press that was more than one: the click that follows it does nothing. */
let spent = false

/** The pointers of fingers that carry something, or are about to. */
const fingers = new Set<number>()

/** Whether the finger that came last stopped what was scrolling: it chooses nothing, and nothing can keep it from scrolling. */
let stopped = false

/** A finger that carries does not scroll the shelf. It hears of fingers before one comes: what listens only from then on may be asked too late. @returns what ends that */
export function carriesInstead(shelf: HTMLElement | null): () => void {
  const over = new AbortController()
  const { signal } = over
  shelf?.addEventListener("touchstart", ({ cancelable }) => (stopped = !cancelable), { passive: true, signal })
  const hear = (event: TouchEvent) => {
    if (fingers.size > 0) event.preventDefault()
  }
  shelf?.addEventListener("touchmove", hear, { passive: false, signal })
  return () => over.abort()
}

function drag(id: string, press: PointerEvent<HTMLElement>): void {
  const touch = press.pointerType !== "mouse"
  const { chosen, choose } = useShelf.getState()
  const ids = chosen?.has(id) ? [...chosen] : [id]
  let armed = !touch
  let { clientX: x, clientY: y } = press
  let frame = 0
  const timer = touch
    ? setTimeout(() => {
        if (stopped) return
        armed = spent = true
        fingers.add(press.pointerId)
        if (!chosen?.has(id)) choose([...(chosen ?? []), id])
      }, longPress)
    : 0
  const carry = () => useCarrying.setState({ now: { ids, x, y, over: targetAt(x, y, ids) } })
  const scrolling = () => {
    // Where it scrolls, something else comes to lie under a pointer at rest.
    if (scrollNear(y)) carry()
    frame = requestAnimationFrame(scrolling)
  }
  followPress(window, press, {
    slack: touch ? slack.touch : slack.mouse,
    move(_dx, _dy, event) {
      if (!armed) return clearTimeout(timer)
      spent = true
      ;({ clientX: x, clientY: y } = event)
      frame ||= requestAnimationFrame(scrolling)
      carry()
    },
    end(how) {
      clearTimeout(timer)
      cancelAnimationFrame(frame)
      fingers.delete(press.pointerId)
      const { now } = useCarrying.getState()
      useCarrying.setState({ now: null })
      if (how === "moved" && now) layDown(now)
      // The click comes right after it, if it comes.
      setTimeout(() => (spent = false))
    },
  })
}

/** What hears of presses on a document or folder: to open, to choose, to carry. */
export function pressing(id: string, open: () => void) {
  return {
    onPointerDown(event: PointerEvent<HTMLElement>) {
      spent = stopped = false
      if (event.button === 0 && !(event.target as HTMLElement).closest("input")) drag(id, event)
    },
    onContextMenu(event: MouseEvent) {
      if (matchMedia("(pointer: coarse)").matches) event.preventDefault()
    },
    onDragStart: (event: MouseEvent) => event.preventDefault(),
    onClick(event: MouseEvent) {
      if (spent) return
      const { chosen, choose } = useShelf.getState()
      if (event.shiftKey && chosen) return choose([...chosen, ...reachedBy(chosen, id)])
      if (!chosen && !event.ctrlKey && !event.metaKey) return open()
      turn(id)
    },
  }
}

/** Chooses something, or no longer. */
export function turn(id: string): void {
  const { chosen, choose } = useShelf.getState()
  choose(chosen?.has(id) ? [...chosen].filter((own) => own !== id) : [...(chosen ?? []), id])
}

/** Those from the one chosen last to another. */
function reachedBy(chosen: ReadonlySet<string>, id: string): string[] {
  const { contents, order } = useShelf.getState()
  const folder = contents && [...contents.documents, ...contents.folders].find((own) => own.id === id)?.folder
  const last = [...chosen].at(-1)
  return contents && last !== undefined ? between(lyingIn(contents, folder ?? null, order), last, id) : [id]
}
