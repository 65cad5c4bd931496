/** Whether all is saved is told calmly, and never too soon. */
import "./browser"
import fc from "fast-check"
import { createDeskStore } from "../src/desk/store"
import { SavingShown } from "../src/desk/savingShown"
import type { Saving } from "../src/live/connection"

beforeEach(() => {
  jest.useFakeTimers({ doNotFake: ["queueMicrotask"] })
  Object.assign(globalThis, {
    requestAnimationFrame: (f: () => void) => setTimeout(f, 16),
    cancelAnimationFrame: clearTimeout,
  })
})
afterEach(() => jest.useRealTimers())

test("who writes without a pause is told once that it is being saved, and once that it is", async () => {
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
})

/** When a frame and what follows it are over. */
const shownAfter = 40

test("whatever comes and goes: nobody is told that all is saved while it is not, and the last word is the right one", async () => {
  const saving = fc.oneof(
    fc.constant<Saving>({ kind: "saving" }),
    fc.integer({ min: 1, max: 9 }).map((at): Saving => ({ kind: "saved", at })),
    fc.boolean().map((kept): Saving => ({ kind: "offline", kept })),
    fc.constant<Saving>({ kind: "postponed", reason: "The disk is full", kept: true }),
  )
  const event = fc.record({ saving, wait: fc.integer({ min: 0, max: 600 }) })
  await fc.assert(
    fc.asyncProperty(fc.array(event, { minLength: 1, maxLength: 20 }), async (events) => {
      const store = createDeskStore({ mode: "sheets", scale: 1 })
      const shown = new SavingShown(store)
      for (const own of events) {
        shown.show(own.saving)
        await jest.advanceTimersByTimeAsync(own.wait)
        if (own.wait >= shownAfter && own.saving.kind !== "saved") expect(store.getState().saving).toEqual(own.saving)
      }
      await jest.advanceTimersByTimeAsync(600)
      expect(store.getState().saving).toEqual(events.at(-1)?.saving)
    }),
    { numRuns: 60 },
  )
})
