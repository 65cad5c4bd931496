import { createHash } from "node:crypto"
import type { Db } from "./database"

export interface Asset {
  bytes: Uint8Array
  /** Media type. */
  type: string
}

/** Files that documents use. One that is put in twice is kept once. */
export class AssetStore {
  constructor(private readonly db: Db) {}

  /** @returns its SHA-256, under which it is found again */
  put(bytes: Uint8Array, type: string, now = Date.now()): string {
    const sha256 = createHash("sha256").update(bytes).digest("hex")
    this.db
      .prepare(
        "insert into assets (sha256, bytes, type, added) values (?, ?, ?, ?) on conflict do update set added = excluded.added",
      )
      .run(sha256, bytes, type, now)
    return sha256
  }

  get(sha256: string): Asset | undefined {
    return this.db.prepare<[string], Asset>("select bytes, type from assets where sha256 = ?").get(sha256)
  }

  bytes(sha256: string): Uint8Array | undefined {
    return this.get(sha256)?.bytes
  }
}
