import "./page"
import fc from "fast-check"
import type { SetCell, SetTable } from "@biblon/core/layout"
import { inOrder } from "../src/desk/view/elements"
import { Nesting, type Standing } from "../src/desk/view/nesting"

/** What stands on a sheet: a paragraph, an item of a list, or a table of rows of cells. */
type Stood = "paragraph" | "item" | Stood[][][]

const { stood } = fc.letrec<{ stood: Stood }>((own) => ({
  stood: fc.oneof(
    { maxDepth: 2, depthSize: "small" },
    { weight: 2, arbitrary: fc.constant<Stood>("paragraph") },
    { weight: 4, arbitrary: fc.constant<Stood>("item") },
    {
      weight: 2,
      arbitrary: fc.array(
        fc.array(fc.array(own("stood"), { minLength: 1, maxLength: 4 }), { minLength: 1, maxLength: 2 }),
        { minLength: 1, maxLength: 2 },
      ),
    },
  ),
}))
const sheet = fc.array(stood, { maxLength: 7 })

/** The blocks of a sheet, each known by its number. */
function standingsOf(all: readonly Stood[], known: HTMLElement[]): Standing[] {
  let leaf = 0
  const inside = (list: readonly Stood[], cell: SetCell | null): Standing[] =>
    list.flatMap((own) => {
      if (typeof own !== "string") {
        const table = { leaf, alt: "", outer: cell } as SetTable
        return own.flatMap((row, r) =>
          row.flatMap((text, c) => {
            const spans = { rowspan: 1, colspan: 1, heads: null }
            return inside(text, { ...spans, table, leaf, row: r, column: c } as SetCell)
          }),
        )
      }
      const block = (known[leaf] ??= document.createElement("p"))
      block.textContent = String(leaf++)
      return [{ block, cell, isItem: own === "item", says: true }]
    })
  return inside(all, null)
}

/** How they should stand, in words. */
const told = (all: readonly Stood[]): string => {
  let n = 0
  const inside = (list: readonly Stood[]): string =>
    list
      .map((own) =>
        typeof own === "string"
          ? own === "item"
            ? `<${n++}>`
            : `${n++};`
          : `[${own.map((row) => `(${row.map((text) => `{${inside(text)}}`).join("")})`).join("")}]`,
      )
      .join("")
      .replaceAll("><", " ")
  return inside(all)
}

const signs: Record<string, [string, string]> = {
  list: ["<", ">"],
  table: ["[", "]"],
  row: ["(", ")"],
  cell: ["{", "}"],
}

/** How they stand, in the same words. */
function read(element: Element): string {
  const role = element.getAttribute("role") ?? element.role ?? ""
  const inside = [...element.children].map((own) => (own.tagName === "P" ? (own.textContent ?? "") : read(own)))
  const [before, behind] = signs[role] ?? ["", ""]
  const text = [...element.children].map((own, i) =>
    own.tagName === "P" && role !== "list" ? `${inside[i]};` : inside[i],
  )
  return `${before}${text.join(role === "list" ? " " : "")}${behind}`
}

test("whatever stood there before, all blocks stand in the lists and tables that they belong to", () => {
  fc.assert(
    fc.property(fc.array(sheet, { minLength: 1, maxLength: 4 }), (sheets) => {
      const [text, nesting, known] = [document.createElement("div"), new Nesting(), [] as HTMLElement[]]
      for (const own of sheets) {
        const all = standingsOf(own, known)
        for (const gone of known.splice(all.length)) gone.remove()
        inOrder(text, nesting.nest(all))
        expect(read(text)).toBe(told(own))
      }
    }),
  )
})

test("a list before a table and one behind it are two", () => {
  const text = document.createElement("div")
  inOrder(text, new Nesting().nest(standingsOf(["item", "item", [[["item"]]], "item"], [])))
  expect(read(text)).toBe("<0 1>[({<2>})]<3>")
})
