/** Finding documents by their names and by what is written in them. */
import { leavesOf } from "@biblon/core/document"
import { type FoundDocument } from "@biblon/wire"
import type { Db } from "./database"
import type { DocumentStore } from "./documents"

/** So many documents are found at most. */
const most = 50
/** Documents whose text is read anew before a search is answered; the rest is read for the next one. */
const readAtOnce = 200

/** Words as the search wants them: each has to be there, the last one may go on. */
function queryOf(words: string): string | null {
  const found = words.match(/[\p{L}\p{N}\p{M}]+/gu)?.slice(0, 20)
  return found ? found.map((word, i) => `"${word}"${i === found.length - 1 ? "*" : ""}`).join(" ") : null
}

export class Searching {
  private readonly sql

  constructor(
    private readonly db: Db,
    private readonly store: DocumentStore,
  ) {
    this.sql = {
      stale: db.prepare<[number], { id: string; version: number }>(
        `select d.id, d.version from documents d left join text_versions t on t.document = d.id
         where d.binned is null and d.removed is null and d.starter is null and (t.version is null or t.version <> d.version) order by d.changed desc limit ?`,
      ),
      forget: db.prepare("delete from text_versions where document = ?"),
      version: db.prepare("insert into text_versions (document, version) values (?, ?)"),
      put: db.prepare("insert into texts (rowid, body) values (?, ?)"),
      find: db.prepare<[string, number], { id: string; sentence: string }>(
        `select t.document as id, snippet(texts, 0, char(1), char(2), '…', 14) as sentence
         from texts join text_versions t on t.rowid = texts.rowid join documents d on d.id = t.document
         where texts match ? and d.binned is null and d.removed is null and d.starter is null order by rank limit ?`,
      ),
      named: db.prepare<[string, number], { id: string }>(
        "select id from documents where binned is null and removed is null and starter is null and name like ? escape '\\' order by changed desc limit ?",
      ),
    }
  }

  /** Reads the texts of documents that were changed since they were read last. */
  private refresh(): void {
    const stale = this.sql.stale.all(readAtOnce)
    if (stale.length > 0) this.db.transaction(() => this.read(stale))()
  }

  private read(stale: readonly { id: string; version: number }[]): void {
    for (const { id, version } of stale) {
      let text = ""
      try {
        text = wordsOf(this.store, id, version)
      } catch {
        // A damaged one is found by its name.
      }
      this.sql.forget.run(id)
      const { lastInsertRowid } = this.sql.version.run(id, version)
      this.sql.put.run(lastInsertRowid, text)
    }
  }

  /** Those whose names hold the words first, then those in which they are written, each with a sentence around them. */
  find(words: string): FoundDocument[] {
    this.refresh()
    const like = `%${words.trim().replace(/[\\%_]/g, "\\$&")}%`
    const query = queryOf(words)
    const written = new Map(
      query === null ? [] : this.sql.find.all(query, most).map(({ id, sentence }) => [id, sentence]),
    )
    const named = this.sql.named.all(like, most).map(({ id }) => id)
    return [...new Set([...named, ...written.keys()])].slice(0, most).flatMap((id) => {
      const entry = this.store.entry(id)
      return entry ? [{ entry, sentence: written.get(id) ?? null }] : []
    })
  }
}

function wordsOf(store: DocumentStore, id: string, version: number): string {
  const doc = store.at(id, version)
  return doc
    ? leavesOf(doc)
        .nodes.map((leaf) => leaf.textContent)
        .join("\n")
    : ""
}
