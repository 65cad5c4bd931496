/** What is begun before the program is here, and work done in slices. */
import { api, NotThere } from "../src/api"
import { begunContent, begunLayout, begunSpeller } from "../src/early/begun"
import { inSlices, nextTask } from "../src/ui/slices"

const answer = (body: string, status = 200) => {
  const headers = new Map([
    ["Biblon-Version", "7"],
    ["Biblon-Stamp", "900.a"],
  ])
  return {
    ok: status < 400,
    status,
    text: () => Promise.resolve(body),
    json: () => Promise.resolve({ message: "There is no such document." }),
    headers: { get: (name: string) => headers.get(name) ?? null },
  } as unknown as Response
}
const begin = (id: string, response: Promise<Response>) => {
  const worker = { terminate: jest.fn() }
  const layout = { worker: worker as unknown as Worker, spec: { mode: "sheets" as const }, said: [] }
  globalThis.begun = { id, response, layout, speller: worker as unknown as Worker, endSight: () => {} }
  return worker
}
const fetched = jest.fn(() => Promise.resolve(answer("later")))
beforeEach(() => {
  globalThis.begun = undefined
  fetched.mockClear()
  globalThis.fetch = fetched as unknown as typeof fetch
})

test("the content that was asked for early is taken once, by its document and for the newest version alone", async () => {
  begin("a", Promise.resolve(answer("first")))
  expect(await api.content("b")).toEqual({ content: "later", version: 7, stamp: "900.a", early: false })
  expect(await api.content("a", 3)).toMatchObject({ content: "later", early: false })
  expect(await api.content("a")).toEqual({ content: "first", version: 7, stamp: "900.a", early: true })
  expect(await api.content("a")).toMatchObject({ content: "later", early: false })
  expect(fetched.mock.calls.map(([path]: unknown[]) => path)).toEqual([
    "/api/documents/b/content",
    "/api/documents/a/content?version=3",
    "/api/documents/a/content",
  ])
})

test("an early answer that brings nothing is told like any other, and the next attempt asks anew", async () => {
  begin("a", Promise.resolve(answer("", 404)))
  await expect(api.content("a")).rejects.toThrow(NotThere)
  begin("a", Promise.reject(new TypeError("no connection")))
  await expect(api.content("a")).rejects.toThrow("no connection")
  expect(await api.content("a")).toMatchObject({ content: "later" })
})

test("the worker goes to its document; for another it is ended", () => {
  const worker = begin("a", Promise.resolve(answer("")))
  expect(begunLayout("a")?.worker).toBe(worker)
  expect(begunLayout("a")).toBeNull()
  const other = begin("a", Promise.resolve(answer("")))
  expect(begunLayout("b")).toBeNull()
  expect(other.terminate).toHaveBeenCalled()
  expect(begunContent("c")).toBeNull()
  // Dictionaries are the same for every document.
  expect(begunSpeller()).toBe(other)
  expect(begunSpeller()).toBeNull()
})

describe("work in slices", () => {
  function* counting(n: number, ms: number) {
    for (let i = 0; i < n; i++) {
      const end = performance.now() + ms
      while (performance.now() < end);
      yield
    }
    return n
  }

  test("short work is done at a stretch, long work lets other tasks in", async () => {
    const paused = jest.fn(nextTask)
    expect(await inSlices(counting(20, 0), () => true, paused)).toBe(20)
    expect(paused).not.toHaveBeenCalled()
    let between = 0
    const timer = setInterval(() => between++, 0)
    expect(await inSlices(counting(12, 4), () => true, paused)).toBe(12)
    clearInterval(timer)
    expect(paused).toHaveBeenCalled()
    expect(between).toBeGreaterThan(0)
  })

  test("ends with nothing once it is no longer wanted", async () => {
    let wanted = true
    const work = inSlices(counting(1000, 4), () => wanted)
    wanted = false
    expect(await work).toBeNull()
  })
})
