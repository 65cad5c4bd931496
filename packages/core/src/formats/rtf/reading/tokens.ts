/** The signs of RTF: groups, control words, text. What is damaged is taken as far as it makes sense; nothing is remembered of what was passed. */

export interface RtfTaker {
  open(): void
  close(): void
  /** A control word, or a control symbol by its sign. @param value null where none is written */
  word(name: string, value: number | null): void
  /** Bytes of text, in the encoding that is then in use. */
  text(bytes: Uint8Array): void
  /** A byte written as two hexadecimal digits. */
  hex(byte: number): void
  /** Bytes as they are. */
  binary(bytes: Uint8Array): void
}

const [backslash, open, close, cr, lf, quote, minus, space] = [92, 123, 125, 13, 10, 39, 45, 32]

const isLetter = (code: number) => (code >= 97 && code <= 122) || (code >= 65 && code <= 90)
const isDigit = (code: number) => code >= 48 && code <= 57
const digitOf = (code: number | undefined): number =>
  code === undefined ? NaN : Number.parseInt(String.fromCharCode(code), 16)

/** Letters of the longest control word, and digits of the largest value. */
const longest = { word: 32, value: 10 }

export function takeRtf(bytes: Uint8Array, taker: RtfTaker): void {
  const { length } = bytes
  let at = 0
  while (at < length) {
    const code = bytes[at] as number
    if (code === open) {
      taker.open()
      at++
    } else if (code === close) {
      taker.close()
      at++
    } else if (code === cr || code === lf) at++
    else if (code === backslash) at = takeControl(bytes, at + 1, taker)
    else {
      const from = at
      while (at < length) {
        const own = bytes[at] as number
        if (own === open || own === close || own === backslash || own === cr || own === lf) break
        at++
      }
      taker.text(bytes.subarray(from, at))
    }
  }
}

/** @returns where what follows begins */
function takeControl(bytes: Uint8Array, from: number, taker: RtfTaker): number {
  let at = from
  const first = bytes[at]
  if (first === undefined) return at
  if (first === quote) {
    const byte = digitOf(bytes[at + 1]) * 16 + digitOf(bytes[at + 2])
    if (Number.isNaN(byte)) return at + 1
    taker.hex(byte)
    return at + 3
  }
  if (!isLetter(first)) {
    taker.word(first === cr || first === lf ? "par" : String.fromCharCode(first), null)
    return at + 1
  }
  while (isLetter(bytes[at] ?? 0) && at - from < longest.word) at++
  const name = String.fromCharCode(...bytes.subarray(from, at))
  const sign = bytes[at] === minus && isDigit(bytes[at + 1] ?? 0) ? -1 : 1
  if (sign < 0) at++
  let value: number | null = null
  for (const begins = at; isDigit(bytes[at] ?? 0) && at - begins < longest.value; at++)
    value = (value ?? 0) * 10 + (bytes[at] as number) - 48
  if (bytes[at] === space) at++
  if (name === "bin" && value !== null) {
    taker.binary(bytes.subarray(at, at + value))
    return at + value
  }
  taker.word(name, value === null ? null : value * sign)
  return at
}
