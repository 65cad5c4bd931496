/** When nobody writes or scrolls: work that nobody waits for keeps clear of keys, fingers and the frames that they make. */

/** Hands rest when nothing came from them for so many milliseconds. */
const rest = 250
let last = -Infinity

const heard = () => {
  last = performance.now()
}
for (const name of ["keydown", "beforeinput", "pointerdown", "scroll"])
  globalThis.document?.addEventListener(name, heard, { capture: true, passive: true })

let waiting: Promise<void> | null = null

async function wait(): Promise<void> {
  let left = 0
  do {
    await new Promise((resolve) => setTimeout(resolve, left))
    left = last + rest - performance.now()
  } while (left > 0)
  waiting = null
}

/** Resolves once the hands rest, in a later task; for all who wait at the same time. */
export function resting(): Promise<void> {
  return (waiting ??= wait())
}
