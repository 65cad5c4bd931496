/** What the sheets show, to hold one opening against another. */
import type { Page } from "@playwright/test"

/** The sheets in sight by their names, or the text in flow: each piece of text with its look, and where it stands in thousandths of their width. */
export interface Shown {
  /** How wide and how large the text is drawn: other openings show other strips of it. */
  size: string
  sheets: Record<string, SheetShown>
}

interface SheetShown {
  /** Between which heights everything has to be there. */
  from: number
  to: number
  pieces: { what: string; x: number; y: number }[]
}

export function shown(page: Page): Promise<Shown> {
  return page.evaluate(() => {
    const inSight = [...document.querySelectorAll(".canvas .sheet")].filter((sheet) => {
      const { top, bottom } = sheet.getBoundingClientRect()
      return bottom > 100 && top < innerHeight - 60
    })
    const flow = document.querySelector(".canvas.flow") !== null
    const piecesOf = (sheet: Element, { left, top, width }: DOMRect) =>
      [...sheet.querySelectorAll(".run, .picture")].map((own) => {
        const box = own.getBoundingClientRect()
        const { fontFamily, color } = getComputedStyle(own)
        const place = { x: ((box.left - left) / width) * 1000, y: ((box.top - top) / width) * 1000 }
        return { what: `${own.className} ${own.textContent} ${fontFamily} ${color}`, ...place }
      })
    const whole = document.querySelector(".canvas")!.getBoundingClientRect()
    const inWhole = (y: number) => ((y - whole.top) / whole.width) * 1000
    // A sheet is drawn as a whole; of a text in flow, whose strips have no names, what is in sight.
    const sheets: Shown["sheets"] = flow
      ? {
          text: {
            from: inWhole(100),
            to: inWhole(innerHeight - 100),
            pieces: inSight.flatMap((strip) => piecesOf(strip, whole)),
          },
        }
      : Object.fromEntries(
          inSight.map((sheet) => {
            const box = sheet.getBoundingClientRect()
            const part = { from: -1e6, to: 1e6, pieces: piecesOf(sheet, box) }
            return [sheet.getAttribute("aria-label") ?? "", part]
          }),
        )
    const width = inSight[0]?.getBoundingClientRect().width.toFixed(1) ?? ""
    const letters = document.querySelector<HTMLElement>(".canvas .run")?.style.fontSize ?? ""
    return { size: `${flow ? letters : ""} ${width}`, sheets }
  })
}

/** What one opening shows and the other does not, on sheets that both show. */
export function difference(live: Shown, fresh: Shown): string[] {
  if (live.size !== fresh.size) return []
  return Object.entries(live.sheets).flatMap(([name, own]) => {
    const other = fresh.sheets[name]
    if (!other) return []
    const from = Math.max(own.from, other.from)
    const to = Math.min(own.to, other.to)
    const rest = [...other.pieces]
    const gone = own.pieces.filter(({ what, x, y }) => {
      const like = rest.findIndex(
        (piece) => piece.what === what && Math.abs(piece.x - x) < 2.5 && Math.abs(piece.y - y) < 2.5,
      )
      if (like >= 0) rest.splice(like, 1)
      return like < 0
    })
    const told = (list: SheetShown["pieces"], where: string) =>
      list.filter(({ y }) => y > from && y < to).map((piece) => `${name} ${where}: ${JSON.stringify(piece)}`)
    return [...told(gone, "here only"), ...told(rest, "fresh only")]
  })
}
