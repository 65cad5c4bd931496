/** Columns: a band of text beside one another, filled one after the other, and as high as each other where a section ends. */
import { leastRoom, type PageSetup } from "../document"
import type { FlowSetter } from "./flow"
import type { Filled, Flowing } from "./regions"
import type { Paper } from "./paper"
import type { BlockPlace, Placed, Rule, Stack } from "./types"

export interface Band {
  columns: readonly Placed<Stack>[]
  rules: readonly Rule[]
  /** From its top to where its longest column ends, and the space wanted behind that. */
  height: number
  spaceAfter: number
  /** Where its lowest line ends: with a little less height, that would not fit. */
  bottom: number
  next: BlockPlace
  lookedAt: number
  atEnd: boolean
}

/** Columns in a width, from left to right: as many as have room for text, and alike where one would be too narrow otherwise. */
export function columnsIn(
  width: number,
  { count, gap, shares }: PageSetup["columns"],
): readonly { left: number; width: number }[] {
  const most = Math.max(1, Math.min(count, Math.floor((width + gap) / (leastRoom + gap))))
  const room = width - gap * (most - 1)
  const all = shares?.reduce((sum, share) => sum + share, 0) ?? 0
  const shared = shares?.length === most ? shares.map((share) => (room * share) / all) : []
  const fits = shared.length > 0 && shared.every((own) => own >= leastRoom)
  const widths = fits ? shared : Array.from({ length: most }, () => room / most)
  let left = -gap
  let before = 0
  return widths.map((own) => {
    left += before + gap
    before = own
    return { left, width: own }
  })
}

/** Thickness of the line between columns, and of its colour. */
const line = { width: 0.5, colour: "#5e564b" }
/** Looks for the least height, to so many halvings. */
const halvings = 12

export function fillBand(
  setter: FlowSetter,
  flow: Flowing,
  room: { x: number; y: number; width: number; height: number; fresh: boolean; paper: Paper },
  setting: PageSetup["columns"],
  start: BlockPlace,
): Band {
  const places = columnsIn(room.width, setting)
  const { setup, ...between } = room.paper
  const sheet = {
    sheet: { width: setup.width, height: setup.height },
    margins: { x: between.left, y: between.top, width: between.width, height: between.height },
  }
  const varies = places.some(({ width }) => width !== places[0]?.width)
  const fill = (height: number) => {
    const filled: Filled[] = []
    let at = start
    for (const [i, { left, width }] of places.entries()) {
      const floats = { x: room.x + left, y: room.y, ...sheet }
      const own = setter.fill(flow, { width, height, top: 0, fresh: room.fresh && i === 0, varies, floats }, at)
      // A paragraph that begins a new sheet ends this one.
      if (i > 0 && own.inside.length === 0) break
      filled.push(own)
      at = own.next
      if (own.atEnd || flow.blocks.nodes[at.block]?.type.name === "sectionBreak") break
    }
    return filled
  }
  const ends = ({ atEnd, next }: Filled) => atEnd || flow.blocks.nodes[next.block]?.type.name === "sectionBreak"
  let filled = fill(room.height)
  const last = filled.at(-1) as Filled
  if (places.length > 1 && ends(last)) filled = balanced(fill, filled, ends)
  const firstLeaf = flow.blocks.leaf(start.block)
  let leaf = firstLeaf
  const columns = filled.map((own, i): Placed<Stack> => {
    const { left, width } = places[i] as (typeof places)[number]
    const placed: Placed<Stack> = {
      box: {
        kind: "stack",
        role: "column",
        width,
        height: own.height,
        inside: own.inside,
        ...(own.floats.length > 0
          ? { floats: own.floats.map((float) => ({ ...float, leaf: float.leaf - leaf })) }
          : {}),
      },
      leaf: leaf - firstLeaf,
      x: room.x + left,
      y: room.y,
    }
    leaf = flow.blocks.leaf(own.next.block)
    return placed
  })
  const height = Math.max(...filled.map((own) => own.height))
  const end = filled.at(-1) as Filled
  return {
    columns,
    rules: setting.line
      ? places.slice(1, filled.length).map(({ left }) => ({
          x: room.x + left - (setting.gap + line.width) / 2,
          y: room.y,
          width: line.width,
          height,
          pattern: "solid" as const,
          colour: line.colour,
        }))
      : [],
    height,
    spaceAfter: end.spaceAfter,
    bottom: height,
    next: end.next,
    lookedAt: Math.max(...filled.map((own) => own.lookedAt)),
    atEnd: end.atEnd,
  }
}

/** The lowest columns into which all goes that went into those filled. */
function balanced(fill: (height: number) => Filled[], filled: Filled[], ends: (last: Filled) => boolean): Filled[] {
  const [highest] = [...filled].sort((a, b) => b.height - a.height)
  let best = filled
  let [low, high] = [(highest?.height ?? 0) / filled.length / 2, highest?.height ?? 0]
  for (let i = 0; i < halvings && high - low > 0.5; i++) {
    const middle = (low + high) / 2
    const tried = fill(middle)
    const last = tried.at(-1)
    const fits = last && ends(last) && tried.every((own) => own.height <= middle + 0.01)
    if (fits) [best, high] = [tried, middle]
    else low = middle
  }
  return best
}
