/** Bytes as text, in whatever encoding: by their mark, as UTF-8 where they are that, else by what is most likely. */
import { detect } from "chardet"

/** So many bytes are looked at where it has to be guessed. */
const looked = 64_000

export function textOf(bytes: Uint8Array): string {
  const [a, b] = bytes
  if (a === 0xff && b === 0xfe) return new TextDecoder("utf-16le").decode(bytes)
  if (a === 0xfe && b === 0xff) return new TextDecoder("utf-16be").decode(bytes)
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes)
  } catch {
    const guess = detect(bytes.subarray(0, looked)) ?? "windows-1252"
    try {
      return new TextDecoder(guess === "UTF-8" ? "windows-1252" : guess).decode(bytes)
    } catch {
      return new TextDecoder("windows-1252").decode(bytes)
    }
  }
}
