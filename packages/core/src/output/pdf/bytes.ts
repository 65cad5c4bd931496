/** Bytes written one after another: what sheets draw is hundreds of thousands of glyphs, each two bytes of a string. */
export class Bytes {
  private bytes = new Uint8Array(1 << 14)
  private length = 0

  private room(more: number): void {
    if (this.length + more <= this.bytes.length) return
    const larger = new Uint8Array(Math.max(this.bytes.length * 2, this.length + more))
    larger.set(this.bytes)
    this.bytes = larger
  }

  /** Writes text, each sign of which is a byte. */
  say(text: string): void {
    this.room(text.length)
    for (let i = 0; i < text.length; i++) this.bytes[this.length++] = text.charCodeAt(i)
  }

  /** Writes two bytes inside a literal string (ISO 32000-1, 7.3.4.2), which is half as long as one in hexadecimal. */
  code(value: number): void {
    this.room(4)
    this.literal(value >> 8)
    this.literal(value & 255)
  }

  private literal(byte: number): void {
    // A carriage return would be read as the end of a line, and the signs ( ) \ mean something there.
    const escaped = byte === 0x0d || byte === 0x28 || byte === 0x29 || byte === 0x5c
    if (escaped) this.bytes[this.length++] = 0x5c
    this.bytes[this.length++] = byte === 0x0d ? 0x72 : byte
  }

  /** Writes something between a beginning and an end, which are left out where nothing is written between them. */
  within(begin: string, end: string, write: () => void): void {
    const before = this.length
    this.say(begin)
    const start = this.length
    write()
    if (this.length === start) this.length = before
    else this.say(end)
  }

  /** All that was written. */
  get all(): Uint8Array {
    return this.bytes.subarray(0, this.length)
  }
}
