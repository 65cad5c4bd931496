/** Removing what was thrown away: documents out of the bin, and files that no version of any document uses. */
import { unpack } from "./packing"
import type { Db } from "./database"

const day = 86_400_000
/** So long a file is kept that no document uses yet: somebody may be without a connection to say that one does. */
export const unusedFor = 30 * day

/** So long a removed document can be had back. */
const hadBack = day

/** Removes the documents that were taken out of the bin, with all their versions, once they can no longer be had back. */
export function sweepRemoved(db: Db, now = Date.now()): number {
  return db.prepare("delete from documents where removed < ?").run(now - hadBack).changes
}

/** So many changes are looked through before others have their turn. */
const atOnce = 2000

const names = /[0-9a-f]{64}/g

/**
 * Removes them bit by bit, so that nobody waits for it.
 * What a version uses came with the document's first snapshot or with a change, so that these are all that is looked through.
 * @returns how many were removed
 */
export async function sweepAssets(db: Db, now = Date.now()): Promise<number> {
  const old = new Set(
    db
      .prepare<[number], { sha256: string }>("select sha256 from assets where added < ?")
      .all(now - unusedFor)
      .map(({ sha256 }) => sha256),
  )
  const keep = (text: string) => {
    for (const [name] of text.matchAll(names)) old.delete(name)
  }
  const first = db.prepare<[string], { packed: Uint8Array }>(
    "select packed from snapshots where document = ? order by version limit 1",
  )
  const steps = db.prepare<[string, number, number], { version: number; step: string }>(
    "select version, step from steps where document = ? and version > ? order by version limit ?",
  )
  for (const { id } of db.prepare<[], { id: string }>("select id from documents").all()) {
    if (old.size === 0) return 0
    const snapshot = first.get(id)
    if (snapshot) keep(unpack(snapshot.packed))
    for (let from = -1; ;) {
      const some = steps.all(id, from, atOnce)
      for (const { step } of some) keep(step)
      await new Promise((resolve) => setImmediate(resolve))
      if (!db.open) return 0
      const last = some.at(-1)
      if (!last) break
      from = last.version
    }
  }
  // One that was put in again meanwhile is in use.
  const remove = db.prepare("delete from assets where sha256 = ? and added < ?")
  return db.transaction(() => [...old].reduce((sum, sha256) => sum + remove.run(sha256, now - unusedFor).changes, 0))()
}

/** Sweeps once a day, for as long as the process lives. */
export function sweepDaily(db: Db): void {
  const sweepAll = async () => {
    if (!db.open) return
    sweepRemoved(db)
    await sweepAssets(db)
  }
  const sweep = () =>
    void sweepAll().catch((error: Error) =>
      console.error(`What was thrown away could not be removed: ${error.message}`),
    )
  setTimeout(sweep, 60_000).unref()
  setInterval(sweep, day).unref()
}
