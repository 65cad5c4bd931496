/**
 * Changes that the server has not confirmed, kept in IndexedDB. Each open tab keeps one record under the
 * name of its session; a record whose tab is gone is taken up by the next tab that opens the document.
 */
import { openDB, type DBSchema, type IDBPDatabase } from "idb"

export interface PendingRecord {
  /** The session's name among those who change the document; the server writes it beside each step. */
  client: string
  document: string
  /** The version that the steps follow on. */
  version: number
  steps: unknown[]
  /** Milliseconds since 1970. */
  kept: number
}

interface Schema extends DBSchema {
  pending: { key: string; value: PendingRecord; indexes: { document: string } }
}

let opened: Promise<IDBPDatabase<Schema>> | undefined

function database(): Promise<IDBPDatabase<Schema>> {
  return (opened ??= openDB<Schema>("biblon", 1, {
    upgrade(db) {
      db.createObjectStore("pending", { keyPath: "client" }).createIndex("document", "document")
    },
  }))
}

const lockOf = (client: string) => `biblon-session-${client}`

/** Marks a session as alive for as long as the tab lives or until `ended` resolves. */
export function holdSession(client: string, ended: Promise<void>): void {
  void navigator.locks?.request(lockOf(client), () => ended)
}

/** Records of this document whose tabs are gone, the oldest first. */
export async function abandonedRecords(document: string): Promise<PendingRecord[]> {
  const records = await (await database()).getAllFromIndex("pending", "document", document)
  const held = new Set((await navigator.locks?.query())?.held?.map((lock) => lock.name))
  return records.filter((r) => !held.has(lockOf(r.client))).sort((a, b) => a.kept - b.kept)
}

export async function dropRecord(client: string): Promise<void> {
  await (await database()).delete("pending", client)
}

async function put(db: IDBPDatabase<Schema>, record: PendingRecord): Promise<void> {
  if (record.steps.length > 0) await db.put("pending", record)
  else await db.delete("pending", record.client)
}

/** Keeps the newest record of a session; while one is being written, those that come are joined into the last. */
export class PendingKeeper {
  private next: PendingRecord | null = null
  private writing: Promise<void> | null = null

  constructor(private readonly onFailure: (error: unknown) => void) {}

  /** Starts writing what waits behind another write: for the moment in which the page goes. */
  flush(): void {
    const record = this.next
    this.next = null
    if (record) void database().then((db) => put(db, record))
  }

  keep(record: PendingRecord): void {
    this.next = record
    this.writing ??= this.write()
  }

  private async write(): Promise<void> {
    try {
      const db = await database()
      while (this.next) {
        const record: PendingRecord = this.next
        this.next = null
        await put(db, record)
      }
    } catch (error) {
      this.onFailure(error)
    }
    this.writing = null
    if (this.next) this.writing = this.write()
  }
}
