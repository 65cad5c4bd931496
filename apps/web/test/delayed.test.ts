import { Delayed } from "../src/ui/delayed"

describe("what is done later", () => {
  beforeEach(() => void jest.useFakeTimers())
  afterEach(() => void jest.useRealTimers())
  const begun = () => {
    const done: number[] = []
    const start = performance.now()
    return { done, own: new Delayed(() => void done.push(Math.round(performance.now() - start))) }
  }

  test("is done once, so long after it was asked for last", () => {
    const { done, own } = begun()
    own.in(100)
    jest.advanceTimersByTime(60)
    own.in(100)
    jest.advanceTimersByTime(99)
    expect([done, own.waits]).toEqual([[], true])
    jest.advanceTimersByTime(500)
    expect([done, own.waits]).toEqual([[160], false])
  })

  test("is done sooner where it is asked for sooner, and not at all where it is not to be done", () => {
    const { done, own } = begun()
    own.in(500)
    own.in(20)
    jest.advanceTimersByTime(600)
    own.in(50)
    own.cancel()
    jest.advanceTimersByTime(600)
    expect(done).toEqual([20])
  })

  test("puts off with one timer, and may ask for itself again", () => {
    const set = jest.spyOn(globalThis, "setTimeout")
    const { done, own } = begun()
    for (let key = 0; key < 40; key++) {
      own.in(100)
      jest.advanceTimersByTime(10)
    }
    expect(set.mock.calls.length).toBeLessThan(8)
    jest.advanceTimersByTime(100)
    expect(done).toEqual([490])
    let times = 0
    const again: Delayed = new Delayed(() => void (++times < 3 && again.in(10)))
    again.in(10)
    jest.advanceTimersByTime(100)
    expect([times, jest.getTimerCount()]).toEqual([3, 0])
    own.in(10)
    own.close()
    expect(jest.getTimerCount()).toBe(0)
  })
})
