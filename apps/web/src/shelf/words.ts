import type { ShelfEntry } from "@biblon/wire"

const clock = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" })
const weekday = new Intl.DateTimeFormat("en-GB", { weekday: "long" })
const dayMonth = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short" })
const dayMonthYear = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric" })
const day = 24 * 60 * 60 * 1000

/** When something happened, as one would say it: the hour today, then yesterday, the weekday, the date. */
export function whenWords(time: number, now: number): string {
  const midnight = new Date(now).setHours(0, 0, 0, 0)
  if (time >= midnight) return clock.format(time)
  if (time >= midnight - day) return "yesterday"
  if (time >= midnight - 6 * day) return weekday.format(time)
  return new Date(time).getFullYear() === new Date(now).getFullYear()
    ? dayMonth.format(time)
    : dayMonthYear.format(time)
}

/** What stands for a document on the shelf: its name, or how its text begins, or when it was begun. */
export function titleWords({ name, opening, created }: ShelfEntry, now: number): { text: string; named: boolean } {
  if (name) return { text: name, named: true }
  return { text: opening ? `“${opening}”` : `Blank, begun ${whenWords(created, now)}`, named: false }
}

export function sheetWords(sheets: number | null | undefined): string | null {
  return sheets === undefined || sheets === null ? null : `${sheets} ${sheets === 1 ? "sheet" : "sheets"}`
}
