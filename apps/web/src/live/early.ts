/** What index.html has begun before this program was here: each part is taken once, by the document it was begun for. */
declare global {
  var early: { id: string; response: Promise<Response> | null; worker: Worker | null } | undefined
}

/** The answer with the newest content of a document. */
export function earlyContent(id: string): Promise<Response> | null {
  const begun = globalThis.early
  if (begun?.id !== id) return null
  const { response } = begun
  begun.response = null
  return response
}

/** The layout worker that reads that content. */
export function earlyWorker(id: string): Worker | null {
  const begun = globalThis.early
  if (!begun?.worker) return null
  const { worker } = begun
  begun.worker = null
  if (begun.id === id) return worker
  worker.terminate()
  return null
}
