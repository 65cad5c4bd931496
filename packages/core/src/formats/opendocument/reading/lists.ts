/** Lists (OpenDocument 1.3, part 3, 5.3 and 19.880): each begins anew unless it says that it goes on. */
import {
  asName,
  entryOf,
  fitLevel,
  limits,
  newRun,
  readyLists,
  within,
  type ListDefinition,
  type ListLevel,
} from "../../../document"
import { meanings } from "../../meanings"
import { child, isElement, type XmlElement } from "../../xml/parsing"
import { boxes } from "../../boxes"
import { formMeant } from "../numberForms"
import { lengthOf, readLetters, type LetterContext } from "./properties"

const alignMeant = meanings<ListLevel["align"]>({ center: "center", end: "right", right: "right" })
const followMeant = meanings<ListLevel["follow"]>({ space: "space", nothing: "none" })
function levelOf(own: XmlElement, depth: number, context: LetterContext): ListLevel {
  const { attrs } = own
  const properties = child(own, "style:list-level-properties")
  const label = child(properties, "style:list-level-label-alignment")?.attrs
  const form = attrs["style:num-format"] ?? ""
  const number = own.name !== "text:list-level-style-bullet" && form !== ""
  const shown = within(Number(attrs["text:display-levels"] ?? 1) || 1, [1, depth + 1])
  const path = Array.from({ length: shown }, (_, i) => `%${depth - shown + i + 2}`).join(".")
  const { format: letters } = readLetters(child(own, "style:text-properties"), context, undefined)
  const left = lengthOf(label?.["fo:margin-left"])
  const first = lengthOf(label?.["fo:text-indent"])
  const space = lengthOf(properties?.attrs["text:space-before"]) ?? 0
  const width = lengthOf(properties?.attrs["text:min-label-width"]) ?? 0
  const sign = attrs["text:bullet-char"] ?? ""
  if (own.name === "text:list-level-style-bullet") delete letters.family
  return fitLevel({
    format: number
      ? `${attrs["style:num-prefix"] ?? ""}${path}${attrs["style:num-suffix"] ?? ""}`
      : own.name === "text:list-level-style-image"
        ? "•"
        : sign || (attrs["style:num-suffix"] ?? ""),
    kind: number ? "number" : "mark",
    numbering: formMeant(form) ?? "decimal",
    start: Number(attrs["text:start-value"] ?? 1) || 1,
    indent: label ? (left ?? 0) : space + width,
    hanging: label ? Math.max(0, -(first ?? 0)) : width,
    align: alignMeant(properties?.attrs["fo:text-align"]) ?? "left",
    follow: followMeant(label?.["text:label-followed-by"]) ?? "tab",
    restart: 0,
    legal: false,
    tight: false,
    letters,
  })
}

export class Lists {
  readonly definitions: Record<string, ListDefinition> = {}
  private readonly keys = new Map<XmlElement, string>()
  /** Runs by the lists that can be gone on with: the last of each style, and by their names. */
  private readonly runs = new Map<string, string>()

  constructor(private readonly context: LetterContext) {}

  /** The key of the definition that a style of lists is; undefined for one that says nothing. */
  definition(style: XmlElement, name: string): string | undefined {
    const known = this.keys.get(style)
    if (known !== undefined) return known
    const levels = new Map(
      style.children.filter(isElement).flatMap((own): [number, XmlElement][] => {
        const level = Number(own.attrs["text:level"])
        return level >= 1 && level <= 9 ? [[level - 1, own]] : []
      }),
    )
    if (levels.size === 0) return undefined
    const plain = readyLists.numbers as ListDefinition
    const made: ListDefinition = {
      name: asName(style.attrs["style:display-name"] ?? name) || "List",
      levels: Array.from({ length: 9 }, (_, depth) => {
        const own = levels.get(depth)
        return own ? levelOf(own, depth, this.context) : (plain.levels[depth] as ListLevel)
      }),
    }
    const ready = entryOf(readyLists, name)
    // How far items stand apart is no matter of the list there.
    const alike = (own: readonly ListLevel[]) =>
      JSON.stringify(own.map((level) => Object.entries({ ...fitLevel(level), tight: false }).sort()))
    const isReady = ready !== undefined && alike(ready.levels) === alike(made.levels)
    let key = isReady ? name : `list-${Object.keys(this.definitions).length + 1}`
    const sign = made.levels[0]?.format
    if (sign === boxes.open || sign === boxes.done) key = "tasks"
    else if (!isReady) this.definitions[key] = made
    this.keys.set(style, key)
    return key
  }

  /** Whether its signs say that things are done. */
  isDone(style: XmlElement): boolean {
    return style.children.some((own) => isElement(own) && own.attrs["text:bullet-char"] === boxes.done)
  }

  /** A run for a list of a style: a new one, or that of the list which it goes on. */
  run(list: XmlElement, definition: string): string {
    const { attrs } = list
    const before = attrs["text:continue-list"] ? this.runs.get(`#${attrs["text:continue-list"]}`) : undefined
    const own =
      before ?? (attrs["text:continue-numbering"] === "true" ? this.runs.get(definition) : undefined) ?? newRun()
    this.runs.set(definition, own)
    const id = attrs["xml:id"]
    if (id) this.runs.set(`#${id}`, own)
    return own
  }

  /** The number at which an item says that it begins. */
  startOf(item: XmlElement): number | undefined {
    const start = Number(item.attrs["text:start-value"])
    return Number.isInteger(start) ? within(start, limits.list.start) : undefined
  }
}
