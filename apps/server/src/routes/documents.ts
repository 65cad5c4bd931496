import { Router, type Request, type Response } from "express"
import { document } from "@biblon/core/document"
import { Rename } from "@biblon/wire"
import type { Rooms } from "../live/room"
import type { Pictures } from "../pictures"
import type { DocumentStore } from "../store/documents"

function missing(response: Response): void {
  response.status(404).json({ message: "There is no such document. It may have been removed in another tab." })
}

const idOf = (request: Request) => String(request.params.id)

export function documentRoutes(store: DocumentStore, rooms: Rooms, pictures: Pictures): Router {
  const router = Router()

  router.get("/documents", (_request, response) => {
    response.json(store.list())
  })

  router.post("/documents", (_request, response) => {
    response.status(201).json(store.create(document([]), null, Date.now()))
  })

  router.get("/documents/:id", (request, response) => {
    const entry = store.entry(idOf(request))
    if (entry) response.json(entry)
    else missing(response)
  })

  router.patch("/documents/:id", (request, response) => {
    const id = idOf(request)
    const change = Rename.safeParse(request.body)
    if (!change.success) {
      response.status(400).json({ message: "A name has up to 200 characters. The old name was kept." })
      return
    }
    const name = change.data.name || null
    if (!store.rename(id, name)) return missing(response)
    rooms.tell(id, { type: "renamed", name })
    response.json(store.entry(id))
  })

  /** The document node as JSON, now or as it was at ?version=; the version is in the header. */
  router.get("/documents/:id/content", (request, response) => {
    const entry = store.entry(idOf(request))
    if (!entry) return missing(response)
    const version = request.query.version === undefined ? entry.version : Number(request.query.version)
    const content = Number.isInteger(version) ? store.contentAt(entry.id, version) : undefined
    if (content === undefined) {
      response.status(404).json({ message: "That version of the document is not kept here." })
      return
    }
    response.set("Cache-Control", "no-store").set("Biblon-Version", String(version)).type("json").end(content)
  })

  router.get("/documents/:id/picture", async (request, response) => {
    const picture = await pictures.of(idOf(request))
    if (!picture) return missing(response)
    response.set("Cache-Control", "private, max-age=31536000").set("Biblon-Sheets", String(picture.sheets)).type("image/svg+xml").send(picture.svg)
  })

  /** How many sheets it has; comes with the picture. */
  router.get("/documents/:id/sheets", async (request, response) => {
    const picture = await pictures.of(idOf(request))
    if (picture) response.json({ sheets: picture.sheets, version: picture.version })
    else missing(response)
  })

  return router
}
