import { existsSync } from "node:fs"
import { extname, join } from "node:path"
import express, { Router } from "express"

const types: Record<string, string> = { ".js": "text/javascript", ".css": "text/css", ".ttf": "font/ttf", ".wasm": "application/wasm", ".html": "text/html", ".json": "application/json" }

/** The exported application: compressed files where they were made beside the plain ones, and index.html for every route of the app. */
export function serveApp(web: string): Router {
  const router = Router()
  router.get(/\.(js|css|ttf|wasm)$/, (request, response, next) => {
    const path = decodeURIComponent(request.path)
    const compressed = join(web, path + ".br")
    response.set("Cache-Control", /^\/(_expo|fonts|hyphenation)\//.test(path) ? "public, max-age=31536000, immutable" : "no-cache")
    if (path.includes("..") || !/\bbr\b/.test(String(request.headers["accept-encoding"])) || !existsSync(compressed)) return next()
    response.set("Content-Encoding", "br").set("Vary", "Accept-Encoding").type(types[extname(path)] ?? "application/octet-stream")
    response.sendFile(compressed, { cacheControl: false })
  })
  router.use(express.static(web, { index: false, cacheControl: false }))
  router.get(/^\/[^.]*$/, (_request, response) => {
    response.set("Cache-Control", "no-cache").sendFile(join(web, "index.html"), { cacheControl: false })
  })
  return router
}
