/** Forms of sources and briefs, as far as they need no screen; and what is kept of them on the device. */
import fc from "fast-check"
import { briefRules, readyBriefs, verdictOf, type BriefRule } from "@biblon/core/brief"
import { readBrief } from "@biblon/core/brief/reading"
import { document, p, sourceKinds, type Brief } from "@biblon/core/document"
import { readDocument } from "@biblon/core/document/reading"
import { partsOf, usualRules, valueAt, withValue, type RulePart } from "../src/desk/trays/check/brief/rules"
import { askedOf, kindNames, namesFrom, namesText } from "../src/desk/trays/place/sources/kinds"

import type * as Library from "../src/desk/trays/place/sources/library"
import type * as OwnBriefs from "../src/desk/trays/check/brief/ownBriefs"

const storage = new Map<string, string>()
beforeEach(() => {
  storage.clear()
  jest.resetModules()
  Object.defineProperty(globalThis, "localStorage", {
    configurable: true,
    value: {
      getItem: (key: string) => storage.get(key) ?? null,
      setItem: (key: string, value: string) => storage.set(key, value),
    },
  })
})

test("names that are typed are read as they are shown, and shown as they are read", () => {
  expect(namesFrom(" Marlowe, Ida;; Harbour Trust ;van der Meer, Jan, Jr.")).toEqual([
    { family: "Marlowe", given: "Ida" },
    { literal: "Harbour Trust" },
    { family: "van der Meer", given: "Jan, Jr." },
  ])
  expect(namesFrom("Sands,")).toEqual([{ literal: "Sands" }])
  expect(namesText(undefined)).toBe("")
  fc.assert(
    fc.property(fc.string(), (typed) => {
      const read = namesFrom(typed)
      expect(namesFrom(namesText(read))).toEqual(read)
    }),
  )
})

test("each kind of source has a name and asks for something", () => {
  expect(kindNames.map(([kind]) => kind).sort()).toEqual([...sourceKinds].sort())
  for (const kind of sourceKinds) {
    const { roles, fields } = askedOf(kind)
    expect(fields.length).toBeGreaterThan(1)
    for (const keys of [roles, fields].map((own) => own.map(([key]) => key)))
      expect(new Set(keys).size).toBe(keys.length)
  }
})

/** Something else in the place of a part, within its bounds. */
function other(part: RulePart, now: unknown): unknown {
  switch (part.kind) {
    case "length":
      return (part.least ?? 0) + (now === (part.least ?? 0) ? 1 : 0)
    case "number":
      return now === part.range[0] ? part.range[0] + part.step : part.range[0]
    case "choice":
      return part.options.find(([own]) => own !== now)?.[0]
    case "text":
      return `${now as string}x`
    case "switch":
      return now !== true
  }
}

test("whatever is changed in the form of a rule, the brief is one that a document may have", () => {
  const all: Brief[] = [...readyBriefs, { name: "Usual", ...usualRules }]
  for (const brief of all)
    for (const rule of briefRules) {
      const asked = brief[rule]
      if (asked === undefined) continue
      const parts = partsOf(rule as BriefRule, asked as never)
      expect([rule, parts.length > 0]).toEqual([rule, true])
      for (const part of parts) {
        const next = withValue(asked, part.path, other(part, valueAt(asked, part.path)))
        expect(valueAt(next, part.path)).toEqual(other(part, valueAt(asked, part.path)))
        // What is asked for is a value of its own: the one before is as it was.
        expect(brief[rule]).toBe(asked)
        const changed = { ...brief, [rule]: next } as Brief
        expect(readBrief(JSON.stringify({ biblonBrief: 1, ...changed }))).toEqual(changed)
        const doc = readDocument({
          ...document([p("x")]).toJSON(),
          attrs: { ...document([p("x")]).attrs, brief: changed },
        })
        expect(verdictOf(doc, changed, rule, { sheets: 1, length: String, language: String })?.says).toMatch(/\S/)
      }
    }
})

test("the library and briefs of one's own stay on the device, once each, and what is broken there is passed over", () => {
  storage.set(
    "biblon-library",
    JSON.stringify([{ type: "book", title: "Tides", author: [{ family: "Sands" }] }, 7, null, "x"]),
  )
  storage.set("biblon-briefs", JSON.stringify([{ name: "Mine", text: "{}" }, { name: 5 }, null]))
  const { keepSources, useLibrary } = jest.requireActual<typeof Library>("../src/desk/trays/place/sources/library")
  const { keepBrief, dropBrief, useOwnBriefs } = jest.requireActual<typeof OwnBriefs>(
    "../src/desk/trays/check/brief/ownBriefs",
  )
  const [tides] = useLibrary.getState().sources
  expect(useLibrary.getState().sources).toHaveLength(1)
  keepSources([{ ...tides!, remarks: "read" }])
  expect(useLibrary.getState().sources).toMatchObject([{ remarks: "read" }])
  expect(JSON.parse(storage.get("biblon-library") ?? "")).toMatchObject([
    { type: "book", title: "Tides", note: "read" },
  ])
  expect(useOwnBriefs.getState().briefs).toEqual([{ name: "Mine", text: "{}" }])
  keepBrief({ name: "Mine", size: 12 })
  expect(useOwnBriefs.getState().briefs).toHaveLength(1)
  expect(readBrief(useOwnBriefs.getState().briefs[0]!.text)).toEqual({ name: "Mine", size: 12 })
  dropBrief("Mine")
  expect(useOwnBriefs.getState().briefs).toEqual([])
})
