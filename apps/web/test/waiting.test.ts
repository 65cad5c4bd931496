/** Keys that wait for what is awaited, in their order. */
import { WaitingKeys } from "../src/desk/input/waiting"

const later = () => new Promise((resolve) => setTimeout(resolve, 1))

test("what is typed while something is read comes after it, in order, whether it succeeds or not", async () => {
  const waiting = new WaitingKeys(() => {})
  const done: string[] = []
  let settle = () => {}
  const held = waiting.hold(new Promise<void>((resolve) => (settle = resolve)).then(() => done.push("paste")))
  waiting.push(() => done.push("a"))
  waiting.push(() => done.push("b"))
  expect([done, waiting.any]).toEqual([[], true])
  settle()
  await held
  await later()
  expect([done, waiting.any]).toEqual([["paste", "a", "b"], false])
  await expect(waiting.hold(Promise.reject(new Error("no")))).rejects.toThrow("no")
  await later()
  expect(waiting.any).toBe(false)
})

test("a movement whose sheet is not here waits before all that came after it, and nothing is overwritten", () => {
  const waiting = new WaitingKeys(() => {})
  const done: string[] = []
  let here = false
  const move = (): void => void (here ? done.push("move") : waiting.again(move))
  waiting.again(move)
  waiting.push(() => done.push("a"))
  waiting.push(() => move())
  waiting.release()
  expect(done).toEqual([])
  here = true
  waiting.release()
  expect(done).toEqual(["move", "a", "move"])
})

test("what is chosen in a tray comes after the keys that were typed before it, and at once where none waits", () => {
  const waiting = new WaitingKeys(() => {})
  const done: string[] = []
  const choose = () => done.push("choice") > 0
  expect(waiting.inTurn(() => done.push("first") > 5)).toBe(false)
  let here = false
  const move = (): void => void (here ? waiting.inTurn(() => done.push("move") > 0) : waiting.again(move))
  waiting.again(move)
  expect(waiting.inTurn(choose)).toBe(true)
  expect(done).toEqual(["first"])
  here = true
  waiting.release()
  expect(done).toEqual(["first", "move", "choice"])
})

test("two things awaited at once hold keys until both are here", async () => {
  const waiting = new WaitingKeys(() => {})
  const done: string[] = []
  const [one, two] = [waiting.hold(Promise.resolve()), waiting.hold(later())]
  waiting.push(() => done.push("a"))
  await one
  waiting.release()
  expect(done).toEqual([])
  await two
  await later()
  await later()
  expect(done).toEqual(["a"])
})
