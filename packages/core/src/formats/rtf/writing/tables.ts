/** Colours, typefaces and styles as they are numbered in the file that is written. */

export class Numbered {
  readonly colours: string[] = []
  readonly fonts: string[] = []

  private static of(list: string[], own: string): number {
    const known = list.indexOf(own)
    return known >= 0 ? known : list.push(own) - 1
  }

  /** @param colour six digits; numbers begin with 1, since 0 is that of the surroundings */
  colour(colour: string): number {
    return Numbered.of(this.colours, colour.toLowerCase()) + 1
  }

  font(name: string): number {
    return Numbered.of(this.fonts, name)
  }

  get colourTable(): string {
    const told = this.colours.map((colour) => {
      const [red, green, blue] = [0, 2, 4].map((at) => Number.parseInt(colour.slice(at, at + 2), 16) || 0)
      return `\\red${red}\\green${green}\\blue${blue};`
    })
    return `{\\colortbl;${told.join("")}}`
  }

  get fontTable(): string {
    return `{\\fonttbl${this.fonts.map((name, n) => `{\\f${n}\\fnil ${text(name)};}`).join("")}}`
  }
}

/** Text as it is written: what is beyond ASCII by its number in Unicode. */
export function text(words: string): string {
  let out = ""
  for (let i = 0; i < words.length; i++) {
    const code = words.charCodeAt(i)
    const sign = words.charAt(i)
    if (sign === "\\" || sign === "{" || sign === "}") out += `\\${sign}`
    else if (code >= 32 && code < 127) out += sign
    else if (code === 9) out += "\\tab "
    else if (code === 0xa0) out += "\\~"
    else if (code === 0xad) out += "\\-"
    else if (code === 0x2011) out += "\\_"
    else if (code > 126) out += `\\u${code > 32767 ? code - 65536 : code}?`
  }
  return out
}
