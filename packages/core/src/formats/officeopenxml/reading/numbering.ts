/** Lists (ISO/IEC 29500-1, 17.9): abstract definitions are ours, instances are runs of them, and what one overrides is a definition of its own. */
import {
  asName,
  entryOf,
  fitLevel,
  limits,
  readyLists,
  within,
  type ListDefinition,
  type ListLevel,
  type ListPlace,
} from "../../../document"
import { meanings } from "../../meanings"
import { child, childrenNamed, type XmlElement } from "../../xml/parsing"
import type { Leaving } from "../../leaving"
import { readLetters } from "./letters"
import { boxes } from "../../boxes"
import { readParagraph } from "./paragraphs"
import { symbolOf } from "./symbols"
import type { Theme } from "./theme"
import { isOn, numberForms, valueOf, whole } from "./values"

const alignMeant = meanings<ListLevel["align"]>({ center: "center", right: "right", end: "right" })
const followMeant = meanings<ListLevel["follow"]>({ space: "space", nothing: "none" })
const forms = meanings<ListLevel["numbering"]>({ ...numberForms, decimalZero: "zero" })

function levelOf(lvl: XmlElement, depth: number, theme: Theme, leaving: Leaving): ListLevel {
  const form = valueOf(lvl, "w:numFmt") ?? "decimal"
  const pattern = child(lvl, "w:lvlText")?.attrs["w:val"] ?? ""
  const { format } = readParagraph(child(lvl, "w:pPr"), [])
  const rPr = child(lvl, "w:rPr")
  const { format: letters } = readLetters(rPr, theme)
  const hanging = Math.max(0, -(format.indentFirst ?? 0))
  const restart = whole(valueOf(lvl, "w:lvlRestart"))
  const mark =
    form === "bullet" ||
    form === "none" ||
    (form !== "none" && !forms(form) && pattern !== "" && !pattern.includes("%"))
  if (!mark && !forms(form)) leaving.add("forms of numbers in lists, as plain numbers")
  const face = child(rPr, "w:rFonts")?.attrs["w:ascii"] ?? child(rPr, "w:rFonts")?.attrs["w:hAnsi"]
  const signs =
    form === "none" ? "" : [...pattern].map((sign) => symbolOf(face, sign.codePointAt(0) ?? 0) ?? sign).join("")
  // A face of symbols is not that of the sign which stands for it here.
  if (form === "bullet") delete letters.family
  return fitLevel({
    format: mark ? signs || (form === "bullet" ? "•" : "") : pattern,
    kind: mark ? "mark" : "number",
    numbering: forms(form) ?? "decimal",
    start: whole(valueOf(lvl, "w:start")) ?? 0,
    indent: (format.indentLeft ?? 0) + Math.max(0, format.indentFirst ?? 0),
    hanging: hanging || Math.max(0, format.indentFirst ?? 0),
    align: alignMeant(valueOf(lvl, "w:lvlJc")) ?? "left",
    follow: followMeant(valueOf(lvl, "w:suff")) ?? "tab",
    restart: restart === undefined ? 0 : restart === 0 ? null : within(restart, [0, Math.max(0, depth)]),
    legal: Boolean(child(lvl, "w:isLgl")) && isOn(child(lvl, "w:isLgl") as XmlElement),
    tight: child(child(lvl, "w:pPr"), "w:contextualSpacing") !== undefined,
    letters,
  })
}

/** Levels that a definition leaves out are those of plain numbers. */
function definitionOf(
  name: string,
  lvls: ReadonlyMap<number, XmlElement>,
  theme: Theme,
  leaving: Leaving,
): ListDefinition {
  const plain = readyLists.numbers as ListDefinition
  return {
    name,
    levels: Array.from({ length: 9 }, (_, depth) => {
      const lvl = lvls.get(depth)
      return lvl ? levelOf(lvl, depth, theme, leaving) : (plain.levels[depth] as ListLevel)
    }),
  }
}

/** The key of a list of ours of that name, if it is still the same. */
function readyNamed(name: string, { levels }: ListDefinition): string | undefined {
  const ready = entryOf(readyLists, name)
  const plain = (own: readonly ListLevel[]) =>
    JSON.stringify(own.map((level) => Object.entries(fitLevel(level)).sort()))
  return ready && plain(ready.levels) === plain(levels) ? name : undefined
}

const levelsIn = (parent: XmlElement | undefined) =>
  new Map(childrenNamed(parent, "w:lvl").map((lvl) => [whole(lvl.attrs["w:ilvl"]) ?? 0, lvl]))

