/** The style sheet. */
import { bodyStyle, entryOf, type Style, type StyleSheet, type TabStop } from "../../../document"
import { xml } from "../../xml/writing"
import { commonStyles } from "../commonStyles"
import { runProperties } from "./letters"
import type { WrittenLists } from "./numbering"
import { paragraphProperties } from "./paragraphs"
import { flag, value } from "./values"

const standardNames = new Map([...commonStyles].map(([name, key]) => [key, name]))
const written: Readonly<Record<string, string>> = {
  normal: "Normal",
  title: "Title",
  subtitle: "Subtitle",
  quote: "Quote",
  "list paragraph": "List Paragraph",
  bibliography: "Bibliography",
  emphasis: "Emphasis",
  strong: "Strong",
}

export class WrittenStyles {
  private readonly ids = new Map<string, string>()

  constructor(private readonly sheet: StyleSheet) {
    const taken = new Set<string>()
    for (const key of Object.keys(sheet.styles)) {
      const name = standardNames.get(key)
      const wished = name ? name.replace(/\b\w/g, (sign) => sign.toUpperCase()).replaceAll(" ", "") : key
      let id = wished.replace(/[^\p{L}\p{N}_-]/gu, "") || "style"
      for (let n = 2; taken.has(id); n++) id = `${wished}${n}`
      taken.add(id)
      this.ids.set(key, id)
    }
  }

  id(key: string): string | undefined {
    return this.ids.get(entryOf(this.sheet.styles, key) ? key : bodyStyle)
  }

  /** Of paragraphs, the id unless it is that of all paragraphs. */
  paragraphId(key: string): string | undefined {
    return key === bodyStyle ? undefined : this.id(key)
  }

  private chain(key: string | null): Style[] {
    const found: Style[] = []
    for (let at = key, turns = 0; at !== null && turns < 40; turns++) {
      const own: Style | undefined = entryOf(this.sheet.styles, at)
      if (!own) break
      found.push(own)
      at = own.parent
    }
    return found
  }

  /** The stops of a style with all that it starts from. */
  tabs(key: string | null): readonly TabStop[] {
    return this.chain(key).find(({ paragraph }) => paragraph.tabs)?.paragraph.tabs ?? this.sheet.defaults.paragraph.tabs
  }

  isBackward(key: string | null): boolean {
    const own = this.chain(key).find(({ paragraph }) => paragraph.direction)?.paragraph.direction
    return (own ?? this.sheet.defaults.paragraph.direction) === "rtl"
  }

  part(lists: WrittenLists): string {
    const { letters, paragraph } = this.sheet.defaults
    const { list: _list, dropCap: _cap, listed: _listed, listedAs: _as, tabs, borders: _borders, ...plain } = paragraph
    const defaults = xml(
      "w:docDefaults",
      null,
      xml("w:rPrDefault", null, runProperties(letters)),
      xml(
        "w:pPrDefault",
        null,
        paragraphProperties({ ...plain, ...(tabs.length > 0 ? { tabs } : {}) }, {}, plain.direction === "rtl"),
      ),
    )
    return (
      defaults +
      Object.entries(this.sheet.styles)
        .map(([key, own]) => this.style(key, own, lists))
        .join("")
    )
  }

  private style(key: string, own: Style, lists: WrittenLists): string {
    const letters = own.kind === "letters"
    const name = standardNames.get(key)
    const { list, ...format } = own.paragraph
    const backward = (own.paragraph.direction ?? (this.isBackward(own.parent) ? "rtl" : "ltr")) === "rtl"
    return xml(
      "w:style",
      {
        "w:type": letters ? "character" : "paragraph",
        "w:default": key === bodyStyle ? 1 : undefined,
        "w:customStyle": name ? undefined : 1,
        "w:styleId": this.ids.get(key),
      },
      value("w:name", name ? (written[name] ?? name) : own.name),
      value("w:basedOn", own.parent === null ? undefined : this.ids.get(own.parent)),
      !letters && value("w:next", own.next === null ? undefined : this.ids.get(own.next)),
      flag("w:qFormat", true),
      !letters &&
        paragraphProperties(
          format,
          {
            inherited: own.parent === null ? this.sheet.defaults.paragraph.tabs : this.tabs(own.parent),
            numbering: list === undefined ? undefined : list && lists.item(list),
            outline: own.outline === null ? undefined : own.outline - 1,
          },
          backward,
        ),
      runProperties(own.letters),
    )
  }
}
