/** Documents written down whole, packed, so that opening one replays few changes and what lies here is sent as it is. */
import type { Node } from "prosemirror-model"
import { documentFormat } from "@biblon/core/document"
import type { Db } from "./database"
import { pack, packLater } from "./packing"

export interface Snapshot {
  version: number
  /** The document node as JSON text, in brotli. */
  packed: Uint8Array
  /** See documentFormat. */
  format: number
  /** When that version was reached. */
  saved: number
}

const textOf = (doc: Node) => JSON.stringify(doc.toJSON())

const hour = 3_600_000
const day = 24 * hour

/**
 * Which of a document's snapshots are not needed: kept are the first and the last, one for each hour of the last day, and
 * one for each day before. Every version can still be had, by replaying more changes.
 * @param all in the order of their versions
 */
export function dispensable(all: readonly Pick<Snapshot, "version" | "saved">[], now: number): number[] {
  const span = ({ saved }: Pick<Snapshot, "saved">) =>
    now - saved < day ? `hour ${Math.floor(saved / hour)}` : `day ${Math.floor(saved / day)}`
  return all
    .filter((one, i) => {
      const next = all[i + 1]
      return i > 0 && next !== undefined && span(next) === span(one)
    })
    .map(({ version }) => version)
}

export class Snapshots {
  private readonly sql

  constructor(private readonly db: Db) {
    this.sql = {
      put: db.prepare(
        "insert or replace into snapshots (document, version, packed, format, saved) values (?, ?, ?, ?, ?)",
      ),
      upTo: db.prepare<[string, number], Snapshot>(
        "select version, packed, format, saved from snapshots where document = ? and version <= ? order by version desc limit 1",
      ),
      all: db.prepare<[string], Pick<Snapshot, "version" | "saved">>(
        "select version, saved from snapshots where document = ? order by version",
      ),
      last: db.prepare<[string], Pick<Snapshot, "version">>(
        "select max(version) as version from snapshots where document = ?",
      ),
      remove: db.prepare("delete from snapshots where document = ? and version = ?"),
    }
  }

  put(id: string, version: number, doc: Node, saved: number): void {
    this.sql.put.run(id, version, pack(textOf(doc)), documentFormat, saved)
  }

  /** The same without holding up the process, and what is no longer needed goes. Nothing is lost where it fails: the changes are all there. */
  async putLater(id: string, version: number, doc: Node, saved: number): Promise<void> {
    const packed = await packLater(textOf(doc))
    if (!this.db.open) return
    this.db.transaction(() => {
      this.sql.put.run(id, version, packed, documentFormat, saved)
      for (const old of dispensable(this.sql.all.all(id), saved)) this.sql.remove.run(id, old)
    })()
  }

  last(id: string): number {
    return this.sql.last.get(id)?.version ?? 0
  }

  /** The newest that is not newer than a version. */
  upTo(id: string, version: number): Snapshot | undefined {
    return this.sql.upTo.get(id, version)
  }
}
