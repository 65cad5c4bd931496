/** The server's HTTP interface. Answers are those of our own server and of the same version, so their types suffice. */
import type { AddedFont, Problem, ShelfEntry } from "@biblon/wire"

declare global {
  /** What index.html has asked for before this program was here. */
  var earlyContent: { id: string; response: Promise<Response> } | undefined
}

/** The content that was asked for early, once. */
function early(id: string): Promise<Response> | null {
  const asked = globalThis.earlyContent
  globalThis.earlyContent = undefined
  return asked?.id === id ? asked.response : null
}

export class NotThere extends Error {}

async function ask(path: string, init?: RequestInit, asked?: Promise<Response> | null): Promise<Response> {
  const response = await (asked ?? fetch(`/api${path}`, init))
  if (response.ok) return response
  const problem = (await response.json().catch(() => null)) as Problem | null
  const message = problem?.message ?? `The server answered ${response.status}`
  throw response.status === 404 ? new NotThere(message) : new Error(message)
}

const json = async <T>(response: Promise<Response>): Promise<T> => (await (await response).json()) as T

export const api = {
  list: () => json<ShelfEntry[]>(ask("/documents")),
  create: () => json<ShelfEntry>(ask("/documents", { method: "POST" })),
  rename: (id: string, name: string | null) =>
    json<ShelfEntry>(ask(`/documents/${id}`, { method: "PATCH", headers: { "Content-Type": "application/json" }, body: JSON.stringify({ name }) })),
  sheets: (id: string) => json<{ sheets: number; version: number }>(ask(`/documents/${id}/sheets`)),
  /** The document node as JSON text; without `version` the newest. */
  content: async (id: string, version?: number): Promise<{ content: string; version: number }> => {
    const response = await ask(`/documents/${id}/content${version === undefined ? "" : `?version=${version}`}`, {}, version === undefined ? early(id) : null)
    return { content: await response.text(), version: Number(response.headers.get("Biblon-Version")) }
  },
  addFont: (file: Blob) => json<AddedFont>(ask("/fonts", { method: "POST", headers: { "Content-Type": "application/octet-stream" }, body: file })),
  pictureUrl: ({ id, version }: ShelfEntry) => `/api/documents/${id}/picture?v=${version}`,
}
