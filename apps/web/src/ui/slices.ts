/** Longest stretch of work between two other tasks, in milliseconds. */
const slice = 6

/** Where the browser can say it: whether a key or a press is waiting. */
const { scheduling } = (globalThis.navigator ?? {}) as { scheduling?: { isInputPending?(): boolean } }
const isAsked = () => scheduling?.isInputPending?.() === true

/** Does work that can pause in short stretches, so that keys and frames come in between. Null once it is no longer wanted. */
export async function inSlices<T>(
  work: Generator<void, T>,
  wanted: () => boolean,
  onPause?: () => void,
): Promise<T | null> {
  let end = performance.now() + slice
  for (;;) {
    const { done, value } = work.next()
    if (done) return value as T
    if (performance.now() < end && !isAsked()) continue
    onPause?.()
    await new Promise((resolve) => setTimeout(resolve))
    if (!wanted()) return null
    end = performance.now() + slice
  }
}
