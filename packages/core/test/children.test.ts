import fc from "fast-check"
import {
  blocksOf,
  defaultSetup,
  document,
  nodes,
  p,
  positionOf,
  sectionsOf,
  structuresOf,
  table,
} from "../src/document"
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

const blocks = {
  paragraph: () => p("Low water at six."),
  table: () => table([[[p("tide")], [p("ebb")]]]),
  contents: () => nodes.contents.create(),
  sectionBreak: () => nodes.sectionBreak.create({ setup: defaultSetup }),
}
const kind = fc.constantFrom(
  "paragraph",
  "paragraph",
  "paragraph",
  "table",
  "contents",
  "sectionBreak",
) as fc.Arbitrary<keyof typeof blocks>

test("tables, contents and breaks are known by their numbers, as they are found one by one, whatever comes and goes", () => {
  fc.assert(
    fc.property(
      fc.array(kind, { minLength: 1, maxLength: 90 }),
      fc.array(fc.tuple(fc.nat(89), fc.nat(3), fc.array(kind, { maxLength: 3 })), { maxLength: 4 }),
      (kinds, changes) => {
        let all = kinds.map((own) => blocks[own]())
        for (const [at, gone, come] of [[0, 0, []] as const, ...changes]) {
          all = [...all.slice(0, at), ...come.map((own) => blocks[own]()), ...all.slice(at + gone)]
          if (all.length === 0) all = [p("")]
          const doc = document(all)
          const body = doc.child(0)
          const own = blocksOf(body)
          const leaves = (end: number) =>
            all.slice(0, end).reduce((sum, { type }) => sum + (type === nodes.table ? 2 : type.isTextblock ? 1 : 0), 0)
          const numbers = (type: string) => all.flatMap((block, i) => (block.type.name === type ? [i] : []))
          for (const type of ["table", "contents", "sectionBreak"])
            expect(structuresOf(body, type)).toEqual(numbers(type))
          expect(own.structures).toEqual(all.flatMap(({ isTextblock }, i) => (isTextblock ? [] : [i])))
          expect(all.map((_, i) => own.leaf(i))).toEqual(all.map((_, i) => leaves(i)))
          expect(own.leaf(all.length)).toBe(leaves(all.length))
          expect(all.map((_, i) => doc.nodeAt(positionOf(body, i) + 1))).toEqual(all)
          expect(sectionsOf(doc).flatMap(({ pos }) => (pos === null ? [] : [doc.nodeAt(pos)?.type.name]))).toEqual(
            numbers("sectionBreak").map(() => "sectionBreak"),
          )
        }
      },
    ),
  )
})
