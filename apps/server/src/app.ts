import { existsSync } from "node:fs"
import { createServer, type Server } from "node:http"
import { join } from "node:path"
import express, { type NextFunction, type Request, type Response } from "express"
import { Rooms } from "./live/room"
import { acceptLive, sameOrigin } from "./live/socket"
import { openTypesetter } from "@biblon/core/node"
import { Pictures } from "./pictures"
import { assetRoutes } from "./routes/assets"
import { documentRoutes } from "./routes/documents"
import { serveApp } from "./routes/app"
import { AssetStore } from "./store/assets"
import { openDatabase } from "./store/database"
import { DocumentStore } from "./store/documents"

export interface AppOptions {
  /** Path of the database file. */
  database: string
  /** Folder of the exported web application; without it only the API is served. */
  web?: string
}

export interface App {
  server: Server
  store: DocumentStore
  close(): Promise<void>
}

export function createApp({ database, web }: AppOptions): App {
  const db = openDatabase(database)
  const store = new DocumentStore(db)
  const assets = new AssetStore(db)
  const rooms = new Rooms(store)
  const app = express()
  app.disable("x-powered-by")
  app.use((request, response, next) => {
    if (sameOrigin(request)) next()
    else response.status(403).json({ message: "Requests from other sites are not answered." })
  })
  app.use("/api", assetRoutes(assets))
  app.use("/api", express.json({ limit: "1mb" }), documentRoutes(store, rooms, new Pictures(store, openTypesetter((sha256) => assets.bytes(sha256)))))
  app.use("/api", (_request, response) => {
    response.status(404).json({ message: "There is nothing at this address." })
  })
  if (web && existsSync(join(web, "index.html"))) app.use(serveApp(web))
  app.use((error: Error & { status?: number }, _request: Request, response: Response, _next: NextFunction) => {
    const status = error.status ?? 500
    if (status >= 500) console.error(error)
    response.status(status).json({ message: status >= 500 ? "Something went wrong on the server. Nothing that was saved is lost; try again." : error.message })
  })
  const server = createServer(app)
  const sockets = acceptLive(server, rooms, store)
  return {
    server,
    store,
    close: () =>
      new Promise((resolve) => {
        for (const ws of sockets.clients) ws.terminate()
        server.closeAllConnections()
        server.close(() => {
          db.close()
          resolve()
        })
      }),
  }
}
