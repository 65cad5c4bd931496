/** What shaping at the desk does without a screen: trying values, match look, units, recents, keys, tools. */
import { EditorState, TextSelection, type Transaction } from "prosemirror-state"
import { document as makeDocument, letters, p } from "@biblon/core/document"
import { insertText, setLetters, setParagraphs, type Command } from "@biblon/core/editing"

import { kept } from "./browser"
import { keyAction, keyLabel } from "../src/commands/keys"
import { toolNamed, tools } from "../src/commands/registry"
import { findTools } from "../src/commands/search"
import { languageName, languageOptions } from "../src/desk/languages"
import { LookLaying } from "../src/desk/laying"
import { useRecents } from "../src/desk/recents"
import type { DeskSession } from "../src/desk/session"
import { createDeskStore } from "../src/desk/store"
import { Trial } from "../src/desk/trial"
import { nameOf, valueWords } from "../src/desk/trays/propertyWords"
import { trying } from "../src/desk/trying"
import { readNumber } from "../src/ui/numberEntry"
import { inUnit, readLength, stepLength, units, useUnit } from "../src/ui/units"

jest.mock("../src/ui/icons", () => new Proxy({}, { get: (_, name) => (name === "__esModule" ? true : String(name)) }))

function stateOf(...blocks: Parameters<typeof makeDocument>[0]): EditorState {
  return EditorState.create({ doc: makeDocument(blocks) })
}

describe("trying a value", () => {
  let state: EditorState
  const sent: unknown[][] = []
  const trial = new Trial({
    editor: () => state,
    layOut: (steps) => void sent.push(steps.map((text) => JSON.parse(text) as unknown)),
  })
  beforeEach(() => {
    jest.useFakeTimers()
    trial.end()
    sent.length = 0
    state = stateOf(p("The ferry"))
    state = state.apply(state.tr.setSelection(TextSelection.create(state.doc, 2, 6)))
  })
  afterEach(() => jest.useRealTimers())

  test("lays out the steps of it, and those that take them back", () => {
    trial.show(setLetters("bold", true), "once")
    expect(sent).toMatchObject([[{ stepType: "addMark", mark: { type: "bold" } }]])
    trial.show(null)
    expect(sent[1]).toMatchObject([{ stepType: "removeMark" }])
    trial.show(null)
    expect(sent).toHaveLength(2)
  })

  test("passes over what a pointer only crosses", () => {
    trial.show(setLetters("bold", true))
    trial.show(setLetters("italic", true))
    trial.show(null)
    jest.runAllTimers()
    expect(sent).toEqual([])
    trial.show(setLetters("italic", true))
    jest.runAllTimers()
    expect(sent).toMatchObject([[{ mark: { type: "italic" } }]])
  })

  test("takes back the one before, in the right order, before the next is shown", () => {
    trial.show(setParagraphs({ align: "right" }), "once")
    trial.show(setLetters("size", 30), "once")
    expect(sent).toMatchObject([
      [{ attr: "format", entries: [{ path: ["align"], value: "right" }] }],
      [{ attr: "format", entries: [{ path: ["align"] }] }],
      [{ mark: { type: "size" } }],
    ])
    trial.end()
    expect(sent).toHaveLength(4)
  })

  test("does not try what would move the text under the pointer, nor what changes nothing", () => {
    trial.show(insertText("more"), "once")
    trial.show(setLetters("bold", false), "once")
    expect(sent).toEqual([])
  })
})

test("pointing tries, pressing takes; what comes under a resting pointer afterwards is not tried", () => {
  const shown: (Command | null)[] = []
  const ran: Command[] = []
  const session = {
    trial: { show: (command: Command | null) => void shown.push(command) },
    run: (command: Command) => ran.push(command),
  } as unknown as DeskSession
  const bold = setLetters("bold", true)
  const props = trying(session, bold)
  const at = (x: number, y: number, pointerType = "mouse") => ({ pointerType, clientX: x, clientY: y }) as never
  props.onPointerEnter(at(5, 5))
  props.onPointerLeave()
  expect(shown).toEqual([bold, null])
  props.onPointerEnter(at(5, 5, "touch"))
  expect(shown).toHaveLength(2)
  props.onPointerDown(at(5, 5, "touch"))
  expect(shown).toHaveLength(3)
  props.onClick(at(5, 5))
  expect(ran).toEqual([bold])
  props.onPointerEnter(at(5, 5))
  expect(shown).toHaveLength(3)
  props.onPointerEnter(at(6, 5))
  expect(shown).toHaveLength(4)
})

