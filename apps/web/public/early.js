// While the program is still on its way, a document's content is asked for and the layout begins to read it: src/live/early.ts takes both.
const asked = /^\/d\/([\w-]+)\/?$/.exec(location.pathname)
if (asked) {
  const worker = new Worker(globalThis.addresses?.["layout.worker.js"] ?? "/workers/layout.worker.js", {
    type: "module",
  })
  const response = fetch(`/api/documents/${asked[1]}/content`).then(async (answer) => {
    const bytes = await answer.arrayBuffer()
    if (answer.ok) worker.postMessage({ type: "read", bytes })
    return new Response(bytes, answer)
  })
  window.early = { id: asked[1], response, worker }
  response.catch(() => {})
}
