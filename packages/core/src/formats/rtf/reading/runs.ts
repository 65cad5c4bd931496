/** Text on its way into a paragraph: bytes until their encoding is known, letters until their look changes. */
import { decoded } from "./encodings"
import { escaped, lettersBeside, lettersXml, type Letters } from "./letters"
import type { Paragraph } from "./paragraphs"
import { Story } from "./story"
import type { Book } from "./tellings"

/** What text stands in. */
interface At {
  letters: Letters
  paragraph: Paragraph
}

export class Runs {
  story: Story
  /** Number of the encoding, and of the typeface, where nothing else is said. */
  page = 1252
  usualFont = 0
  private bytes: number[] = []
  private written = ""
  private at: At | null = null

  constructor(private readonly book: Book) {
    this.story = this.begin()
  }

  /** A text of its own. */
  begin(): Story {
    return new Story(this.book)
  }

  byte(byte: number): void {
    this.bytes.push(byte)
  }

  /** The bytes that have come, as text; "" for none. */
  taken({ font }: Letters): string {
    if (this.bytes.length === 0) return ""
    const page = font === null ? null : this.book.fonts.get(font)?.page
    const text = decoded(this.bytes, page ?? this.page)
    this.bytes = []
    return text
  }

  say(text: string, at: At): void {
    if (this.at?.letters !== at.letters) this.flush()
    this.at = { letters: at.letters, paragraph: at.paragraph }
    this.written += text
  }

  /** Writes down what was said. */
  flush(): void {
    const { written, at } = this
    this.written = ""
    if (written !== "" && at) this.run(`<w:t xml:space="preserve">${escaped(written)}</w:t>`, at)
  }

  /** Something that stands in a run. */
  put(inside: string, at: At): void {
    this.flush()
    this.run(inside, at)
  }

  /** Something that stands beside runs. */
  putBeside(xml: string): void {
    this.flush()
    this.story.runs += xml
  }

  private run(inside: string, at: At): void {
    this.story.runs += `<w:r>${this.look(at)}${inside}</w:r>`
  }

  look({ letters, paragraph }: At): string {
    const base = this.book.look(paragraph.style).letters
    return lettersXml(lettersBeside(letters, base, this.usualFont), this.book)
  }
}
