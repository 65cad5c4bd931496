/**
 * Changes of attributes entry by entry: two people who change two styles, or two properties of one style or one
 * paragraph, both get what they wanted, and undoing one change leaves later ones alone.
 */
import { Fragment, Slice, type Node, type Schema } from "prosemirror-model"
import { Step, StepMap, StepResult, type Mappable, type Transform } from "prosemirror-transform"
import { entryOf } from "./keyed"
import { schema } from "./schema"

/** One entry of an attribute: the keys that lead to it, and what it becomes; without `value` it goes. */
export interface Entry {
  path: readonly string[]
  value?: unknown
}

type Entries = Readonly<Record<string, unknown>>
/** How many keys deep an attribute, or each part of it, is divided. What lies deeper changes as a whole. */
type Grain = number | Readonly<Record<string, number>>

const grains: Readonly<Record<string, Grain>> = {
  styles: { defaults: 2, styles: 3, fonts: 2, lists: 1 },
  typesetting: 2,
  setup: 2,
  part: 1,
  comments: 1,
  properties: 1,
  notes: 2,
  checks: 2,
  brief: 1,
  sources: { style: 0, own: 0, list: 1 },
  format: 1,
  letters: 1,
}

const isEntries = (value: unknown): value is Entries =>
  typeof value === "object" && value !== null && !Array.isArray(value)

/** Whether two values of properties, which are plain data, say the same. */
export function equal(a: unknown, b: unknown): boolean {
  return a === b || (typeof a === "object" && JSON.stringify(a) === JSON.stringify(b))
}

function differences(before: unknown, after: unknown, grain: Grain, path: readonly string[] = []): Entry[] {
  if (equal(before, after)) return []
  if (grain === 0 || !isEntries(before) || !isEntries(after))
    return [after === undefined ? { path } : { path, value: after }]
  return [...new Set([...Object.keys(before), ...Object.keys(after)])].flatMap((key) =>
    differences(
      entryOf(before, key),
      entryOf(after, key),
      typeof grain === "number" ? grain - 1 : (entryOf(grain, key) ?? 0),
      [...path, key],
    ),
  )
}

function at(entries: unknown, path: readonly string[]): unknown {
  return path.reduce<unknown>((inside, key) => (isEntries(inside) ? entryOf(inside, key) : undefined), entries)
}

/** Puts an entry in its place. Where what would hold it is gone, nothing changes. */
function withEntry(entries: Entries, [key, ...rest]: readonly string[], value: unknown): Entries {
  if (key === undefined) return entries
  if (rest.length > 0) {
    const inside = at(entries, [key])
    return isEntries(inside) ? { ...entries, [key]: withEntry(inside, rest, value) } : entries
  }
  if (value !== undefined) return { ...entries, [key]: value }
  const { [key]: _gone, ...others } = entries
  return others
}

/** Sets entries of one attribute of the node at `pos`, or of the document itself for null. An attribute without entries is as it is where nobody said anything. */
export class EntriesStep extends Step {
  constructor(
    readonly pos: number | null,
    readonly attr: string,
    readonly entries: readonly Entry[],
  ) {
    super()
  }

  override apply(doc: Node): StepResult {
    const node = this.pos === null ? doc : doc.nodeAt(this.pos)
    if (!node || !(this.attr in node.attrs)) return StepResult.fail("What was to change is not there")
    const before = node.attrs[this.attr] as Entries | null
    const after = this.entries.reduce((entries, { path, value }) => withEntry(entries, path, value), before ?? {})
    const usual = node.type.spec.attrs?.[this.attr]?.default as unknown
    const none = isEntries(usual) && Object.keys(usual).length === 0 ? usual : null
    const attrs = { ...node.attrs, [this.attr]: Object.keys(after).length > 0 ? after : none }
    if (this.pos === null) return StepResult.ok(doc.type.create(attrs, doc.content, doc.marks))
    const changed = node.type.create(attrs, null, node.marks)
    return StepResult.fromReplace(
      doc,
      this.pos,
      this.pos + 1,
      new Slice(Fragment.from(changed), 0, node.isLeaf ? 0 : 1),
    )
  }

  override invert(doc: Node): EntriesStep {
    const before = (this.pos === null ? doc : doc.nodeAt(this.pos))?.attrs[this.attr] as unknown
    const old = this.entries.map(({ path }): Entry => {
      const value = at(before, path)
      return value === undefined ? { path } : { path, value }
    })
    return new EntriesStep(this.pos, this.attr, old.reverse())
  }