describe("a look in hand", () => {
  function desk(state: EditorState) {
    const store = createDeskStore({ mode: "sheets", scale: 1 })
    const session = {
      store,
      now: state,
      run(command: Command) {
        return command(session.now, (tr: Transaction) => (session.now = session.now.apply(tr)))
      },
    }
    return { session, store, laying: new LookLaying(session as unknown as DeskSession) }
  }
  const select = (state: EditorState, from: number, to: number) =>
    state.apply(state.tr.setSelection(TextSelection.create(state.doc, from, to)))
  const bolds = (state: EditorState) => {
    const found: string[] = []
    state.doc.descendants(
      (node) => void (node.marks.some(({ type }) => type.name === "bold") && found.push(node.text ?? "")),
    )
    return found
  }

  test("is laid on the next selection and put down, or kept for more", () => {
    const { session, store, laying } = desk(select(stateOf(p(letters("seen", { bold: true }), " plain other")), 2, 6))
    laying.pickUp()
    expect(store.getState().laying).toMatchObject({ part: "letters", many: false })
    session.now = select(session.now, 7, 12)
    laying.selected()
    expect(bolds(session.now)).toEqual(["seen", "plain"])
    expect(store.getState().laying).toBeNull()
    laying.selected()
    session.now = select(session.now, 2, 6)
    laying.pickUp()
    laying.change({ many: true })
    session.now = select(session.now, 13, 18)
    laying.selected()
    expect(store.getState().laying).not.toBeNull()
    laying.putDown()
    expect([bolds(session.now), store.getState().laying]).toEqual([["seen", "plain", "other"], null])
  })

  test("of letters alone does nothing at a mere caret", () => {
    const { session, laying } = desk(select(stateOf(p(letters("seen", { bold: true }), " plain")), 2, 6))
    laying.pickUp()
    session.now = select(session.now, 9, 9)
    laying.selected()
    expect(bolds(session.now)).toEqual(["seen"])
  })
})

describe("lengths", () => {
  test("are read in the person's unit or in one that is typed behind them", () => {
    expect([
      readLength("2,5", "cm"),
      readLength("2.5cm", "pt"),
      readLength(" 1 in ", "cm"),
      readLength('1"', "cm"),
      readLength("12 pt", "cm"),
      readLength("-3 mm", "in"),
    ]).toEqual([(2.5 * 72) / 2.54, (2.5 * 72) / 2.54, 72, 72, 12, (-3 * 72) / 25.4])
    expect([readLength("far", "cm"), readLength("", "cm"), readLength("3 ells", "cm")]).toEqual([null, null, null])
    expect(readNumber("1,5", 0, 10)).toBe(1.5)
  })

  test("go in steps that are round in the unit, from wherever they are", () => {
    for (const unit of Object.keys(units) as (keyof typeof units)[]) {
      const up = stepLength(0, 1, unit)
      expect(stepLength(up, -1, unit)).toBeCloseTo(0, 9)
      expect(stepLength(up * 1.4, 1, unit)).toBeCloseTo(2 * up, 9)
      expect(stepLength(up * 1.4, -1, unit)).toBeCloseTo(up, 9)
    }
    expect(inUnit(72, "cm")).toBe(2.54)
  })

  test("stay in the unit that was chosen, on this device", () => {
    expect(useUnit.getState().unit).toBe("cm")
    useUnit.getState().choose("pt")
    expect([useUnit.getState().unit, kept.get("biblon-unit")]).toEqual(["pt", '"pt"'])
  })
})

test("what was chosen last comes first, once, and not without end", () => {
  const { used } = useRecents.getState()
  for (const name of ["Tinos", "Inter", "Lora", "Inter", "Arimo", "Carlito"]) used("typefaces", name)
  expect(useRecents.getState().typefaces).toEqual(["Carlito", "Arimo", "Inter", "Lora"])
  expect(JSON.parse(kept.get("biblon-recent-typefaces")!)).toEqual(["Carlito", "Arimo", "Inter", "Lora"])
})

