/** Whether all is saved is told calmly, and never too soon. */
import "./browser"
import { createDeskStore } from "../src/desk/store"
import { SavingShown } from "../src/desk/savingShown"

test("who writes without a pause is told once that it is being saved, and once that it is", async () => {
  jest.useFakeTimers({ doNotFake: ["queueMicrotask"] })
  Object.assign(globalThis, {
    requestAnimationFrame: (f: () => void) => setTimeout(f, 16),
    cancelAnimationFrame: clearTimeout,
  })
  const store = createDeskStore({ mode: "sheets", scale: 1 })
  const shown = new SavingShown(store)
  const told: string[] = []
  store.subscribe(({ saving }) => told.push(saving.kind))
  for (let letter = 0; letter < 20; letter++) {
    shown.show({ kind: "saving" })
    await jest.advanceTimersByTimeAsync(30)
    shown.show({ kind: "saved", at: letter })
    await jest.advanceTimersByTimeAsync(120)
  }
  expect(told).toEqual(["saving"])
  await jest.advanceTimersByTimeAsync(400)
  expect([told, store.getState().saving]).toEqual([["saving", "saved"], { kind: "saved", at: 19 }])
  // What is wrong is told at once, and that it is right again too.
  shown.show({ kind: "saving" })
  shown.show({ kind: "offline", kept: true })
  await jest.advanceTimersByTimeAsync(50)
  expect(store.getState().saving.kind).toBe("offline")
  shown.show({ kind: "saved", at: 30 })
  await jest.advanceTimersByTimeAsync(50)
  expect(store.getState().saving).toEqual({ kind: "saved", at: 30 })
  jest.useRealTimers()
})
