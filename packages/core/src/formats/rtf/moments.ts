/** Moments as RTF has them: one number of minutes, hours, day, month, year since 1900 and weekday, five to nine bits each. */

const bits = { minute: [0, 6], hour: [6, 5], day: [11, 5], month: [16, 4], year: [20, 9], weekday: [29, 3] } as const

/** @returns null for what is no moment */
export function momentWritten(iso: string): number | null {
  const date = new Date(iso)
  const year = date.getUTCFullYear() - 1900
  if (!(year >= 0 && year < 512)) return null
  const parts = {
    minute: date.getUTCMinutes(),
    hour: date.getUTCHours(),
    day: date.getUTCDate(),
    month: date.getUTCMonth() + 1,
    year,
    weekday: date.getUTCDay(),
  }
  const whole = Object.entries(bits).reduce((sum, [name, [at]]) => sum + parts[name as keyof typeof bits] * 2 ** at, 0)
  return whole | 0
}

/** @returns a moment in ISO 8601, to the minute; null for what is none */
export function momentRead(whole: number): string | null {
  const of = ([at, size]: readonly [number, number]) => (whole >>> at) & (2 ** size - 1)
  const { minute, hour, day, month, year } = bits
  const at = Date.UTC(1900 + of(year), of(month) - 1, of(day), of(hour), of(minute))
  return of(day) === 0 || of(month) === 0 ? null : `${new Date(at).toISOString().slice(0, 19)}Z`
}
