/** So many characters are compared at once before they are one by one: in a long text most are the same. */
const stretch = 1024

/** How many characters two texts share at their start. */
export function commonStart(a: string, b: string): number {
  const most = Math.min(a.length, b.length)
  let n = 0
  while (n + stretch <= most && a.slice(n, n + stretch) === b.slice(n, n + stretch)) n += stretch
  while (n < most && a[n] === b[n]) n++
  return n
}

/** How many characters two texts share at their end. */
export function commonEnd(a: string, b: string): number {
  const most = Math.min(a.length, b.length)
  const before = (text: string, n: number) => text.slice(text.length - n - stretch, text.length - n)
  let n = 0
  while (n + stretch <= most && before(a, n) === before(b, n)) n += stretch
  while (n < most && a[a.length - 1 - n] === b[b.length - 1 - n]) n++
  return n
}

/** Where two texts differ: from `from` on, up to `oldTo` in the older and `newTo` in the newer one. */
export interface TextChange {
  from: number
  oldTo: number
  newTo: number
}

export function textChange(older: string, newer: string): TextChange {
  const from = commonStart(older, newer)
  const tail = Math.min(commonEnd(older, newer), Math.min(older.length, newer.length) - from)
  return { from, oldTo: older.length - tail, newTo: newer.length - tail }
}
