/** Spelling of a thousand sheets: finding the words and looking them up in a thread meanwhile, against Hunspell alone on the words that differ: `node .cache/spelling.cjs` prints the figures as JSON. */
import { once } from "node:events"
import { readFileSync } from "node:fs"
import { setImmediate } from "node:timers/promises"
import { isMainThread, parentPort, Worker, workerData } from "node:worker_threads"
import { loadModule } from "hunspell-asm"
import { documentAttrs, leavesOf } from "@biblon/core/document"
import { Lexicons, meetingWords } from "@biblon/core/checking"
import { Speller } from "../apps/web/src/workers/speller"
import { prose, wideParagraphs } from "./text"

export interface SpellingFigures {
  /** All of it against Hunspell's own time, once the dictionary is open. */
  spellingVsHunspell: number
  spellingMs1000: number
  spellingDistinct: number
}

const words = 400_000
/** Paragraphs between two pauses. */
const slice = 50

interface Answer {
  wrong: string[]
  /** Milliseconds of Hunspell's own. */
  took: number
}

const files = {
  affixes: readFileSync("node_modules/dictionary-en-gb/index.aff"),
  words: readFileSync("node_modules/dictionary-en-gb/index.dic"),
}

/** In the thread: what finds the wrong ones among words, as we do or by hunspell-asm as it comes. */
const finders = {
  ours: async () => {
    const speller = new Speller(() => Promise.resolve(files))
    return (list: string[]) => speller.wrong("en-gb", list)
  },
  alone: async () => {
    const factory = await loadModule()
    const hunspell = factory.create(factory.mountBuffer(files.affixes), factory.mountBuffer(files.words))
    return (list: string[]) => Promise.resolve(list.filter((word) => !hunspell.spell(word)))
  },
}
type Finder = keyof typeof finders

async function answer(): Promise<void> {
  const wrongAmong = await finders[workerData as Finder]()
  parentPort?.on("message", (list: string[]) => {
    const start = performance.now()
    const post = (wrong: string[]) => parentPort?.postMessage({ wrong, took: performance.now() - start })
    void wrongAmong(list).then(post)
  })
}

/** In a thread, with its dictionary open; one question at a time has its answer in turn. */
async function opened(finder: Finder) {
  const worker = new Worker(process.argv[1] ?? "", { workerData: finder })
  let last: Promise<unknown> = Promise.resolve()
  const ask = (list: string[]): Promise<Answer> => {
    worker.postMessage(list)
    const answer = last.then(() => once(worker, "message").then(([own]) => own as Answer))
    last = answer
    return answer
  }
  await ask(["ferry"])
  return { ask, close: () => worker.terminate() }
}

interface Round {
  took: number
  distinct: string[]
  wrong: Set<string>
}

/** Goes through a document, made anew so that nothing is remembered, and has its words looked up. */
async function ours(speller: Awaited<ReturnType<typeof opened>>): Promise<Round> {
  const doc = prose(words, wideParagraphs(words))
  const { styles } = documentAttrs(doc)
  const { nodes } = leavesOf(doc)
  const [distinct, wrong] = [new Set<string>(), new Set<string>()]
  const start = performance.now()
  const meeting = meetingWords(styles, nodes, new Lexicons(), async (_name, own) => {
    for (const word of own) distinct.add(word)
    for (const word of (await speller.ask(own)).wrong) wrong.add(word)
  })
  let met = meeting.next()
  for (let n = 1; !met.done; met = meeting.next(), n++) if (n % slice === 0) await setImmediate()
  await met.value
  return { took: performance.now() - start, distinct: [...distinct], wrong }
}

async function measure(): Promise<SpellingFigures> {
  let [spellingMs1000, hunspellMs] = [Infinity, Infinity]
  let known: Round | null = null
  // In turns who is first, since the engine compiles Hunspell for both: what the first has made it compile well, the second finds.
  for (let round = 0; round < 9; round++) {
    const [speller, other] = [await opened("ours"), await opened("alone")]
    const before = known && round % 2 === 1 ? await other.ask(known.distinct) : null
    known = await ours(speller)
    const alone = before ?? (await other.ask(known.distinct))
    spellingMs1000 = Math.min(spellingMs1000, known.took)
    hunspellMs = Math.min(hunspellMs, alone.took)
    if (alone.wrong.join() !== known.distinct.filter((word) => known?.wrong.has(word)).join())
      throw new Error("Hunspell says otherwise")
    await Promise.all([speller.close(), other.close()])
  }
  return {
    spellingVsHunspell: spellingMs1000 / hunspellMs,
    spellingMs1000,
    spellingDistinct: known?.distinct.length ?? 0,
  }
}

if (isMainThread) void measure().then((figures) => console.log(JSON.stringify(figures)))
else void answer()
