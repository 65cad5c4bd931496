/** The database of this device: unconfirmed changes, what could not become a part of a document, and files on their way to the server. */
import { openDB, type DBSchema, type IDBPDatabase } from "idb"
import type { Aside, KeptFile, PendingRecord } from "./records"

interface Schema extends DBSchema {
  pending: { key: string; value: PendingRecord; indexes: { document: string } }
  aside: { key: string; value: Aside; indexes: { document: string } }
  files: { key: string; value: KeptFile }
}

/** A storage that is denied or damaged may never answer. */
const patience = 3000

let opened: Promise<IDBPDatabase<Schema>> | undefined

function open(): Promise<IDBPDatabase<Schema>> {
  const opening = openDB<Schema>("biblon", 3, {
    upgrade(db, before) {
      if (before < 1) db.createObjectStore("pending", { keyPath: "client" }).createIndex("document", "document")
      if (before < 2) db.createObjectStore("aside", { keyPath: "id" }).createIndex("document", "document")
      if (before < 3) db.createObjectStore("files", { keyPath: "asset" })
    },
    // A newer Biblon in another tab may want to change it.
    blocking: (_current, _next, event) => {
      ;(event.target as IDBDatabase).close()
      opened = undefined
    },
    terminated: () => (opened = undefined),
  })
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error("The storage of this device does not answer")), patience)
    void opening.then(resolve, reject).finally(() => clearTimeout(timer))
  })
}

/** Rejects where the device keeps nothing; the next call tries anew. */
export function device(): Promise<IDBPDatabase<Schema>> {
  const own = (opened ??= open())
  own.catch(() => {
    if (opened === own) opened = undefined
  })
  return own
}
