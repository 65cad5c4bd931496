/** Documents to begin from: those that ship, and people's own. They are documents like all others, but stand apart. */
import type { Node } from "prosemirror-model"
import { storiesOf } from "@biblon/core/document"
import type { Starter } from "@biblon/wire"
import type { Db } from "./database"
import type { DocumentStore } from "./documents"

/** One that ships. */
export interface ShippedStarter {
  /** Always the same for the same starter. */
  id: string
  name: string
  purpose: string
  doc: Node
}

/** Whether two documents are the same but for the keys of their stories, which are made at random. */
function sameIn(a: Node, b: Node): boolean {
  const [one, other] = [a, b].map((doc) =>
    [...storiesOf(doc).keys()].reduce(
      (text, key, i) => text.replaceAll(`"${key}"`, `"story ${i}"`),
      JSON.stringify(doc.toJSON()),
    ),
  )
  return one === other
}

export class StarterStore {
  private readonly sql

  constructor(
    private readonly db: Db,
    private readonly store: DocumentStore,
  ) {
    this.sql = {
      list: db.prepare<[], Starter>(
        `select id, coalesce(name, '') as name, nullif(starter, '') as purpose, version from documents
         where starter is not null and removed is null order by created, id`,
      ),
      mark: db.prepare("update documents set starter = ? where id = ?"),
      drop: db.prepare("delete from documents where id = ?"),
    }
  }

  /** Those that ship in their order, then people's own. */
  list(): Starter[] {
    return this.sql.list.all()
  }

  /** Puts those that ship where they were not, or were otherwise. */
  ship(starters: readonly ShippedStarter[]): void {
    this.db.transaction(() => {
      starters.forEach(({ id, name, purpose, doc }, i) => {
        const kept = this.kept(id)
        if (kept && sameIn(kept, doc)) return
        this.sql.drop.run(id)
        this.store.create(doc, name, i, { id })
        this.sql.mark.run(purpose, id)
      })
    })()
  }

  /** What was shipped before; undefined where it was not, or by a Biblon whose documents are read no more. */
  private kept(id: string): Node | undefined {
    try {
      return this.store.at(id, 0)
    } catch {
      return undefined
    }
  }

  /** Keeps a copy of a document as one of people's own. */
  keep(id: string, now: number): Starter | undefined {
    const doc = this.store.newest(id)
    const entry = this.store.entry(id)
    if (!doc || !entry) return undefined
    const made = this.db.transaction(() => {
      const own = this.store.create(doc, entry.name ?? (entry.opening.slice(0, 60) || "Without a name"), now)
      this.sql.mark.run("", own.id)
      return own.id
    })()
    return this.list().find((own) => own.id === made)
  }

  /** A new document from a starter, in a folder. */
  begin(id: string, now: number, folder: string | null): ReturnType<DocumentStore["create"]> | undefined {
    const doc = this.list().some((own) => own.id === id) ? this.store.newest(id) : undefined
    return doc && this.store.create(doc, null, now, { folder })
  }
}
