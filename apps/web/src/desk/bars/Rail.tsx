/** One rail of a table: along its columns or its rows, each of which can be chosen, moved and made larger there. */
import type { ComponentProps, KeyboardEvent, PointerEvent } from "react"
import type { Command } from "@biblon/core/editing"
import { Press } from "../../ui/bar"
import { followPress, takePress } from "../../ui/followPress"
import { useSession } from "../context"
import { dragLength } from "../dragging"

/** A column or row, in pixels of the canvas from the table's corner. */
export interface RailPart {
  /** Which column or row, from 0. */
  number: number
  start: number
  length: number
  on: boolean
}

interface RailProps {
  along: "x" | "y"
  name: "Column" | "Row"
  parts: readonly RailPart[]
  thick: number
  gap: number
  touch: boolean
  /** The first column or row that is chosen, and the one behind the last. */
  chosen: readonly [from: number, to: number]
  select(from: number, to: number): Command
  move(from: number, to: number, before: number): Command
  /** Widths or heights, in points. */
  size: {
    of: string
    now(part: number): number
    perPixel: number
    snap: number
    least: number
    most(part: number): number
    set(part: number, to: number): Command
  }
  /** Where what is dragged would come to stand, in pixels; null when nothing is dragged. */
  onDrop(drop: { along: "x" | "y"; at: number } | null): void
}

/** Movement, in pixels, from which on a press moves what it is on. */
const moves = 8
/** Points by which a key changes a size. */
const keyStep = 4

/** So much of a rail is drawn, next to the table: what a finger needs beyond that would cover the text above. */
const drawn = 9

/** What is pressed in a rail, as large as it has to be, with what is drawn of it. */
export function RailPress({
  on,
  along,
  ...press
}: Omit<ComponentProps<typeof Press>, "className" | "children"> & { on: boolean; along: "x" | "y" | "both" }) {
  const reach = {
    left: along === "x" ? 0 : "auto",
    top: along === "y" ? 0 : "auto",
    width: along === "x" ? "100%" : drawn,
    height: along === "y" ? "100%" : drawn,
  }
  return (
    <Press {...press} className="group absolute touch-none border-0 bg-transparent p-0">
      <span
        className={`absolute bottom-0 right-0 rounded-[3px] border border-line ${on ? "bg-murex" : "bg-surface group-hover:bg-murex-soft"}`}
        style={reach}
      />
    </Press>
  )
}

/** Before which of them something let go at a place would come to stand. */
function target(parts: readonly RailPart[], at: number): number {
  const behind = parts.find(({ start, length }) => at < start + length / 2)
  return behind ? behind.number : (parts.at(-1)?.number ?? 0) + 1
}

function lineAt(parts: readonly RailPart[], number: number): number {
  const own = parts.find((part) => part.number === number)
  const last = parts.at(-1)
  return own ? own.start : last ? last.start + last.length : 0
}

export function Rail({ along, name, parts, thick, gap, touch, chosen, select, move, size, onDrop }: RailProps) {
  const session = useSession()
  const flat = along === "x"
  /** A box of the rail: along it, then across it. */
  const box = (start: number, length: number, high: number) =>
    flat
      ? { left: start, top: -thick - gap, width: length, height: high }
      : { left: -thick - gap, top: start, width: high, height: length }

  const act = (command: Command) => {
    session.run(command)
    session.focus()
  }

  /** A press selects, a drag moves. */
  const press = (event: PointerEvent<HTMLElement>, { number, start, length, on }: RailPart) => {
    if (!takePress(event)) return
    const { shiftKey } = event
    let before: number | null = null
    followPress(event.currentTarget, event, {
      slack: moves,
      move: (dx, dy) => {
        before = target(parts, start + length / 2 + (flat ? dx : dy))
        onDrop({ along, at: lineAt(parts, before) })
      },
      end: (how) => {
        onDrop(null)
        const [from, to] = chosen
        if (how === "pressed")
          act(shiftKey ? select(Math.min(from, number), Math.max(to, number + 1)) : select(number, number + 1))
        else if (how === "moved" && before !== null) act(on ? move(from, to, before) : move(number, number + 1, before))
      },
    })
  }

  const stretch = (event: PointerEvent<HTMLElement>, number: number) =>
    dragLength(event, {
      along,
      value: size.now(number),
      perPixel: size.perPixel,
      snap: size.snap,
      least: size.least,
      most: size.most(number),
      show: (to) => session.trial.show(typeof to === "number" ? size.set(number, to) : null, "once"),
      take: (to) => to !== null && session.run(size.set(number, to)),
    })

  const key = (event: KeyboardEvent, number: number) => {
    const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key]
    if (!by) return
    event.preventDefault()
    event.stopPropagation()
    session.run(size.set(number, Math.max(size.least, size.now(number) + by * keyStep)))
  }

  const grip = touch ? 18 : 8
  return (
    <>
      {parts.map((part) => (
        <RailPress
          key={`p${part.number}`}
          on={part.on}
          along={along}
          aria-label={`${name} ${part.number + 1}`}
          aria-pressed={part.on}
          title="Press to select, drag to move"
          style={box(part.start + 1, Math.max(2, part.length - 2), thick)}
          onClick={(event) => event.detail === 0 && session.run(select(part.number, part.number + 1))}
          onPointerDown={(event) => press(event, part)}
        />
      ))}
      {parts.map(({ number, start, length }) => (
        <div
          key={`s${number}`}
          role="slider"
          tabIndex={0}
          aria-label={`${size.of} ${number + 1}`}
          aria-valuenow={Math.round(size.now(number))}
          aria-valuemin={size.least}
          aria-valuemax={1000}
          aria-valuetext={`${Math.round(size.now(number))} pt`}
          className={`absolute touch-none ${flat ? "cursor-col-resize" : "cursor-row-resize"}`}
          style={box(start + length - grip / 2, grip, thick + gap)}
          onPointerDown={(event) => stretch(event, number)}
          onKeyDown={(event) => key(event, number)}
        />
      ))}
    </>
  )
}
