import { json, raw, Router } from "express"
import { JobHead, TroubleChange } from "@biblon/wire"
import type { JobQueue } from "../outside/queue"

const largest = "256mb"
/** What a browser may show in our name; all else is only saved. */
const shown = new Set(["application/pdf", "image/png", "text/plain"])

/** The first line of a body, as JSON; undefined where it is none. */
function headOf(body: Buffer): { head: unknown; bytes: Buffer } | undefined {
  const end = body.indexOf(10)
  if (end < 0) return undefined
  try {
    return { head: JSON.parse(body.subarray(0, end).toString("utf8")) as unknown, bytes: body.subarray(end + 1) }
  } catch {
    return undefined
  }
}

export function outsideRoutes(queue: JobQueue): Router {
  const router = Router()

  router.get("/outside", (_request, response) => {
    response.set("Cache-Control", "no-store").json(queue.all())
  })

  /** Takes a file over: its head as the first line, then its bytes. */
  router.post("/outside/jobs", raw({ type: () => true, limit: largest }), (request, response) => {
    const given = Buffer.isBuffer(request.body) ? headOf(request.body) : undefined
    const head = JobHead.safeParse(given?.head)
    if (!given || !head.success || given.bytes.length === 0) {
      const address = head.error?.issues.some(({ path }) => path[0] === "to")
      response.status(400).json({
        message: address
          ? "That is no e-mail address, such as imre@ferry.example. Nothing was sent."
          : "What is handed over has a name, a kind and a file. Nothing was taken over.",
      })
      return
    }
    queue.take(head.data, given.bytes)
    response.status(201).json({ id: head.data.id })
  })

  router.delete("/outside/jobs/:id", (request, response) => {
    if (queue.stop(String(request.params.id))) response.status(204).end()
    else response.status(409).json({ message: "It is done already, or is not there." })
  })

  router.get("/outside/jobs/:id/file", (request, response) => {
    const job = queue.file(String(request.params.id))
    if (!job) {
      response.status(404).json({ message: "There is no such file." })
      return
    }
    if (!shown.has(job.head.media)) response.attachment(job.head.name)
    response.type(job.head.media).send(job.bytes)
  })

  router.put("/outside/:kind/trouble", json({ limit: "1kb" }), (request, response) => {
    const change = TroubleChange.safeParse(request.body)
    const kind = request.params.kind
    const done = change.success && (kind === "print" || kind === "send") && queue.setTrouble(kind, change.data.trouble)
    if (done) response.json(queue.all())
    else response.status(400).json({ message: "That cannot happen to it." })
  })

  return router
}