  override getMap(): StepMap {
    return StepMap.empty
  }

  override map(mapping: Mappable): EntriesStep | null {
    if (this.pos === null) return this
    const { pos, deletedAfter } = mapping.mapResult(this.pos, 1)
    return deletedAfter ? null : new EntriesStep(pos, this.attr, this.entries)
  }

  override toJSON(): Record<string, unknown> {
    return { stepType: "entries", pos: this.pos, attr: this.attr, entries: this.entries }
  }

  /** @throws RangeError for what is no such step */
  static override fromJSON(_schema: Schema, json: unknown): EntriesStep {
    const { pos, attr, entries } = json as { pos: unknown; attr: unknown; entries: unknown }
    const isPath = (path: unknown) =>
      Array.isArray(path) && path.length > 0 && path.every((key) => typeof key === "string" && key !== "__proto__")
    if (
      (pos !== null && !Number.isInteger(pos)) ||
      typeof attr !== "string" ||
      !Object.hasOwn(grains, attr) ||
      !Array.isArray(entries) ||
      !entries.every((entry) => isEntries(entry) && isPath(entry.path))
    )
      throw new RangeError("A change of entries says what it changes: a place, an attribute and paths")
    return new EntriesStep(
      pos as number | null,
      attr,
      (entries as Entry[]).map(({ path, value }) =>
        value === undefined ? { path: [...path] } : { path: [...path], value },
      ),
    )
  }

  /** The same without entries that find no place in this document, so that nothing is kept that nobody can read. */
  withEffect(doc: Node): EntriesStep {
    const attrs = (this.pos === null ? doc : doc.nodeAt(this.pos))?.attrs[this.attr] as unknown
    const entries = this.entries.filter(({ path }) => path.length === 1 || isEntries(at(attrs, path.slice(0, -1))))
    return entries.length === this.entries.length ? this : new EntriesStep(this.pos, this.attr, entries)
  }
}
Step.jsonID("entries", EntriesStep)

/** Levels of objects and lists inside one another that a change may have: many more than any document needs, and few enough for recursion. */
const deepest = 200

function checkDepth(json: unknown): void {
  let level: unknown[] = [json]
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > deepest) throw new RangeError(`A change has at most ${deepest} levels inside one another`)
    level = level
      .flatMap((value) => (typeof value === "object" && value !== null ? Object.values(value) : []))
      .filter((value) => typeof value === "object" && value !== null)
  }
}

/** Places in the order in which a step has them. */
const places = ["from", "gapFrom", "gapTo", "to"] as const

/**
 * A change of a document from its JSON. (Reading steps through here, and nowhere else, keeps the kind above in every bundle.)
 * @throws RangeError for what is no step, or names places that cannot be
 */
export function readStep(json: unknown): Step {
  if (!isEntries(json)) throw new RangeError("A change is an object")
  checkDepth(json)
  const named = places.map((name) => json[name]).filter((place) => place !== undefined)
  const all = json.pos === undefined || json.pos === null ? named : [...named, json.pos]
  if (!all.every((place) => Number.isSafeInteger(place) && (place as number) >= 0))
    throw new RangeError("Places of a change are whole numbers from 0")
  if (named.some((place, i) => i > 0 && (place as number) < (named[i - 1] as number)))
    throw new RangeError("A change ends before it begins")
  return Step.fromJSON(schema, json)
}

/** The JSON of a change as it was understood for this document: nothing else is passed on or kept. */
export function stepAsKept(step: Step, doc: Node): Record<string, unknown> {
  return (step instanceof EntriesStep ? step.withEffect(doc) : step).toJSON() as Record<string, unknown>
}

/** Makes an attribute of the node at `pos` (null: of the document) what `value` says, nothing for null or no entries, as a change of those entries alone that differ. */
export function setEntries<T extends Transform>(
  tr: T,
  pos: number | null,
  attr:
    | "styles"
    | "typesetting"
    | "format"
    | "letters"
    | "setup"
    | "part"
    | "properties"
    | "notes"
    | "checks"
    | "brief"
    | "sources"
    | "comments",
  value: object | null,
): T {
  const node = pos === null ? tr.doc : tr.doc.nodeAt(pos)
  const entries = differences((node?.attrs[attr] as Entries | null) ?? {}, value ?? {}, grains[attr]!)
  if (entries.length > 0) tr.step(new EntriesStep(pos, attr, entries))
  return tr
}
