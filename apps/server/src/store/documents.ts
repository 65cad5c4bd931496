import { randomBytes } from "node:crypto"
import type { Node } from "prosemirror-model"
import { documentAttrs, leavesOf, readStep, spokenText } from "@biblon/core/document"
import { readDocument } from "@biblon/core/document/reading"
import { stampOf, type ShelfEntry, type StepBatch } from "@biblon/wire"
import type { Db } from "./database"

export interface Picture {
  version: number
  /** How many it has; null where the document could not be drawn. */
  sheets: number | null
  svg: string
}

/** After so many steps a document is written down whole, so that opening it replays few. */
const stepsPerSnapshot = 300

/** The first words of a document. */
function openingOf(doc: Node): string {
  const { styles } = documentAttrs(doc)
  for (const leaf of leavesOf(doc).nodes.slice(0, 50)) {
    const text = spokenText(styles, leaf).replace(/\s+/g, " ").trim()
    if (text) return text.slice(0, 80)
  }
  return ""
}

export class DocumentStore {
  private readonly sql

  constructor(private readonly db: Db) {
    this.sql = {
      list: db.prepare<[], ShelfEntry>(
        "select id, name, opening, created, changed, version from documents order by changed desc, id",
      ),
      one: db.prepare<[string], ShelfEntry>(
        "select id, name, opening, created, changed, version from documents where id = ?",
      ),
      insert: db.prepare(
        "insert into documents (id, name, opening, created, changed, version) values (?, ?, ?, ?, ?, 0)",
      ),
      rename: db.prepare("update documents set name = ? where id = ?"),
      snapshot: db.prepare("insert or replace into snapshots (document, version, content) values (?, ?, ?)"),
      snapshotUpTo: db.prepare<[string, number], { version: number; content: string }>(
        "select version, content from snapshots where document = ? and version <= ? order by version desc limit 1",
      ),
      step: db.prepare("insert into steps (document, version, client, person, step, saved) values (?, ?, ?, ?, ?, ?)"),
      steps: db.prepare<[string, number, number], { client: string; person: string; step: string; saved: number }>(
        "select client, person, step, saved from steps where document = ? and version >= ? and version < ? order by version",
      ),
      advance: db.prepare("update documents set version = ?, changed = ?, opening = ? where id = ? and version = ?"),
      picture: db.prepare<[string], Picture>("select version, sheets, svg from pictures where document = ?"),
      keepPicture: db.prepare("insert or replace into pictures (document, version, sheets, svg) values (?, ?, ?, ?)"),
    }
  }

  list(): ShelfEntry[] {
    return this.sql.list.all()
  }

  entry(id: string): ShelfEntry | undefined {
    return this.sql.one.get(id)
  }

  create(doc: Node, name: string | null, now: number, id = randomBytes(12).toString("base64url")): ShelfEntry {
    this.db.transaction(() => {
      this.sql.insert.run(id, name, openingOf(doc), now, now)
      this.sql.snapshot.run(id, 0, JSON.stringify(doc.toJSON()))
    })()
    return this.entry(id) as ShelfEntry
  }

  rename(id: string, name: string | null): boolean {
    return this.sql.rename.run(name, id).changes > 0
  }

  /** The document as it was at a version; undefined if there is no such document or version. */
  at(id: string, version: number): Node | undefined {
    const entry = this.entry(id)
    if (!entry || version > entry.version || version < 0) return undefined
    const snapshot = this.sql.snapshotUpTo.get(id, version)
    if (!snapshot) return undefined
    let doc = readDocument(JSON.parse(snapshot.content))
    for (const { step } of this.sql.steps.iterate(id, snapshot.version, version)) {
      const result = readStep(JSON.parse(step)).apply(doc)
      if (!result.doc) throw new Error(`A saved change of document ${id} does not apply: ${result.failed}`)
      doc = result.doc
    }
    return doc
  }

  /** The same as JSON text; what is kept whole at that version is given as it lies. */
  contentAt(id: string, version: number): string | undefined {
    const entry = this.entry(id)
    const snapshot = entry && version <= entry.version ? this.sql.snapshotUpTo.get(id, version) : undefined
    return snapshot?.version === version ? snapshot.content : JSON.stringify(this.at(id, version)?.toJSON())
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
    if (Math.floor(next / stepsPerSnapshot) > Math.floor(version / stepsPerSnapshot))
      this.sql.snapshot.run(id, next, JSON.stringify(doc.toJSON()))
  }

  picture(id: string): Picture | undefined {
    return this.sql.picture.get(id)
  }

  keepPicture(id: string, { version, sheets, svg }: Picture): void {
    this.sql.keepPicture.run(id, version, sheets, svg)
  }
}
