/** The server's HTTP interface. Answers are those of our own server and of the same version, so their types suffice. */
import { begunContent } from "./early/begun"
import type {
  AddedFile,
  AddedFont,
  AddedPicture,
  FoundDocument,
  JobHead,
  LibraryMood,
  Meanings,
  Outside,
  Problem,
  ShelfChange,
  ShelfContents,
  ShelfEntry,
  Starter,
  Trouble,
  Work,
} from "@biblon/wire"

export class NotThere extends Error {}

/** So long a content is waited for that was asked for before the program was here, in milliseconds. */
const patience = 6000

async function ask(path: string, init?: RequestInit, asked: Response | null = null): Promise<Response> {
  const response = asked ?? (await fetch(`/api${path}`, init))
  if (response.ok) return response
  const problem = (await response.json().catch(() => null)) as Problem | null
  const message = problem?.message ?? `The server answered ${response.status}`
  throw response.status === 404 ? new NotThere(message) : new Error(message)
}

export interface Content {
  /** The document node as JSON text. */
  content: string
  version: number
  /** What tells the history of that version from others. */
  stamp: string
  /** Whether it was asked for before the program was here, so that the layout has it too. */
  early: boolean
}

const json = async <T>(response: Promise<Response>): Promise<T> => (await (await response).json()) as T

/** What a promise brings; null where that takes longer than so many milliseconds. */
async function inTime<T>(coming: Promise<T>, most: number): Promise<T | null> {
  let timer: ReturnType<typeof setTimeout> | undefined
  const late = new Promise<null>((end) => (timer = setTimeout(end, most, null)))
  try {
    return await Promise.race([coming, late])
  } finally {
    clearTimeout(timer)
  }
}

const sending = (method: string, body: object): RequestInit => ({
  method,
  headers: { "Content-Type": "application/json" },
  body: JSON.stringify(body),
})

export const api = {
  shelf: () => json<ShelfContents>(ask("/shelf")),
  /** Makes changes together or not at all; answers with those that take them back. */
  changeShelf: (changes: readonly ShelfChange[]) =>
    json<{ back: ShelfChange[] }>(ask("/shelf/changes", sending("POST", { changes }))),
  /** Begins a document in a folder: blank, or as a copy of a starter. */
  begin: (folder: string | null, starter?: string) =>
    json<ShelfEntry>(ask("/documents", sending("POST", { folder, starter }))),
  /** What an English word means. */
  meanings: (word: string, signal: AbortSignal) =>
    json<Meanings>(ask(`/lookup/words?of=${encodeURIComponent(word)}`, { signal })),
  /** What the library holds of some words. */
  works: (words: string, signal: AbortSignal) =>
    json<{ found: Work[]; mood: LibraryMood }>(ask(`/lookup/library?of=${encodeURIComponent(words)}`, { signal })),
  setLibraryMood: (mood: LibraryMood) => ask("/lookup/library/mood", sending("PUT", { mood })),
  starters: () => json<Starter[]>(ask("/starters")),
  /** Keeps a copy of a document as a starter. */
  makeStarter: (id: string) => json<Starter>(ask(`/documents/${id}/starter`, { method: "POST" })),
  /** Keeps a document node, as JSON, as a new document. */
  keepAsNew: (name: string | null, document: unknown, folder: string | null = null) =>
    json<ShelfEntry>(ask("/documents/kept", sending("POST", { name, document, folder }))),
  rename: (id: string, name: string | null) => json<ShelfEntry>(ask(`/documents/${id}`, sending("PATCH", { name }))),
  sheets: (id: string) => json<{ sheets: number | null; version: number }>(ask(`/documents/${id}/sheets`)),
  /** The document node as JSON text; without `version` the newest. */
  content: async (id: string, version?: number): Promise<Content> => {
    const begun = version === undefined ? begunContent(id) : null
    // What was begun and does not come is asked for anew.
    const early = begun && (await inTime(begun, patience))
    const response = await ask(
      `/documents/${id}/content${version === undefined ? "" : `?version=${version}`}`,
      {},
      early,
    )
    return {
      content: await response.text(),
      version: Number(response.headers.get("Biblon-Version")),
      stamp: response.headers.get("Biblon-Stamp") ?? "",
      early: early !== null,
    }
  },
  addFont: (file: Blob) =>
    json<AddedFont>(
      ask("/fonts", { method: "POST", headers: { "Content-Type": "application/octet-stream" }, body: file }),
    ),
  addPicture: (file: Blob) =>
    json<AddedPicture>(
      ask("/pictures", { method: "POST", headers: { "Content-Type": "application/octet-stream" }, body: file }),
    ),
  addEnclosure: (file: Blob) =>
    json<AddedFile>(
      ask("/enclosures", { method: "POST", headers: { "Content-Type": "application/octet-stream" }, body: file }),
    ),
  /** The file of a picture in a document, or one that is enclosed. */
  picture: async (asset: string) => (await ask(`/assets/${asset}`)).blob(),
  search: (words: string) => json<FoundDocument[]>(ask(`/search?words=${encodeURIComponent(words)}`)),
  duplicate: (id: string) => json<ShelfEntry>(ask(`/documents/${id}/copies`, { method: "POST" })),
  outside: () => json<Outside>(ask("/outside")),
  /** Hands a file over to the printer or the post. */
  handOver: (head: JobHead, file: Blob) =>
    ask("/outside/jobs", {
      method: "POST",
      headers: { "Content-Type": "application/octet-stream" },
      body: new Blob([`${JSON.stringify(head)}\n`, file]),
    }),
  stopJob: (id: string) => ask(`/outside/jobs/${id}`, { method: "DELETE" }),
  setTrouble: (kind: "print" | "send", trouble: Trouble | null) =>
    json<Outside>(ask(`/outside/${kind}/trouble`, sending("PUT", { trouble }))),
  jobFileUrl: (id: string) => `/api/outside/jobs/${id}/file`,
  pictureUrl: ({ id, version }: { id: string; version: number }) => `/api/documents/${id}/picture?v=${version}`,
}
