/**
 * Runs before the program is here. For a document the layout worker is started while the content is fetched, which it reads and lays
 * out; its first sheets are shown, and only then the program starts, so that people see at once what they opened.
 * What was begun is taken over by the program (begun.ts).
 */
import { dictionaryOf } from "@biblon/core/checking/dictionaries"
import { fitted } from "../desk/view/fitting"
import { viewOf } from "../desk/view/kept"
import { specFor } from "../desk/view/spec"
import { isSpellingOn } from "../kept"
import { workerOf } from "../workers/addresses"
import { noId, type Asked } from "../workers/asking"
import type { FromLayout, ToLayout } from "../workers/protocol"
import type { SpellingQuestion } from "../workers/spelling.worker"
import { fetchProgram, startProgram } from "./program"
import { Sight } from "./sight"

/** The program waits no longer than this for the first sheets, in milliseconds. */
const longestWait = 1000

/** The page of a document, by its file. */
const deskPage = "[id]"

/** Has the dictionary opened while the program starts: that takes as long. */
function beginSpeller(language: string): void {
  const dictionary = isSpellingOn() ? dictionaryOf(language) : null
  const { begun } = globalThis
  if (!begun || !dictionary) return
  const speller = workerOf("spelling.worker.js")
  const opening: Asked<SpellingQuestion> = { id: noId, type: "check", dictionary, words: [] }
  // As with the layout worker.
  speller.onerror = () => (begun.speller = null)
  speller.postMessage(opening)
  begun.speller = speller
}

function begin(id: string): void {
  const startDesk = () => startProgram(deskPage)
  const coming = fetch(`/api/documents/${id}/content`)
  const view = viewOf(id)
  const worker = workerOf("layout.worker.js")
  const sight = new Sight(view, (language) => {
    beginSpeller(language)
    startDesk()
  })
  const said: FromLayout[] = []
  const { mode, fit } = view
  const room = { width: innerWidth, height: innerHeight }
  // How large sheets are is not known yet, and only the flow of text asks how large it is shown.
  const { scale } = fit === null ? view : fitted({ mode: "flow", fit, room, sheet: room })
  const spec = specFor({ mode, scale, name: null }, innerWidth)
  worker.onmessage = ({ data }: MessageEvent<FromLayout>) => {
    said.push(data)
    if (data.type === "report") sight.take(data)
    if (data.type === "failed") startDesk()
  }
  // One that cannot start is none: the program starts its own.
  worker.onerror = () => {
    if (globalThis.begun) globalThis.begun.layout = null
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
  globalThis.begun = { id, response, layout: { worker, spec, said }, speller: null, endSight: () => sight.end() }
  fetchProgram(deskPage)
  setTimeout(startDesk, longestWait)
}

const asked = /^\/d\/([\w-]+)\/?$/.exec(location.pathname)
if (asked?.[1]) begin(asked[1])
else startProgram(/^\/(\w*)/.exec(location.pathname)?.[1] || "index")
