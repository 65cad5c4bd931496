/** When nobody writes or scrolls: work that nobody waits for keeps clear of keys, fingers and the frames that they make. */

/** Hands rest when nothing came from them for so many milliseconds. */
const rest = 250
let last = -Infinity

const heard = () => {
  last = performance.now()
}
for (const name of ["keydown", "beforeinput", "pointerdown", "scroll"])
  globalThis.document?.addEventListener(name, heard, { capture: true, passive: true })

/** Resolves once the hands rest, in a task of its own. */
export async function resting(): Promise<void> {
  let left = 0
  do {
    await new Promise((resolve) => setTimeout(resolve, left))
    left = last + rest - performance.now()
  } while (left > 0)
}
