/**
 * Two people who change one document at the same time, hearing of each other whenever it comes: they end with one document, which is
 * sound, stands on sheets whole, and can be undone by each.
 */
import fc from "fast-check"
import { collab, getVersion, receiveTransaction, sendableSteps } from "prosemirror-collab"
import type { Node } from "prosemirror-model"
import { EditorState } from "prosemirror-state"
import type { Step } from "prosemirror-transform"
import { applySteps, broughtUpToDate, document, leavesOf, leavesOfBody, p, readStep, table } from "../src/document"
import { checkDocument } from "../src/document/reading"
import * as editing from "../src/editing"
import type { Command } from "../src/editing"
import { fragmentsOf, isOwnText, layoutDocument } from "../src/layout"
import { typesetter } from "../node/typesetting"

/** What one client sends at once. */
interface Batch {
  client: string
  steps: readonly Step[]
  before: Node
}

/** Takes what comes late as the server does: what was made on an older version is brought up to date, and refused where it is not sound. */
class Server {
  readonly batches: Batch[] = []
  refused = 0

  constructor(public doc: Node) {}

  get version(): number {
    return this.batches.reduce((sum, { steps }) => sum + steps.length, 0)
  }

  since(version: number): Batch[] {
    let at = 0
    return this.batches.filter(({ steps }) => (at += steps.length) > version)
  }

  take(client: string, version: number, json: readonly unknown[]): void {
    const late = this.since(version)
    const fitting = applySteps(late[0]?.before ?? this.doc, json)
    expect(fitting.refusal).toBeNull()
    checkDocument(fitting.doc)
    const own = broughtUpToDate(
      fitting,
      late.map(({ steps }) => steps),
    )
    if (own.length === 0) return
    let { doc } = this
    for (const { step } of own) doc = step.apply(doc).doc as Node
    try {
      checkDocument(doc)
    } catch {
      this.refused++
      return
    }
    this.batches.push({ client, steps: own.map(({ step }) => step), before: this.doc })
    this.doc = doc
  }
}

class Person {
  state: EditorState

  constructor(
    readonly name: string,
    private readonly server: Server,
  ) {
    this.state = EditorState.create({ doc: server.doc, plugins: [editing.editHistory(), collab({ clientID: name })] })
  }

  run(command: Command): void {
    command(this.state, (tr) => (this.state = this.state.apply(editing.settle(tr))))
  }

  select(from: number, to: number): void {
    const leaves = leavesOf(this.state.doc)
    const place = (n: number) => leaves.start(n % leaves.count) + (n % (leaves.node(n % leaves.count).content.size + 1))
    this.state = this.state.apply(
      this.state.tr.setSelection(editing.selectionBetween(this.state.doc, place(from), place(to))),
    )
  }

  send(): void {
    // Who sends has heard of all that came before, or sends it as late.
    const sendable = sendableSteps(this.state)
    const json = sendable?.steps.map((step) => JSON.parse(JSON.stringify(step.toJSON())) as unknown)
    if (json) this.server.take(this.name, getVersion(this.state), json)
  }

  hear(): void {
    for (const { client, steps } of this.server.since(getVersion(this.state))) {
      const own = steps.map((step) => readStep(JSON.parse(JSON.stringify(step.toJSON()))))
      this.state = this.state.apply(
        receiveTransaction(
          this.state,
          own,
          own.map(() => client),
          { mapSelectionBackward: true },
        ),
      )
    }
  }
}

const begun = () =>
  document([
    p("The ferry crosses at slack water."),
    table([
      [[p("Crossing")], [p("Fare")], [p("Seats")]],
      [[p("Dawn")], [p("2.50")], [p("12")]],
      [[p("Noon")], [p("4")], [p("8")]],
    ]),
    p("The chain is oiled before the first crossing, and again at noon when the tide runs hard."),
    p("End"),
  ])

const commands: readonly Command[] = [
  editing.insertText("tide "),
  editing.insertText("é"),
  editing.enter,
  editing.deleteBackward,
  editing.deleteSelection,
  editing.insertNote,
  editing.insertEndnote,
  editing.addRows("above"),
  editing.addRows("below"),
  editing.addColumns("before"),
  editing.addColumns("behind"),
  editing.deleteRows,
  editing.deleteColumns,
  editing.joinCells,
  editing.divideCell,
  editing.insertTable(2, 2),
  editing.deleteTable,
  editing.startSection("sheet", (own) => ({ ...own, columns: { ...own.columns, count: 2 } })),
  editing.setParagraphs({ align: "center", spaceAfter: 20 }),
  editing.setParagraphs({ keepNext: true }),
  editing.insertContents({ levels: 2, look: "dotted" }),
  editing.setStyle("heading1"),
  editing.insertCaption("Figure", "below"),
  editing.fillEdge("head", "{title}||{page}"),
  editing.tableFromText("paragraphs"),
  editing.textFromTable,
  editing.joinSections,
  editing.insertBlankSheet,
  editing.turnNote,
  editing.selectAll,
  editing.undo,
  editing.redo,
]

const act = fc.record({
  who: fc.constantFrom(0, 1),
  kind: fc.constantFrom("act", "act", "act", "act", "send", "hear"),
  command: fc.nat(commands.length - 1),
  from: fc.nat(60),
  to: fc.nat(60),
})

test("whatever two people do at once, both come to one sound document, in which nothing stands twice", () => {
  fc.assert(
    fc.property(fc.array(act, { maxLength: 24 }), (acts) => {
      const server = new Server(begun())
      const people = [new Person("Ash", server), new Person("Wren", server)] as const
      for (const { who, kind, command, from, to } of acts) {
        const person = people[who as 0 | 1]
        if (kind === "send") {
          person.hear()
          person.send()
          person.hear()
        } else if (kind === "hear") person.hear()
        else {
          person.select(from, to)
          person.run(commands[command]!)
        }
      }
      for (const person of [...people, ...people]) {
        person.send()
        person.hear()
      }
      for (const person of people) person.hear()
      expect(server.refused).toBe(0)
      for (const { state } of people) expect(state.doc.toJSON()).toEqual(server.doc.toJSON())
      checkDocument(server.doc)
      // Of the body everything stands on the sheets, line by line, and nothing twice.
      const body = leavesOfBody(server.doc)
      const seen = new Map<number, number>()
      for (const own of layoutDocument(typesetter(), server.doc).placed.flatMap(fragmentsOf)) {
        if (!isOwnText(own) || own.leaf >= body) continue
        expect(own.from).toBe(seen.get(own.leaf) ?? 0)
        seen.set(own.leaf, own.to)
      }
      expect(seen.size).toBe(body)
    }),
    { numRuns: Number(process.env.BIBLON_RUNS ?? 60) },
  )
})
