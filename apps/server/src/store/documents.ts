import { randomBytes } from "node:crypto"
import type { Node } from "prosemirror-model"
import { documentAttrs, documentFormat, leavesOf, readStep, spokenText } from "@biblon/core/document"
import { readDocument, ReadingError } from "@biblon/core/document/reading"
import { stampOf, type ShelfEntry, type StepBatch } from "@biblon/wire"
import type { Db } from "./database"
import { unpack } from "./packing"
import { Snapshots, type Snapshot } from "./snapshots"

export interface Picture {
  version: number
  /** How many it has; null where the document could not be drawn. */
  sheets: number | null
  svg: string
}

/** The first words of a document. */
function openingOf(doc: Node): string {
  const { styles } = documentAttrs(doc)
  for (const leaf of leavesOf(doc).nodes.slice(0, 50)) {
    const text = spokenText(styles, leaf).replace(/\s+/g, " ").trim()
    if (text) return text.slice(0, 80)
  }
  return ""
}

/** What the shelf knows of documents; how many sheets, where they were counted for this version. */
const entries = `select d.id, d.name, d.opening, d.created, d.changed, d.version, f.id as folder, p.sheets
  from documents d left join folders f on f.id = d.folder left join pictures p on p.document = d.id and p.version = d.version`

/** Where a new document lies, and under which id. */
interface Placed {
  id?: string
  folder?: string | null
}

const newId = () => randomBytes(12).toString("base64url")

export class DocumentStore {
  private readonly sql
  private readonly snapshots: Snapshots

  constructor(private readonly db: Db) {
    this.snapshots = new Snapshots(db)
    this.sql = {
      list: db.prepare<[], ShelfEntry>(
        `${entries} where d.binned is null and d.removed is null and d.starter is null order by d.changed desc, d.id`,
      ),
      binned: db.prepare<[], ShelfEntry>(
        `${entries} where d.binned is not null and d.removed is null order by d.binned desc, d.id`,
      ),
      one: db.prepare<[string], ShelfEntry>(`${entries} where d.id = ? and d.removed is null`),
      insert: db.prepare(
        "insert into documents (id, name, opening, created, changed, version, folder) values (?, ?, ?, ?, ?, 0, ?)",
      ),
      rename: db.prepare("update documents set name = ? where id = ?"),
      step: db.prepare("insert into steps (document, version, client, person, step, saved) values (?, ?, ?, ?, ?, ?)"),
      steps: db.prepare<[string, number, number], { client: string; person: string; step: string; saved: number }>(
        "select client, person, step, saved from steps where document = ? and version >= ? and version < ? order by version",
      ),
      advance: db.prepare("update documents set version = ?, changed = ?, opening = ? where id = ? and version = ?"),
      picture: db.prepare<[string], Picture>("select version, sheets, svg from pictures where document = ?"),
      keepPicture: db.prepare("insert or replace into pictures (document, version, sheets, svg) values (?, ?, ?, ?)"),
    }
  }

  /** False once the server is closing. */
  get open(): boolean {
    return this.db.open
  }

  list(): ShelfEntry[] {
    return this.sql.list.all()
  }

  /** What lies in the bin, the last on top. */
  binned(): ShelfEntry[] {
    return this.sql.binned.all()
  }

  /** A copy of a document as it is now, beside it, with a name of its own. */
  duplicate(id: string, now: number): ShelfEntry | undefined {
    const entry = this.entry(id)
    const doc = this.newest(id)
    const name = entry?.name ?? null
    return entry && doc && this.create(doc, name && `${name.slice(0, 190)}, copy`, now, { folder: entry.folder })
  }

  /** A document as it is now. */
  newest(id: string): Node | undefined {
    const entry = this.entry(id)
    return entry && this.at(id, entry.version)
  }

  entry(id: string): ShelfEntry | undefined {
    return this.sql.one.get(id)
  }

