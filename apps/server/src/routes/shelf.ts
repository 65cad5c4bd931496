import { json, Router } from "express"
import { ShelfChanges } from "@biblon/wire"
import type { Rooms } from "../live/rooms"
import type { DocumentStore } from "../store/documents"
import type { Searching } from "../store/searching"
import { ShelfProblem, type ShelfStore } from "../store/shelf"

/** Characters that are searched for at most. */
const longestSearch = 200

export function shelfRoutes(store: DocumentStore, shelf: ShelfStore, rooms: Rooms, searching: Searching): Router {
  const router = Router()

  router.get("/shelf", (_request, response) => {
    response.json({ documents: store.list(), folders: shelf.folders(), binned: store.binned() })
  })

  /** Makes the changes together or not at all; answers with those that take them back. */
  router.post("/shelf/changes", json({ limit: "16mb" }), (request, response) => {
    const asked = ShelfChanges.safeParse(request.body)
    if (!asked.success) {
      response.status(400).json({
        message: "A change of the shelf names documents and folders, and names have up to 200 characters",
      })
      return
    }
    try {
      const back = shelf.change(asked.data.changes, Date.now(), (id) => rooms.isOpen(id))
      for (const change of asked.data.changes)
        if (change.kind === "document" && change.name !== undefined)
          rooms.tell(change.id, { type: "renamed", name: change.name || null })
      response.json({ back })
    } catch (error) {
      if (!(error instanceof ShelfProblem)) throw error
      response.status(409).json({ message: error.message })
    }
  })

  /** Documents with ?words= in their names or their text. */
  router.get("/search", (request, response) => {
    response.json(searching.find(String(request.query.words ?? "").slice(0, longestSearch)))
  })

  return router
}
