import { json, Router, type Request, type Response } from "express"
import { document } from "@biblon/core/document"
import { readDocument, ReadingError } from "@biblon/core/document/reading"
import { Begun, NewDocument, Rename } from "@biblon/wire"
import type { Rooms } from "../live/rooms"
import type { Pictures } from "../pictures/pictures"
import type { DocumentStore } from "../store/documents"
import type { StarterStore } from "../store/starters"

function missing(response: Response): void {
  response.status(404).json({ message: "There is no such document. It may have been removed in another tab." })
}

const largestKept = "64mb"
/** A page that is older than this server may have kept it. */
const oldestFormat = 1

const idOf = (request: Request) => String(request.params.id)

export function documentRoutes(store: DocumentStore, starters: StarterStore, rooms: Rooms, pictures: Pictures): Router {
  const router = Router()

  router.get("/documents", (_request, response) => {
    response.json(store.list())
  })

  /** Begins one, blank or from a starter. */
  router.post("/documents", json({ limit: "1kb" }), (request, response) => {
    const asked = Begun.safeParse(request.body ?? {})
    if (!asked.success) {
      response.status(400).json({ message: "A document is begun blank or from a starter, in a folder or in none." })
      return
    }
    const { starter, folder = null } = asked.data
    const made =
      starter === undefined
        ? store.create(document([]), null, Date.now(), { folder })
        : starters.begin(starter, Date.now(), folder)
    if (made) response.status(201).json(made)
    else response.status(404).json({ message: "There is no such starter. It may have been removed." })
  })

  router.get("/starters", (_request, response) => {
    response.json(starters.list())
  })

  router.post("/documents/:id/starter", (request, response) => {
    const made = starters.keep(idOf(request), Date.now())
    if (made) response.status(201).json(made)
    else missing(response)
  })

  /** Keeps a document that a page has as a new one. */
  router.post("/documents/kept", json({ limit: largestKept }), (request, response) => {
    const kept = NewDocument.safeParse(request.body)
    if (!kept.success) {
      response
        .status(400)
        .json({ message: "A document to be kept has a name of up to 200 characters, or none, and its content." })
      return
    }
    try {
      response.status(201).json(
        store.create(readDocument(kept.data.document, oldestFormat), kept.data.name || null, Date.now(), {
          folder: kept.data.folder ?? null,
        }),
      )
    } catch (error) {
      if (!(error instanceof ReadingError)) throw error
      response.status(422).json({ message: `The document was not kept: ${error.message}` })
    }
  })

  router.post("/documents/:id/copies", (request, response) => {
    const copy = store.duplicate(idOf(request), Date.now())
    if (copy) response.status(201).json(copy)
    else missing(response)
  })

  router.get("/documents/:id", (request, response) => {
    const entry = store.entry(idOf(request))
    if (entry) response.json(entry)
    else missing(response)
  })

  router.patch("/documents/:id", json({ limit: "10kb" }), (request, response) => {
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
    const packed = request.acceptsEncodings("br") ? store.packedAt(entry.id, version) : undefined
    const content = packed ?? store.contentAt(entry.id, version)
    if (content === undefined) {
      response.status(404).json({ message: "That version of the document is not kept here." })
      return
    }
    response
      .set("Cache-Control", "no-store")
      .set("Biblon-Version", String(version))
      .set("Biblon-Stamp", store.stamp(entry.id, version))
      .set("Vary", "Accept-Encoding")
      .type("json")
    if (packed) response.set("Content-Encoding", "br")
    response.end(content)
  })

  router.get("/documents/:id/picture", async (request, response) => {
    const picture = await pictures.of(idOf(request))
    if (!picture) return missing(response)
    response
      .set("Cache-Control", picture.sheets === null ? "no-store" : "private, max-age=31536000")
      .type("image/svg+xml")
      .send(picture.svg)
  })

  /** How many sheets it has; comes with the picture. */
  router.get("/documents/:id/sheets", async (request, response) => {
    const picture = await pictures.of(idOf(request))
    if (picture) response.json({ sheets: picture.sheets, version: picture.version })
    else missing(response)
  })

  return router
}