test("languages are named, in order, with one that is not listed among them", () => {
  expect([languageName("de"), languageName("not a tag")]).toEqual(["German", "not a tag"])
  const options = languageOptions("gd")
  expect(options.map(([, name]) => name)).toEqual(
    [...options.map(([, name]) => name)].sort((a, b) => a.localeCompare(b)),
  )
  expect(options.some(([tag]) => tag === "gd")).toBe(true)
  expect(languageOptions("de")).toHaveLength(options.length - 1)
})

test("every value of a property has words", () => {
  const words = (property: string, value: unknown, of: "letters" | "paragraph" = "paragraph") =>
    valueWords({ of, property } as never, value, "cm")
  expect([
    words("align", "justify"),
    words("keepNext", false),
    words("shading", null),
    words("indentLeft", 72),
    words("lineSpacing", { rule: "exact", value: 17 }),
    words("tabs", []),
    words("tabs", [{ position: 72, align: "right", leader: "none" }]),
  ]).toEqual(["Justified", "no", "none", "2.54 cm", "exactly 17 pt", "none", "right 2.54 cm"])
  expect([
    words("borders", { top: {}, left: {} }),
    words("dropCap", { lines: 3 }),
    words("list", { definition: "clauses", level: 1 }),
    words("size", 12, "letters"),
    words("language", "fr", "letters"),
    words("colour", "#7a1f4b", "letters"),
  ]).toEqual(["top, left", "3 lines", "1.  1.1  1.1.1, level 2", "12 pt", "French", "#7a1f4b"])
  expect([nameOf({ of: "letters", property: "caps" }), nameOf({ of: "paragraph", property: "spaceAlike" })]).toEqual([
    "Capitals",
    "Space between paragraphs of one style",
  ])
})

describe("tools", () => {
  test("have names and keys of their own", () => {
    expect(new Set(tools.map(({ id }) => id)).size).toBe(tools.length)
    const keys = tools.flatMap((tool) => [...(tool.keys ?? []), ...(tool.keysShown ? [tool.keysShown] : [])])
    expect(keys.filter((key, i) => keys.indexOf(key) !== i)).toEqual([])
    expect(tools.filter(({ silent, words }) => !silent && words.length < 4).map(({ name }) => name)).toEqual([])
  })

  test("of shaping are found by what people might call them", () => {
    const first = (typed: string) =>
      findTools(
        tools.filter(({ silent }) => !silent),
        typed,
      )[0]?.name
    expect(
      [
        "bullets",
        "copy format",
        "bibliography",
        "rtl",
        "theme",
        "why",
        "separator",
        "check list",
        "exponent",
        "hyphenation",
      ].map(first),
    ).toEqual([
      "List with marks",
      "Pick up look",
      "Hanging indent",
      "Right to left",
      "Sets of faces and colours",
      "Trail",
      "Line across",
      "Things to do",
      "Superscript",
      "Language, units and line breaking",
    ])
  })

  test("know whether they are on, off or mixed", () => {
    const state = stateOf(p(letters("up", { script: "super" }), "down"))
    const all = state.apply(state.tr.setSelection(TextSelection.create(state.doc, 2, 8)))
    const some = state.apply(state.tr.setSelection(TextSelection.create(state.doc, 2, 4)))
    expect([
      toolNamed("superscript").extent!(all),
      toolNamed("superscript").extent!(some),
      toolNamed("subscript").extent!(some),
    ]).toEqual(["mixed", "on", "off"])
    expect([
      toolNamed("list-marks").extent!(all),
      toolNamed("reset-style").applies!(some),
      toolNamed("leave-list").applies!(all),
    ]).toEqual(["off", true, false])
  })

  test("answer to Tab, Enter and their own keys", () => {
    const press = (key: string, modifiers: Partial<KeyboardEvent> = {}) =>
      keyAction({ key, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...modifiers } as KeyboardEvent)
    expect(
      [
        press("Tab"),
        press("Tab", { shiftKey: true }),
        press("l", { ctrlKey: true, altKey: true }),
        press("j", { ctrlKey: true, altKey: true }),
      ].every((act) => act !== null),
    ).toBe(true)
    expect([press("q"), press("Escape")]).toEqual([null, null])
    expect(keyLabel(toolNamed("indent-more"))).toMatch(/^Ctrl\+Alt\+/)
  })
})
