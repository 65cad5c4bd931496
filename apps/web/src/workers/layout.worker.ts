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

/** Whether the program has brought a content itself. */
let brought = false

self.onmessage = ({ data }: MessageEvent<ToLayout>) => {
  if (data.type === "openAhead") {
    const { content, spec, seq } = data
    if (!brought) inTurn((own) => own.openAhead(new TextDecoder().decode(content), spec, seq))
    return
  }
  brought ||= data.type === "open"
  inTurn((own) => own.receive(data))
}
