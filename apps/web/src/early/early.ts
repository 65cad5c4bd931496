/**
 * Runs before the program is here. For a document the layout worker is started while the content is fetched, which it reads and lays
 * out; its first sheets are shown, and only then the program starts, so that people see at once what they opened.
 * What was begun is taken over by the program (begun.ts).
 */
import { dictionaryOf } from "@biblon/core/checking/dictionaries"
import { viewOf } from "../desk/view/kept"
import { specAhead } from "../desk/view/spec"
import { isSpellingOn } from "../kept"
import { workerOf } from "../workers/addresses"
import { noId, type Asked } from "../workers/asking"
import type { FromLayout, ToLayout } from "../workers/protocol"
import type { SpellingQuestion } from "../workers/spelling.worker"
import type { Begun } from "./begun"
import { fetchProgram, startProgram } from "./program"
import { Sight } from "./sight"

/** The program waits no longer than this for the first sheets, in milliseconds, and a desk that is gone to from another page. */
const [longestWait, longestFromPage] = [1000, 600]

/** The page of a document, by its file. */
const deskPage = "[id]"

/** Has the dictionary opened while the program starts: that takes as long. */
function beginSpeller(language: string): void {
  const dictionary = isSpellingOn() ? dictionaryOf(language) : null
  const { begun } = globalThis
  if (!begun || begun.speller || !dictionary) return
  const speller = workerOf("spelling.worker.js")
  const opening: Asked<SpellingQuestion> = { id: noId, type: "check", dictionary, words: [] }
  // As with the layout worker.
  speller.onerror = () => (begun.speller = null)
  speller.postMessage(opening)
  begun.speller = speller
}

interface Start {
  /** Has the desk started; once what is seen of it is there, or there is nothing to see, or after a while. */
  desk(): void
  /** The longest while, in milliseconds. Where it is none, nothing is seen before. */
  wait: number
  /** Whether something else is on the page, which is covered. */
  covers: boolean
}

function begin(id: string, { desk, wait, covers }: Start): void {
  const before = globalThis.begun
  // What nobody has come for.
  before?.layout?.worker.terminate()
  before?.endSight()
  let started = false
  const startDesk = () => {
    if (!started && globalThis.begun === own) desk()
    started = true
  }
  const coming = fetch(`/api/documents/${id}/content`)
  const view = viewOf(id)
  const worker = workerOf("layout.worker.js")
  const shown = (language: string) => {
    beginSpeller(language)
    startDesk()
  }
  const sight = new Sight(view, shown, covers)
  const said: FromLayout[] = []
  const spec = specAhead(view)
  worker.onmessage = ({ data }: MessageEvent<FromLayout>) => {
    said.push(data)
    if (data.type === "report" && wait > 0) sight.take(data)
    if (data.type === "failed") startDesk()
  }
  // One that cannot start is none: the program starts its own.
  worker.onerror = () => {
    own.layout = null
    startDesk()
  }
  const brought = async () => {
    const answer = await coming
    const content = await answer.arrayBuffer()
    const message: ToLayout = { type: "openAhead", content, spec, seq: 0 }
    if (answer.ok) worker.postMessage(message)
    else startDesk()
    return new Response(content, answer)
  }
  const response = brought()
  response.catch(startDesk)
  const own: Begun = {
    id,
    response,
    layout: { worker, spec, said },
    speller: before?.speller ?? null,
    endSight: () => sight.end(),
  }
  globalThis.begun = own
  if (wait > 0) setTimeout(startDesk, wait)
  else startDesk()
}

const asked = /^\/d\/([\w-]+)\/?$/.exec(location.pathname)
if (asked?.[1]) {
  begin(asked[1], { desk: () => startProgram(deskPage), wait: longestWait, covers: false })
  fetchProgram(deskPage)
} else startProgram(/^\/(\w*)/.exec(location.pathname)?.[1] || "index")

globalThis.beginDesk = (id, isNew, desk) => begin(id, { desk, wait: isNew ? 0 : longestFromPage, covers: true })
