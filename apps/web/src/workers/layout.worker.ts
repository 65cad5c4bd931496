/** The layout worker: reads the document that was asked for, and has it laid out. */
import { LayoutDesk } from "./layoutDesk"
import type { FromLayout, ToLayout } from "./protocol"
import { fetchAhead, openTypesetter, prepareCiting } from "./resources"

const post = (message: FromLayout) => self.postMessage(message)

let desk: Promise<LayoutDesk> | null = null
/** What it needs and could not be had is asked for again. */
function deskNow(): Promise<LayoutDesk> {
  const own = (desk ??= openTypesetter().then(
    (typesetter) => new LayoutDesk(typesetter, { fetchAhead, prepareCiting }, post),
  ))
  own.catch(() => (desk = null))
  return own
}

const failed = (error: unknown) =>
  post({ type: "failed", message: error instanceof Error ? error.message : String(error) })

// The queue keeps the order of messages that came before the fonts were there. What fails before somebody asks for anything is tried again then.
let queue = deskNow().then(
  () => post({ type: "ready" }),
  () => undefined,
)
function inTurn(act: (desk: LayoutDesk) => Promise<void>): void {
  queue = queue.then(async () => act(await deskNow())).catch(failed)
}

/** Whether the page has brought a content itself. */
let brought = false

/** The content is for the page too, which does not wait for what it is set with. */
async function fetchContent({ address, spec, seq }: Extract<ToLayout, { type: "fetch" }>): Promise<void> {
  const answer = await fetch(address).catch(() => null)
  const bytes = (await answer?.arrayBuffer().catch(() => null)) ?? new ArrayBuffer(0)
  post({ type: "content", status: answer?.status ?? 0, headers: [...(answer?.headers ?? [])], bytes })
  if (answer?.ok && !brought) inTurn((own) => own.openAhead(new TextDecoder().decode(bytes), spec, seq))
}

self.onmessage = ({ data }: MessageEvent<ToLayout>) => {
  if (data.type === "fetch") return void fetchContent(data)
  brought ||= data.type === "open"
  inTurn((own) => own.receive(data))
}
