/** The database of this device: unconfirmed changes, what could not become a part of a document, and files on their way to the server. */
import { openDB, type DBSchema, type IDBPDatabase } from "idb"
import type { Aside, KeptFile, PendingHead } from "./records"

interface Schema extends DBSchema {
  pending: { key: string; value: PendingHead; indexes: { document: string } }
  /** In JSON, by the session and a number that rises within it. */
  steps: { key: [client: string, number: number]; value: string }
  aside: { key: string; value: Aside; indexes: { document: string } }
  files: { key: string; value: KeptFile }
}

/** A storage that is denied or damaged may never answer. */
const patience = 3000

type Device = IDBPDatabase<Schema>

let opened: Promise<Device> | undefined

function open(): Promise<Device> {
  const opening = openDB<Schema>("biblon", 4, {
    upgrade(db, before) {
      if (before < 1) db.createObjectStore("pending", { keyPath: "client" }).createIndex("document", "document")
      if (before < 2) db.createObjectStore("aside", { keyPath: "id" }).createIndex("document", "document")
      if (before < 3) db.createObjectStore("files", { keyPath: "asset" })
      if (before < 4) db.createObjectStore("steps")
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
export function device(): Promise<Device> {
  const own = (opened ??= open())
  own.catch(() => {
    if (opened === own) opened = undefined
  })
  return own
}
