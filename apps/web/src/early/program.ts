/** The program's scripts, which scripts/build.mjs tells by their names; where it has not, the page asks for them itself. */
declare global {
  var program: { now: readonly string[]; desk: readonly string[] } | undefined
}

let started = false

/** Once; and not before there is a page for it, which scripts that the browser has kept would come ahead of. */
export function startProgram(): void {
  if (started) return
  started = true
  if (document.readyState === "loading") document.addEventListener("DOMContentLoaded", insert)
  else insert()
}

function insert(): void {
  for (const address of globalThis.program?.now ?? []) {
    const script = document.createElement("script")
    script.src = address
    // In their order.
    script.async = false
    document.head.append(script)
  }
}

/** Has the browser fetch what a document's page needs besides. */
export function fetchDesk(): void {
  for (const href of globalThis.program?.desk ?? [])
    document.head.append(Object.assign(document.createElement("link"), { rel: "preload", as: "script", href }))
}
