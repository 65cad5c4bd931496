import fc from "fast-check"
import { nodes, p, table } from "../src/document"
import { childrenThat, ofChildren } from "../src/document/children"

const cells = (names: readonly string[]) => table(names.map((name) => [[p(name)]]))
const some = fc.array(fc.constantFrom("tide", "ebb", "flood"), { minLength: 60, maxLength: 80 })
const change = fc.tuple(fc.nat(79), fc.nat(4), fc.array(fc.constantFrom("tide", "ebb"), { maxLength: 3 }))

test("what is made of the children of a node from before equals what is made from nothing", () => {
  const say = (names: readonly string[]) => names.flatMap((name, i) => (name === "tide" ? [i] : []))
  fc.assert(
    fc.property(some, fc.array(change, { minLength: 1, maxLength: 6 }), (names, changes) => {
      let asked = 0
      const tides = childrenThat((row) => {
        asked++
        return row.textContent === "tide"
      })
      let own = cells(names)
      let now = [...names]
      expect(tides(own)).toEqual(say(now))
      for (const [at, gone, come] of changes) {
        const from = Math.min(at, own.childCount)
        const to = Math.min(from + gone, own.childCount)
        now = [...now.slice(0, from), ...come, ...now.slice(to)]
        own = nodes.table.create(own.attrs, [
          ...own.children.slice(0, from),
          ...cells(come).children,
          ...own.children.slice(to),
        ])
        asked = 0
        expect(tides(own)).toEqual(say(now))
        if (names.length >= 70 && from > 0 && to < own.childCount && own.childCount >= 66)
          expect(asked).toBeLessThanOrEqual(come.length)
      }
    }),
  )
})

test("four long tables are known at a time", () => {
  let made = 0
  const count = ofChildren((children, known) => {
    made += known ? 0 : 1
    return children.length
  })
  const tables = ["a", "b", "c", "d"].map((name) => cells(Array.from({ length: 100 }, (_, i) => `${name}${i}`)))
  for (const own of tables) count(own)
  for (const own of tables) expect(count(own.type.create(own.attrs, own.children.slice(0, -1)))).toBe(99)
  expect(made).toBe(4)
})
