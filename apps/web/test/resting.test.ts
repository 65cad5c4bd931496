/** Work behind the writing waits until the hands rest. */
import { heard } from "./heardKeys"
import { resting } from "../src/ui/resting"

async function restsAfter(ms: number): Promise<boolean> {
  let rests = false
  void resting().then(() => (rests = true))
  await jest.advanceTimersByTimeAsync(ms)
  return rests
}

test("it waits for the last key, press or scrolling, and not where there was none", async () => {
  jest.useFakeTimers()
  expect(await restsAfter(0)).toBe(true)
  for (const name of ["keydown", "beforeinput", "pointerdown", "scroll"]) {
    heard.get(name)?.()
    expect([name, await restsAfter(200)]).toEqual([name, false])
    expect(await restsAfter(60)).toBe(true)
  }
  // Each key puts it off again.
  let rests = 0
  heard.get("keydown")?.()
  void resting().then(() => rests++)
  for (let key = 0; key < 5; key++) {
    await jest.advanceTimersByTimeAsync(200)
    heard.get("keydown")?.()
    expect(rests).toBe(0)
    // Who comes later waits with the others.
    void resting().then(() => rests++)
    expect(jest.getTimerCount()).toBe(1)
  }
  await jest.advanceTimersByTimeAsync(260)
  expect(rests).toBe(6)
  jest.useRealTimers()
})
