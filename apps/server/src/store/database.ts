import Database from "better-sqlite3"
import { pack } from "./packing"

export type Db = Database.Database

const migrations: (string | ((db: Db) => void))[] = [
  `create table documents (
     id text primary key,
     name text,
     opening text not null,
     created integer not null,
     changed integer not null,
     version integer not null
   ) strict;
   -- The change that led from version to version + 1.
   create table steps (
     document text not null references documents (id) on delete cascade,
     version integer not null,
     client text not null,
     step text not null,
     saved integer not null,
     primary key (document, version)
   ) strict, without rowid;
   create table snapshots (
     document text not null references documents (id) on delete cascade,
     version integer not null,
     content text not null,
     primary key (document, version)
   ) strict;
   -- Made from the layout when the shelf asks; can be thrown away at any time.
   create table pictures (
     document text primary key references documents (id) on delete cascade,
     version integer not null,
     sheets integer not null,
     svg text not null
   ) strict;`,
  `-- Files that documents use, by their SHA-256.
   create table assets (
     sha256 text primary key,
     bytes blob not null,
     type text not null,
     added integer not null
   ) strict, without rowid;`,
  // Documents written before some property existed were completed here; now they are when they are read.
  "",
  `-- Who made a change; empty for those made before that was kept.
   alter table steps add column person text not null default '';`,
  packSnapshots,
  `-- When it was put into the bin, in milliseconds since 1970; null for one on the shelf.
   alter table documents add column binned integer;
   -- The words of documents, to be searched; made anew from these when they are searched.
   create table text_versions (
     rowid integer primary key,
     document text not null unique references documents (id) on delete cascade,
     version integer not null
   ) strict;
   create virtual table texts using fts5 (body, tokenize = "unicode61 remove_diacritics 2");`,
  `-- Folders of the shelf.
   create table folders (
     id text primary key,
     name text,
     folder text,
     created integer not null
   ) strict;
   alter table documents add column folder text;
   -- What a starter is for, empty for people's own; null for documents.
   alter table documents add column starter text;
   -- When it was removed out of the bin, in milliseconds since 1970; it is swept away some time later.
   alter table documents add column removed integer;
   -- What is known of the words of a document goes with it.
   create trigger forget_text after delete on text_versions begin
     delete from texts where rowid = old.rowid;
   end;`,
  `-- What was handed over to the outside: to the printer, or to somebody by letter.
   create table jobs (
     id text primary key,
     kind text not null,
     head text not null,
     bytes blob not null,
     state text not null,
     reason text,
     steps integer not null,
     tries integer not null,
     made integer not null,
     due integer not null,
     ended integer
   ) strict;
   -- What keeps the printer or the post from going on.
   create table troubles (kind text primary key, trouble text not null) strict;`,
  // A document in the bin no longer names a folder that is not there.
  "update documents set folder = null where folder not in (select id from folders)",
]

/** Snapshots are packed, with the number of the form they are in. */
function packSnapshots(db: Db): void {
  db.exec(`alter table snapshots rename to plain;
   create table snapshots (
     document text not null references documents (id) on delete cascade,
     version integer not null,
     packed blob not null,
     format integer not null,
     saved integer not null,
     primary key (document, version)
   ) strict;`)
  const put = db.prepare(
    "insert into snapshots select document, version, ?, 1, (select changed from documents where id = document) from plain where rowid = ?",
  )
  const read = db.prepare<[number], { content: string }>("select content from plain where rowid = ?")
  for (const { rowid } of db.prepare<[], { rowid: number }>("select rowid from plain").all())
    put.run(pack(read.get(rowid)?.content ?? ""), rowid)
  db.exec("drop table plain")
}

/** Somebody else has the database open. */
export class DatabaseInUse extends Error {}

/** Milliseconds for which a server waits for another one that is just ending. */
const patience = 5000

/**
 * Opens the database for this process alone, making or bringing up to date its tables; one that is up to date is not written to, so
 * that it can be read where nothing can be written. A confirmed change survives a power cut: WAL with a sync at each commit.
 * @throws DatabaseInUse
 */
export function openDatabase(path: string): Db {
  const db = new Database(path, { timeout: patience })
  try {
    db.pragma("locking_mode = EXCLUSIVE")
    db.pragma("journal_mode = WAL")
    db.pragma("synchronous = FULL")
    db.pragma("foreign_keys = ON")
    const done = db.pragma("user_version", { simple: true }) as number
    if (done > migrations.length) throw new Error(`The database ${path} was made by a newer Biblon`)
    if (done < migrations.length)
      db.transaction(() => {
        for (const step of migrations.slice(done)) {
          if (typeof step === "string") db.exec(step)
          else step(db)
        }
        db.pragma(`user_version = ${migrations.length}`)
      })()
    return db
  } catch (error) {
    db.close()
    const { code } = error as { code?: string }
    if (code === "SQLITE_BUSY" || code === "SQLITE_LOCKED")
      throw new DatabaseInUse(
        `The database ${path} is in use: another server may be running on it. End that one, or set BIBLON_DATABASE to another file.`,
      )
    throw error
  }
}
