/** Where workers and WebAssembly modules lie. What was built has names that tell the content, and tells them here (scripts/build.mjs). */
declare global {
  var addresses: Readonly<Record<string, string>> | undefined
}

export function addressOf(name: string): string {
  return globalThis.addresses?.[name] ?? `/workers/${name}`
}
