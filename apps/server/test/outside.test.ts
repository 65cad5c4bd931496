import type { JobHead } from "@biblon/wire"
import { JobQueue } from "../src/outside/queue"
import { openDatabase } from "../src/store/database"

const print = (id: string, sides: number | null = 3): JobHead => ({
  kind: "print",
  id,
  name: `${id}.pdf`,
  media: "application/pdf",
  sides,
})
const letter = (id: string): JobHead => ({
  kind: "send",
  id,
  name: "Report.pdf",
  media: "application/pdf",
  to: "orrin@harbour.example",
  subject: "The report",
  words: "As promised.",
})

function outside() {
  const db = openDatabase(":memory:")
  const clock = { now: 1000 }
  const open = () => {
    const queue = new JobQueue(db, () => clock.now)
    // Steps are taken by hand here.
    queue.close()
    return queue
  }
  const queue = open()
  const states = () => queue.all().jobs.map(({ head, state, progress }) => [head.id, state, Math.round(progress * 3)])
  const bytes = new Uint8Array([37, 80, 68, 70])
  return { queue, open, clock, states, bytes }
}

test("sheets are printed one after the other; a jam holds them up, and clearing it lets them go on where they were", () => {
  const { queue, states, clock, bytes } = outside()
  queue.take(print("season-1"), bytes)
  clock.now++
  queue.take(print("season-2", 1), bytes)
  queue.close()
  queue.goOn()
  expect(states()).toEqual([
    ["season-2", "waiting", 0],
    ["season-1", "going", 1],
  ])
  queue.setTrouble("print", "jam")
  queue.goOn()
  queue.goOn()
  expect(queue.all().jobs[1]).toMatchObject({ state: "waiting", reason: "Paper is jammed" })
  expect(queue.all().troubles).toEqual({ print: "jam", send: null })
  queue.setTrouble("print", null)
  for (let i = 0; i < 3; i++) expect(queue.goOn()).toBe(true)
  expect(queue.goOn()).toBe(false)
  expect(states()).toEqual([
    ["season-2", "done", 3],
    ["season-1", "done", 3],
  ])
  expect([...(queue.file("season-1")?.bytes ?? [])]).toEqual([...bytes])
  queue.close()
})

test("what is handed over twice is done once, what is stopped is not done, and a server that ended goes on", () => {
  const { queue, open, states, bytes } = outside()
  queue.take(print("season-1"), bytes)
  queue.take(print("season-1"), new Uint8Array([1]))
  queue.take(print("season-2"), bytes)
  expect(queue.stop("season-2")).toBe(true)
  expect(queue.stop("season-2")).toBe(false)
  queue.goOn()
  queue.close()
  const after = open()
  for (let i = 0; i < 5; i++) after.goOn()
  expect(states()).toEqual([
    ["season-1", "done", 3],
    ["season-2", "stopped", 0],
  ])
  expect(after.stop("season-1")).toBe(false)
})

test("a letter that cannot be carried is tried again, later each time, and is sent once", () => {
  const { queue, clock, bytes } = outside()
  expect(queue.setTrouble("send", "jam")).toBe(false)
  queue.setTrouble("send", "line")
  queue.take(letter("letter-1"), bytes)
  queue.close()
  const job = () => queue.all().jobs[0]!
  const tried: number[] = []
  for (let i = 0; i < 20_000; i += 250) {
    clock.now += 250
    const before = job().tries
    queue.goOn()
    if (job().tries > before) tried.push(clock.now)
  }
  expect(job()).toMatchObject({ state: "waiting", reason: "The line is down; tried 5 times" })
  const waits = tried.slice(1).map((time, i) => time - (tried[i] ?? 0))
  expect(waits).toEqual([1000, 2000, 4000, 8000])
  queue.setTrouble("send", null)
  clock.now += 60_000
  queue.goOn()
  expect(job()).toMatchObject({ state: "done", tries: 6, ended: clock.now })
  queue.goOn()
  expect(job().tries).toBe(6)
  queue.close()
})
