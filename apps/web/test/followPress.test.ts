/** A press on a handle ends once: let go where it was, let go elsewhere, or put back. */
import fc from "fast-check"
import { followPress, takePress, type Press } from "../src/ui/followPress"

class Pointer extends Event {
  constructor(
    type: string,
    readonly pointerId: number,
    readonly clientX: number,
    readonly clientY: number,
  ) {
    super(type, { cancelable: true })
  }
}
class Key extends Event {
  constructor(readonly key: string) {
    super("keydown", { cancelable: true })
  }
}

const page = new EventTarget()
beforeAll(() => Object.assign(globalThis, { addEventListener: page.addEventListener.bind(page) }))

const press = (over: Partial<Press> = {}): Press => ({
  button: 0,
  pointerId: 1,
  clientX: 100,
  clientY: 50,
  preventDefault: jest.fn(),
  stopPropagation: jest.fn(),
  ...over,
})

/** Follows a press on a handle and writes down what is heard. */
function following(slack?: number) {
  const captured: number[] = []
  const handle = Object.assign(new EventTarget(), { setPointerCapture: (id: number) => captured.push(id) })
  const heard: string[] = []
  followPress(handle as unknown as HTMLElement, press(), {
    ...(slack === undefined ? {} : { slack }),
    move: (dx, dy) => heard.push(`by ${dx}, ${dy}`),
    end: (how) => heard.push(how),
  })
  const pointer = (type: string, x = 100, y = 50, id = 1) => handle.dispatchEvent(new Pointer(type, id, x, y))
  return { heard, captured, pointer }
}

test("let go where it was pressed, it was a press; let go elsewhere, it was moved", () => {
  const pressed = following(3)
  pressed.pointer("pointermove", 102)
  pressed.pointer("pointerup", 102)
  expect(pressed.heard).toEqual(["pressed"])
  expect(pressed.captured).toEqual([1])

  const moved = following(3)
  moved.pointer("pointermove", 104, 48)
  moved.pointer("pointermove", 101, 50)
  moved.pointer("pointerup", 101, 50)
  expect(moved.heard).toEqual(["by 4, -2", "by 1, 0", "moved"])
})

test("a second finger is not heard", () => {
  const { heard, pointer } = following()
  pointer("pointermove", 300, 300, 2)
  pointer("pointerup", 300, 300, 2)
  pointer("pointercancel", 300, 300, 2)
  expect(heard).toEqual([])
  pointer("pointerup")
  expect(heard).toEqual(["pressed"])
})

test("Escape puts back and means nothing else; other keys mean what they mean", () => {
  const { heard, pointer } = following()
  pointer("pointermove", 110)
  const letter = new Key("a")
  page.dispatchEvent(letter)
  expect(letter.defaultPrevented).toBe(false)
  const escape = new Key("Escape")
  page.dispatchEvent(escape)
  expect(escape.defaultPrevented).toBe(true)
  expect(heard).toEqual(["by 10, 0", "putBack"])
  const later = new Key("Escape")
  page.dispatchEvent(later)
  expect(later.defaultPrevented).toBe(false)
})

test("whatever follows, it ends once and nothing is heard after that", () => {
  const happening = fc.oneof(
    fc.constant("Escape"),
    fc.tuple(fc.constantFrom("pointermove", "pointerup", "pointercancel"), fc.integer(), fc.integer(), fc.nat(2)),
  )
  fc.assert(
    fc.property(fc.array(happening, { maxLength: 20 }), fc.nat(5), (happenings, slack) => {
      const { heard, pointer } = following(slack)
      for (const own of happenings)
        if (own === "Escape") page.dispatchEvent(new Key("Escape"))
        else pointer(...(own as [string, number, number, number]))
      const ends = heard.filter((own) => !own.startsWith("by"))
      expect(ends.length).toBeLessThanOrEqual(1)
      if (ends.length === 1) expect(heard.at(-1)).toBe(ends[0])
      if (ends[0] === "pressed") expect(heard).toHaveLength(1)
      if (ends[0] === "moved") expect(heard.length).toBeGreaterThan(1)
      page.dispatchEvent(new Key("Escape"))
    }),
  )
})

test("handles take presses of the main button only, and nobody else hears of these", () => {
  const main = press()
  expect(takePress(main)).toBe(true)
  expect(main.preventDefault).toHaveBeenCalled()
  expect(main.stopPropagation).toHaveBeenCalled()
  const other = press({ button: 2 })
  expect(takePress(other)).toBe(false)
  expect(other.preventDefault).not.toHaveBeenCalled()
})
