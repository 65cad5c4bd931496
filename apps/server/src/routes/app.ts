import { existsSync } from "node:fs"
import { extname, join } from "node:path"
import express, { Router, type Request } from "express"

const types: Record<string, string> = {
  ".js": "text/javascript",
  ".css": "text/css",
  ".ttf": "font/ttf",
  ".wasm": "application/wasm",
  ".html": "text/html",
  ".json": "application/json",
}

/** The path of a request in plain letters; null for one that no file can have. */
function pathOf({ path }: Request): string | null {
  try {
    const plain = decodeURIComponent(path)
    return plain.includes("..") || plain.includes("\0") ? null : plain
  } catch {
    return null
  }
}

/** The exported application: compressed files where they were made beside the plain ones, and index.html for every route of the app. */
export function serveApp(web: string): Router {
  const router = Router()
  router.get(/\.(js|css|ttf|wasm|aff|dic|csl|xml)$/, (request, response, next) => {
    const path = pathOf(request)
    if (path === null) return next()
    const compressed = join(web, path + ".br")
    response.set(
      "Cache-Control",
      /^\/(_expo|fonts|hyphenation|dictionaries|workers)\//.test(path)
        ? "public, max-age=31536000, immutable"
        : "no-cache",
    )
    if (!/\bbr\b/.test(String(request.headers["accept-encoding"])) || !existsSync(compressed)) return next()
    response
      .set("Content-Encoding", "br")
      .set("Vary", "Accept-Encoding")
      .type(types[extname(path)] ?? "application/octet-stream")
    response.sendFile(compressed, { cacheControl: false })
  })
  const files = express.static(web, { index: false, cacheControl: false })
  router.use((request, response, next) => (pathOf(request) === null ? next() : files(request, response, next)))
  router.get(/^\/[^.]*$/, (request, response) => {
    const known = /^\/((starters|outbox)\/?|d\/[\w-]+\/?)?$/.test(request.path)
    response
      .status(known ? 200 : 404)
      .set("Cache-Control", "no-cache")
      .sendFile(join(web, "index.html"), { cacheControl: false })
  })
  return router
}
