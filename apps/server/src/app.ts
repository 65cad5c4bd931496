import { existsSync } from "node:fs"
import { createServer, type Server } from "node:http"
import { join } from "node:path"
import { projectRoot } from "@biblon/core/node"
import express, { type NextFunction, type Request, type Response } from "express"
import { guard, hostsFrom } from "./guard"
import { isStorageError, storageReason } from "./live/room"
import { Rooms } from "./live/rooms"
import { acceptLive } from "./live/socket"
import { Pictures } from "./pictures/pictures"
import { assetRoutes } from "./routes/assets"
import { documentRoutes } from "./routes/documents"
import { serveApp } from "./routes/app"
import { shelfRoutes } from "./routes/shelf"
import { AssetStore } from "./store/assets"
import { openDatabase } from "./store/database"
import { JobQueue } from "./outside/queue"
import { outsideRoutes } from "./routes/outside"
import { Library } from "./lookup/library"
import { Lexicon } from "./lookup/words"
import { lookupRoutes } from "./routes/lookup"
import { DocumentStore } from "./store/documents"
import { Searching } from "./store/searching"
import { shippedStarters } from "./starters/starters"
import { StarterStore } from "./store/starters"
import { ShelfStore } from "./store/shelf"
import { sweepDaily } from "./store/sweeping"
import { Writing } from "./store/writing"

const mostConnections = 6000

export interface AppOptions {
  /** Path of the database file. */
  database: string
  /** Folder of the exported web application; without it only the API is served. */
  web?: string
  /** Names under which it is reached beside those of loopback, divided by commas. */
  hosts?: string
}

export interface App {
  server: Server
  store: DocumentStore
  assets: AssetStore
  close(): Promise<void>
}

/** What is told to whoever asked for something that went wrong. */
function answerTo(error: Error & { status?: number }): { status: number; message: string } {
  if (isStorageError(error))
    return {
      status: 507,
      message: `Not saved: ${storageReason(error)}. What was saved before is safe; try again later.`,
    }
  const { status = 500 } = error
  return {
    status,
    message:
      status >= 500 ? "Something went wrong on the server. Nothing that was saved is lost; try again." : error.message,
  }
}

export function createApp({ database, web, hosts: setting }: AppOptions): App {
  const db = openDatabase(database)
  const store = new DocumentStore(db)
  const assets = new AssetStore(db)
  const starters = new StarterStore(db, store)
  starters.ship(shippedStarters())
  const writing = new Writing(db)
  const rooms = new Rooms(store, writing)
  const pictures = new Pictures(store, assets)
  const jobs = new JobQueue(db)
  const hosts = hostsFrom(setting)
  const app = express()
  app.disable("x-powered-by")
  app.use(guard(hosts))
  app.use(
    "/api",
    assetRoutes(assets),
    documentRoutes(store, starters, rooms, pictures),
    outsideRoutes(jobs),
    lookupRoutes(new Lexicon(projectRoot()), new Library()),
    shelfRoutes(store, new ShelfStore(db), rooms, new Searching(db, store)),
  )
  app.use("/api", (_request, response) => {
    response.status(404).json({ message: "There is nothing at this address." })
  })
  if (web && existsSync(join(web, "index.html"))) app.use(serveApp(web))
  app.use((_request, response) => {
    response.status(404).type("text").send("There is nothing at this address. The shelf with all documents is at /")
  })
  app.use((error: Error & { status?: number }, _request: Request, response: Response, next: NextFunction) => {
    const { status, message } = answerTo(error)
    if (status >= 500) console.error(error)
    if (response.headersSent) next(error)
    else response.status(status).json({ message })
  })
  sweepDaily(db)
  const server = createServer(app)
  server.maxConnections = mostConnections
  const sockets = acceptLive(server, rooms, hosts)
  return {
    server,
    store,
    assets,
    close: () =>
      new Promise((resolve) => {
        for (const ws of sockets.clients) ws.terminate()
        server.closeAllConnections()
        server.close(() => {
          writing.flush()
          jobs.close()
          try {
            db.close()
          } catch (error) {
            // All that was confirmed is in its log.
            console.error(`The database could not be tidied up: ${(error as Error).message}`)
          }
          void pictures.close().then(resolve)
        })
      }),
  }
}
