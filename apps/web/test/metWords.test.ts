/** Words that the desk has met: each is asked for once, and what a dictionary says of it is known from then on. */
import "./browser"
import fc from "fast-check"
import { EditorState, TextSelection } from "prosemirror-state"
import { document, documentAttrs, leavesOf, letters, nodes, p } from "@biblon/core/document"
import type { DictionaryName } from "@biblon/core/checking"
import { MetWords } from "../src/desk/metWords"
import { forgetWord, learnWord } from "../src/desk/ownWords"
import { Spelling } from "../src/desk/spelling"
import type { SpellingQuestion } from "../src/workers/spelling.worker"

const right: Record<string, readonly string[]> = {
  "en-gb": ["ferry", "chain", "tide", "quay", "the"],
  fr: ["marée", "quai", "chaîne"],
}

/** A speller that knows these words, and answers when it is let. */
class FakeWorker {
  static asked: (SpellingQuestion & { id: number })[] = []
  static gone = new Set<DictionaryName>()
  static hold: (() => void)[] | null = null
  onmessage: ((event: { data: { id: number; answer: string[] | null } }) => void) | null = null

  addEventListener(): void {}

  postMessage(question: SpellingQuestion & { id: number }): void {
    FakeWorker.asked.push(question)
    const { dictionary } = question
    const words = question.type === "check" ? question.words : []
    const wrong = words.filter((word) => !right[dictionary]?.includes(word))
    const answer = FakeWorker.gone.has(dictionary) ? null : wrong
    const post = () => this.onmessage?.({ data: { id: question.id, answer } })
    if (FakeWorker.hold) FakeWorker.hold.push(post)
    else queueMicrotask(post)
  }

  terminate(): void {
    this.onmessage = null
  }
}
Object.assign(globalThis, { Worker: FakeWorker })

const words = () => FakeWorker.asked.flatMap((own) => (own.type === "check" ? own.words : []))
const target = () => ({ missing: jest.fn(), again: jest.fn(), met: jest.fn(), resting: () => Promise.resolve() })
const english = (...list: string[]) => p(list.join(" "))
const french = (...list: string[]) => p(letters(list.join(" "), { language: "fr-FR" }))

async function metBy(met: MetWords, doc: ReturnType<typeof document>): Promise<void> {
  const meeting = met.meeting(doc)
  let step = meeting.next()
  while (!step.done) step = meeting.next()
  await step.value
  await met.answered()
}
const wrongIn = (met: MetWords, doc: ReturnType<typeof document>) =>
  leavesOf(doc).nodes.map((leaf) => met.unlisted(documentAttrs(doc).styles, leaf).map(({ word }) => word))

beforeEach(() => {
  FakeWorker.asked = []
  FakeWorker.gone.clear()
  FakeWorker.hold = null
})
afterEach(() => jest.useRealTimers())

const word = fc.constantFrom("ferry", "chain", "tide", "feery", "tyde", "quai", "marée", "chaine")
const paragraph = fc.record({ list: fc.array(word, { minLength: 1, maxLength: 12 }), isFrench: fc.boolean() })

test("of every paragraph the words that its dictionary lacks are known, and no word is asked for twice", async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(paragraph, { minLength: 1, maxLength: 6 }), async (paragraphs) => {
      FakeWorker.asked = []
      const met = new MetWords(target())
      const doc = document(paragraphs.map(({ list, isFrench }) => (isFrench ? french(...list) : english(...list))))
      await metBy(met, doc)
      expect(wrongIn(met, doc)).toEqual(
        paragraphs.map(({ list, isFrench }) => list.filter((own) => !right[isFrench ? "fr" : "en-gb"]!.includes(own))),
      )
      const asked = FakeWorker.asked.flatMap((own) =>
        own.type === "check" ? own.words.map((each) => `${own.dictionary} ${each}`) : [],
      )
      expect(new Set(asked).size).toBe(asked.length)
      // A second time nothing is left to ask.
      await metBy(met, doc)
      expect(words()).toHaveLength(asked.length)
      met.close()
    }),
    { numRuns: 30 },
  )
})

const table = (cells: readonly string[][]) =>
  nodes.table.create(
    null,
    cells.map((row) =>
      nodes.row.create(
        null,
        row.map((text) => nodes.cell.create(null, p(text))),
      ),
    ),
  )

test("wrong words counted from before are those counted from nothing, in tables and out of them", async () => {
  const counted = (met: MetWords, doc: ReturnType<typeof document>) => {
    const counting = met.counting(doc)
    for (;;) {
      const { done, value } = counting.next()
      if (done) return value
    }
  }
  const text = fc.array(word, { maxLength: 3 }).map((list) => list.join(" "))
  const change = fc.record({ at: fc.nat(), text, isAway: fc.boolean() })
  await fc.assert(
    fc.asyncProperty(
      text,
      fc.array(fc.array(text, { minLength: 2, maxLength: 2 }), { minLength: 1, maxLength: 4 }),
      fc.array(change, { maxLength: 5 }),
      async (first, cells, changes) => {
        const met = new MetWords(target())
        let state = EditorState.create({ doc: document([p(first), table(cells), p(first)]) })
        for (const { at, text: put, isAway } of [{ at: 0, text: "", isAway: false }, ...changes]) {
          const leaves = leavesOf(state.doc)
          const leaf = at % leaves.count
          const [from, to] = [leaves.start(leaf), leaves.end(leaf)]
          state = state.apply(isAway ? state.tr.delete(from, to) : state.tr.insertText(put, from))
          await metBy(met, state.doc)
          const all = wrongIn(met, state.doc).flat()
          expect(new Map(counted(met, state.doc))).toEqual(
            new Map(all.map((own) => [own, all.filter((other) => other === own).length])),
          )
        }
        met.close()
      },
    ),
    { numRuns: 40 },
  )
})

