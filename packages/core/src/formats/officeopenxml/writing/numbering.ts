/** Lists: a definition of ours is an abstract one, each run of it an instance. */
import { levelOf, listNamed, type ListLevel, type ListPlace, type StyleSheet } from "../../../document"
import { xml } from "../../xml/writing"
import { boxes } from "../../boxes"
import { runProperties } from "./letters"
import { flag, twips, value } from "./values"

const forms: Readonly<Record<ListLevel["numbering"], string>> = {
  decimal: "decimal",
  zero: "decimalZero",
  lowerLetter: "lowerLetter",
  upperLetter: "upperLetter",
  lowerRoman: "lowerRoman",
  upperRoman: "upperRoman",
}

function level(own: ListLevel, depth: number, box: string): string {
  const numbered = own.kind === "number"
  return xml(
    "w:lvl",
    { "w:ilvl": depth },
    value("w:start", own.start),
    value("w:numFmt", numbered ? forms[own.numbering] : "bullet"),
    numbered && own.restart !== 0 && value("w:lvlRestart", own.restart ?? 0),
    numbered && own.legal && flag("w:isLgl", true),
    value("w:suff", { tab: "tab", space: "space", none: "nothing" }[own.follow]),
    value("w:lvlText", own.kind === "check" ? box : own.format),
    value("w:lvlJc", own.align),
    xml(
      "w:pPr",
      null,
      xml("w:ind", { "w:left": twips(own.indent), "w:hanging": twips(own.hanging) }),
      own.tight && flag("w:contextualSpacing", true),
    ),
    runProperties(own.letters),
  )
}

export class WrittenLists {
  private readonly abstracts = new Map<string, { id: number; key: string; box: string }>()
  private readonly nums: { abstract: number; starts: string }[] = []
  /** The instance of each run, as it goes on at the moment. */
  private readonly runs = new Map<string, number>()

  constructor(private readonly sheet: StyleSheet) {}

  get used(): boolean {
    return this.nums.length > 0
  }

  private abstract(key: string, box: string): number {
    const known = this.abstracts.get(key + box)
    if (known) return known.id
    const made = { id: this.abstracts.size, key, box }
    this.abstracts.set(key + box, made)
    return made.id
  }

  /** An instance of a definition in which levels begin where that is said. */
  private instance(abstract: number, starts: readonly (readonly [level: number, start: number])[]): number {
    const said = starts.map(([ilvl, start]) =>
      xml("w:lvlOverride", { "w:ilvl": ilvl }, value("w:startOverride", start)),
    )
    return this.nums.push({ abstract, starts: said.join("") })
  }

  /** The instance to which an item belongs. */
  item({ definition, run, level: depth, start, done }: ListPlace): { num: number; level: number } {
    const check = levelOf(this.sheet, definition, depth).kind === "check"
    const box = check && done ? boxes.done : boxes.open
    const abstract = this.abstract(definition, check ? box : "")
    const name = `${definition} ${run} ${check ? box : ""}`
    let num = this.runs.get(name)
    if (num === undefined || start !== undefined) {
      const { levels } = listNamed(this.sheet, definition)
      num = this.instance(
        abstract,
        start !== undefined ? [[depth, start]] : run === "" ? [] : levels.map((own, i) => [i, own.start] as const),
      )
      this.runs.set(name, num)
    }
    return { num, level: depth }
  }

  /** The content of the part, after all items were written. */
  part(): string {
    return (
      [...this.abstracts.values()]
        .map(({ id, key, box }) =>
          xml(
            "w:abstractNum",
            { "w:abstractNumId": id },
            value("w:multiLevelType", "multilevel"),
            value("w:name", key),
            ...listNamed(this.sheet, key).levels.map((own, depth) => level(own, depth, box || boxes.open)),
          ),
        )
        .join("") +
      this.nums
        .map(({ abstract, starts }, i) =>
          xml("w:num", { "w:numId": i + 1 }, value("w:abstractNumId", abstract), starts),
        )
        .join("")
    )
  }
}