  create(doc: Node, name: string | null, now: number, { id = newId(), folder = null }: Placed = {}): ShelfEntry {
    this.db.transaction(() => {
      this.sql.insert.run(id, name, openingOf(doc), now, now, folder)
      this.snapshots.put(id, 0, doc, now)
    })()
    return this.entry(id) as ShelfEntry
  }

  rename(id: string, name: string | null): boolean {
    return this.sql.rename.run(name, id).changes > 0
  }

  private snapshot(id: string, version: number): Snapshot | undefined {
    const entry = this.entry(id)
    return entry && version <= entry.version && version >= 0 ? this.snapshots.upTo(id, version) : undefined
  }

  /** The document as it was at a version; undefined if there is no such document or version. */
  at(id: string, version: number): Node | undefined {
    const snapshot = this.snapshot(id, version)
    if (!snapshot) return undefined
    let doc = readDocument(JSON.parse(unpack(snapshot.packed)), snapshot.format)
    for (const { step } of this.sql.steps.iterate(id, snapshot.version, version)) {
      const result = readStep(JSON.parse(step)).apply(doc)
      if (!result.doc) throw new Error(`A saved change of document ${id} does not apply: ${result.failed}`)
      doc = result.doc
    }
    return doc
  }

  /** The same as JSON text in brotli, as it lies; undefined where it does not lie there so. */
  packedAt(id: string, version: number): Uint8Array | undefined {
    const snapshot = this.snapshot(id, version)
    return snapshot?.version === version && snapshot.format === documentFormat ? snapshot.packed : undefined
  }

  /** The same as JSON text. What cannot be read is given as it is, so that who asked for it can say so. */
  contentAt(id: string, version: number): string | undefined {
    const packed = this.packedAt(id, version)
    if (packed) return unpack(packed)
    try {
      return JSON.stringify(this.at(id, version)?.toJSON())
    } catch (error) {
      const snapshot = this.snapshot(id, version)
      if (!snapshot || !(error instanceof ReadingError || error instanceof SyntaxError)) throw error
      return unpack(snapshot.packed)
    }
  }

  /** The changes from one version up to, not including, another, as they were saved: lists of batches, each list of about so many characters at most. */
  *batches(id: string, from: number, to: number, characters: number): Generator<StepBatch[]> {
    let list: StepBatch[] = []
    let size = 0
    for (const { client, person, step, saved } of this.sql.steps.iterate(id, from, to)) {
      const last = list.at(-1)
      if (last?.saved === saved && last.client === client) last.steps.push(JSON.parse(step) as Record<string, unknown>)
      else {
        if (size > characters) {
          yield list
          list = []
          size = 0
        }
        list.push({ client, person, saved, steps: [JSON.parse(step) as Record<string, unknown>] })
      }
      size += step.length
    }
    if (list.length > 0) yield list
  }

  /** What tells this history of a document at a version from others that it might have had. */
  stamp(id: string, version: number): string {
    if (version === 0) return String(this.entry(id)?.created ?? 0)
    const row = this.sql.steps.get(id, version - 1, version)
    return row ? stampOf(row) : ""
  }

  /** Writes changes that lead from `version` to `doc`. To be run inside a transaction: see Writing. */
  commit(id: string, version: number, { client, person, steps, saved }: StepBatch, doc: Node): void {
    const next = version + steps.length
    steps.forEach((step, i) => this.sql.step.run(id, version + i, client, person, JSON.stringify(step), saved))
    if (this.sql.advance.run(next, saved, openingOf(doc), id, version).changes !== 1)
      throw new Error(`Document ${id} is no longer at version ${version}`)
  }

  /** The last version that was written down whole. */
  lastWhole(id: string): number {
    return this.snapshots.last(id)
  }

  /** Writes a document down whole, so that opening it replays few changes. */
  keepWhole(id: string, version: number, doc: Node): Promise<void> {
    return this.snapshots.putLater(id, version, doc, this.entry(id)?.changed ?? 0)
  }

  picture(id: string): Picture | undefined {
    return this.sql.picture.get(id)
  }

  keepPicture(id: string, { version, sheets, svg }: Picture): void {
    this.sql.keepPicture.run(id, version, sheets, svg)
  }
}