test("what is in sight is asked for at once, and once, however often it is painted before the answer", async () => {
  FakeWorker.hold = []
  const told = target()
  const met = new MetWords(told)
  const doc = document([english("feery", "chain")])
  const { styles } = documentAttrs(doc)
  const [leaf] = leavesOf(doc).nodes
  const inSight = () => met.unlistedNow(styles, leaf!).map((own) => own.word)
  expect([inSight(), inSight(), met.isKnown(styles, leaf!)]).toEqual([[], [], false])
  expect(words()).toEqual(["feery", "chain"])
  FakeWorker.hold.forEach((post) => post())
  await met.answered()
  await Promise.resolve()
  expect(told.met).toHaveBeenCalledTimes(1)
  expect([inSight(), met.isKnown(styles, leaf!)]).toEqual([["feery"], true])
  met.close()
})

test("words out of sight are looked up when the hands rest, those in sight at once", async () => {
  let rest = () => {}
  const met = new MetWords({ ...target(), resting: () => new Promise<void>((resolve) => (rest = resolve)) })
  const doc = document([english("feery", "chain"), english("tyde")])
  const { styles } = documentAttrs(doc)
  const all = metBy(met, doc)
  await Promise.resolve()
  expect(words()).toEqual([])
  met.unlistedNow(styles, leavesOf(doc).node(1))
  expect(words()).toEqual(["tyde"])
  rest()
  await all
  expect(wrongIn(met, doc)).toEqual([["feery"], ["tyde"]])
  met.close()
})

test("a dictionary that is not to be had is named, not asked again at once, and asked again later", async () => {
  jest.useFakeTimers({ doNotFake: ["queueMicrotask"] })
  FakeWorker.gone.add("fr")
  const told = target()
  const met = new MetWords(told)
  const doc = document([french("marée", "chaine"), english("feery")])
  await metBy(met, doc)
  expect(told.missing).toHaveBeenLastCalledWith(["fr"])
  // Nothing is said of words that nobody could look up, and the other language has its answer.
  expect(wrongIn(met, doc)).toEqual([[], ["feery"]])
  const asked = words().length
  met.unlistedNow(documentAttrs(doc).styles, leavesOf(doc).node(0))
  expect(words()).toHaveLength(asked)
  FakeWorker.gone.clear()
  jest.advanceTimersByTime(20_000)
  expect(told.missing).toHaveBeenLastCalledWith([])
  expect(told.again).toHaveBeenCalledTimes(1)
  jest.useRealTimers()
  await metBy(met, doc)
  expect(wrongIn(met, doc)).toEqual([["chaine"], ["feery"]])
  met.close()
})

test("once it is closed nothing is asked for again", async () => {
  jest.useFakeTimers({ doNotFake: ["queueMicrotask"] })
  FakeWorker.gone.add("en-gb")
  const told = target()
  const met = new MetWords(told)
  await metBy(met, document([english("feery")]))
  met.close()
  jest.advanceTimersByTime(60_000)
  expect(told.again).not.toHaveBeenCalled()
})

test("wrong words are counted although others write without a pause", async () => {
  jest.useFakeTimers({ doNotFake: ["queueMicrotask"] })
  const editor = EditorState.create({ doc: document([english("feery", "chain"), english("tyde", "tyde")]) })
  const spelling = new Spelling({ editor: () => editor, select: jest.fn(), repaint: jest.fn() })
  for (let change = 0; change < 20; change++) {
    spelling.changed(true)
    await jest.advanceTimersByTimeAsync(100)
  }
  expect([...(spelling.store.getState().found ?? [])]).toEqual([
    ["feery", 1],
    ["tyde", 2],
  ])
  spelling.close()
})

test("a word is asked for when it is written, not with each of its letters, and marked behind the caret", async () => {
  const end = 11
  let editor = EditorState.create({ doc: document([english("chain", "feery")]) })
  const stand = (at: number) => {
    const anchor = leavesOf(editor.doc).start(0) + at
    editor = editor.apply(editor.tr.setSelection(TextSelection.create(editor.doc, anchor)))
  }
  const spelling = new Spelling({ editor: () => editor, select: jest.fn(), repaint: jest.fn() })
  const marked = () => spelling.marks(0, leavesOf(editor.doc).node(0))
  stand(end)
  spelling.changed(true)
  expect([marked(), words()]).toEqual([[], ["chain"]])
  editor = editor.apply(editor.tr.insertText(" "))
  spelling.changed(true)
  marked()
  expect(words()).toEqual(["chain", "feery"])
  for (let turn = 0; turn < 4; turn++) await Promise.resolve()
  const marks = [{ from: 6, to: end, kind: "misspelt" }]
  expect(marked()).toEqual(marks)
  // What does not change is the same, so that nothing is drawn anew.
  expect(marked()).toBe(marked())
  stand(8)
  spelling.changed(true)
  expect(marked()).toEqual([])
  // Others write along: what is being typed stays so until one goes elsewhere.
  spelling.changed(false)
  expect(marked()).toEqual([])
  spelling.moved()
  spelling.changed(false)
  expect(marked()).toEqual(marks)
  learnWord("feery")
  expect(marked()).toEqual([])
  forgetWord("feery")
  spelling.close()
})
