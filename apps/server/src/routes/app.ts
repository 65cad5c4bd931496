import { existsSync, readFileSync } from "node:fs"
import { extname, join } from "node:path"
import express, { Router, type Request, type Response } from "express"
import { allowScripts } from "../guard"

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

/** Sends what was compressed beside a file. @returns whether there is that, and whoever asks can read it */
function sendCompressed(request: Request, response: Response, file: string): boolean {
  const compressed = `${file}.br`
  response.set("Vary", "Accept-Encoding")
  if (!/\bbr\b/.test(String(request.headers["accept-encoding"])) || !existsSync(compressed)) return false
  response.set("Content-Encoding", "br").type(types[extname(file)] ?? "application/octet-stream")
  response.sendFile(compressed, { cacheControl: false })
  return true
}

/** The exported application: compressed files where they were made beside the plain ones, and index.html for every route of the app. */
export function serveApp(web: string): Router {
  const router = Router()
  router.get(/\.(js|css|ttf|wasm|aff|dic|csl|xml)$/, (request, response, next) => {
    const path = pathOf(request)
    if (path === null) return next()
    response.set(
      "Cache-Control",
      /^\/(_expo|fonts|hyphenation|dictionaries|workers)\//.test(path)
        ? "public, max-age=31536000, immutable"
        : "no-cache",
    )
    if (!sendCompressed(request, response, join(web, path))) next()
  })
  const files = express.static(web, { index: false, cacheControl: false })
  router.use((request, response, next) => {
    const path = pathOf(request)
    if (path === null || extname(path) === ".html") next()
    else files(request, response, next)
  })
  router.get(/^\/[^.]*$/, (request, response) => {
    const known = /^\/((starters|outbox)\/?|d\/[\w-]+\/?)?$/.test(request.path)
    const page = join(web, "index.html")
    allowScripts(response, readFileSync(page, "utf8"))
    response.status(known ? 200 : 404).set("Cache-Control", "no-cache")
    if (!sendCompressed(request, response, page)) response.sendFile(page, { cacheControl: false })
  })
  return router
}