interface Instance {
  definition: string
  run: string
  /** Numbers at which levels begin anew in this one. */
  starts: ReadonlyMap<number, number>
  lvls: ReadonlyMap<number, XmlElement>
  levels: readonly ListLevel[]
}

export class Numbering {
  private readonly abstracts: ReadonlyMap<string, XmlElement>
  private readonly nums: ReadonlyMap<string, XmlElement>
  private readonly instances = new Map<string, Instance | null>()
  /** Definitions that were asked for, by key. */
  readonly lists: Record<string, ListDefinition> = {}
  /** Levels of instances that have begun where they say. */
  private readonly begun = new Set<string>()

  constructor(
    root: XmlElement | undefined,
    private readonly theme: Theme,
    private readonly leaving: Leaving,
    /** The instance that a style of lists names. */
    private readonly ofStyle: (style: string) => string | undefined,
  ) {
    this.abstracts = new Map(
      childrenNamed(root, "w:abstractNum").map((own) => [own.attrs["w:abstractNumId"] ?? "", own]),
    )
    this.nums = new Map(childrenNamed(root, "w:num").map((own) => [own.attrs["w:numId"] ?? "", own]))
  }

  private abstractOf(num: XmlElement, turns = 0): [id: string, element: XmlElement] | undefined {
    const id = valueOf(num, "w:abstractNumId") ?? ""
    const own = this.abstracts.get(id)
    const linked = valueOf(own, "w:numStyleLink")
    const other = linked === undefined ? undefined : this.nums.get(this.ofStyle(linked) ?? "")
    if (other && other !== num && turns < 8) return this.abstractOf(other, turns + 1)
    return own && [id, own]
  }

  private instance(id: string): Instance | null {
    const known = this.instances.get(id)
    if (known !== undefined) return known
    const num = this.nums.get(id)
    const found = num && this.abstractOf(num)
    if (!num || !found) {
      this.instances.set(id, null)
      return null
    }
    const [abstract, element] = found
    const starts = new Map<number, number>()
    const lvls = levelsIn(element)
    let own = false
    for (const override of childrenNamed(num, "w:lvlOverride")) {
      const level = whole(override.attrs["w:ilvl"]) ?? 0
      const start = whole(valueOf(override, "w:startOverride"))
      if (start !== undefined) starts.set(level, start)
      const lvl = child(override, "w:lvl")
      if (lvl) {
        lvls.set(level, lvl)
        own = true
      }
    }
    const called = asName(valueOf(element, "w:name") ?? "")
    const name = called || `List ${Object.keys(this.lists).length + 1}`
    const definition = definitionOf(name, lvls, this.theme, this.leaving)
    const ready = readyNamed(called, definition)
    const key = ready ?? (own ? `list-${abstract}-${id}` : `list-${abstract}`)
    if (ready === undefined && !Object.hasOwn(this.lists, key)) this.lists[key] = definition
    // A run that begins as its definition says needs no numbers of its own.
    for (const [level, start] of starts) if (definition.levels[level]?.start === start) starts.delete(level)
    const apart = childrenNamed(num, "w:lvlOverride").length > 0
    const made = { definition: key, run: apart ? id.slice(0, 40) : "", starts, lvls, levels: definition.levels }
    this.instances.set(id, made)
    return made
  }

  /** The run of all things to do. */
  private tasks: string | undefined

  /** Whether items of a level stand without the space of their style between them. */
  isTight(num: string, level: number): boolean {
    return this.instance(num)?.levels[level]?.tight === true
  }

  /** The level of an instance that belongs to a style. */
  levelOfStyle(num: string, style: string): number {
    for (const [level, lvl] of this.instance(num)?.lvls ?? []) if (valueOf(lvl, "w:pStyle") === style) return level
    return 0
  }

  /**
   * Where an item of an instance stands; null for one that is in no list.
   * @param items whether it is an item itself, and not what a style says of those to come
   */
  place(num: string, level: number, items: boolean): ListPlace | null {
    const own = num === "0" ? null : this.instance(num)
    if (!own) return null
    const depth = within(level, limits.list.level)
    const sign = own.levels[depth]?.kind === "mark" ? own.levels[depth].format : ""
    // Marks that are boxes are things to do, those that are done in one list with the others.
    if (sign === boxes.open || sign === boxes.done)
      return {
        definition: "tasks",
        run: (this.tasks ??= own.run),
        level: depth,
        ...(sign === boxes.done ? { done: true } : {}),
      }
    const place: ListPlace = { definition: own.definition, run: own.run, level: depth }
    const start = own.starts.get(depth)
    const first = `${num} ${depth}`
    if (items && start !== undefined && !this.begun.has(first)) {
      this.begun.add(first)
      place.start = within(start, limits.list.start)
    }
    return place
  }
}
