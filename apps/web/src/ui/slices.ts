/** Longest stretch of work between two other tasks, in milliseconds. */
const slice = 6

/** Where the browser can say it: whether a key or a press is waiting. */
const { scheduling } = (globalThis.navigator ?? {}) as { scheduling?: { isInputPending?(): boolean } }
const isAsked = () => scheduling?.isInputPending?.() === true

/** Lets other tasks come first. */
export const nextTask = () => new Promise<void>((resolve) => setTimeout(resolve))

/**
 * Does work that can pause in short stretches, so that keys and frames come in between.
 * @param pause what is waited for between two stretches
 * @returns null once it is no longer wanted
 */
export async function inSlices<T>(
  work: Generator<void, T>,
  wanted: () => boolean,
  pause: () => Promise<void> = nextTask,
): Promise<T | null> {
  let end = performance.now() + slice
  for (;;) {
    const { done, value } = work.next()
    if (done) return value as T
    if (performance.now() < end && !isAsked()) continue
    await pause()
    if (!wanted()) return null
    end = performance.now() + slice
  }
}
