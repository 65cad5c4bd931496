import { json, Router } from "express"
import { LibraryChange } from "@biblon/wire"
import type { Library } from "../lookup/library"
import type { Lexicon } from "../lookup/words"

/** So many letters may be asked for. */
const longest = 200

export function lookupRoutes(lexicon: Lexicon, library: Library): Router {
  const router = Router()
  const asked = (query: unknown) => (typeof query === "string" ? query.slice(0, longest) : "")

  router.get("/lookup/words", (request, response) => {
    response.json(lexicon.look(asked(request.query.of)))
  })

  router.get("/lookup/library", (request, response) => {
    library
      .ask(asked(request.query.of))
      .then((found) => response.set("Cache-Control", "no-store").json({ found, mood: library.mood }))
      .catch(() => response.status(503).json({ message: "The library does not answer now. Ask again in a while." }))
  })

  router.put("/lookup/library/mood", json({ limit: "1kb" }), (request, response) => {
    const change = LibraryChange.safeParse(request.body)
    if (!change.success) {
      response.status(400).json({ message: "The library answers well, slowly or not at all." })
      return
    }
    library.mood = change.data.mood
    response.status(204).end()
  })
  return router
}
