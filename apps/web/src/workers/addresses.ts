/** Where workers and WebAssembly modules lie. What was built has names that tell the content, and tells them here (scripts/build.mjs). */
declare global {
  var addresses: Readonly<Record<string, string>> | undefined
}

export function addressOf(name: string): string {
  return globalThis.addresses?.[name] ?? `/workers/${name}`
}

/** A worker by its plain name. What goes wrong in it is its owner's to tell, as against what nobody on the page has caught. */
export function workerOf(name: string): Worker {
  const worker = new Worker(addressOf(name), { type: "module" })
  worker.addEventListener("error", (event) => {
    event.preventDefault()
    console.warn(event.message || `${name} did not start`)
  })
  return worker
}
