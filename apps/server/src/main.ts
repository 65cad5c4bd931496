/** Starts the server. Settings come from the environment: BIBLON_PORT, BIBLON_DATABASE, BIBLON_WEB, BIBLON_HOSTS, BIBLON_DEMO. */
import { mkdirSync } from "node:fs"
import { dirname, join, resolve } from "node:path"
import { fileURLToPath } from "node:url"
import { createApp, type App } from "./app"
import { fillShelf } from "./demo/fill"
import { DatabaseInUse } from "./store/database"

process.env.BIBLON_ROOT ??= fileURLToPath(new URL("../../..", import.meta.url))
const database = resolve(process.env.BIBLON_DATABASE ?? "var/biblon.sqlite")
mkdirSync(dirname(database), { recursive: true })

function start(): App {
  try {
    return createApp({
      database,
      web: resolve(process.env.BIBLON_WEB ?? join(process.env.BIBLON_ROOT ?? "", "apps/web/dist")),
      hosts: process.env.BIBLON_HOSTS,
    })
  } catch (error) {
    console.error(error instanceof DatabaseInUse ? error.message : error)
    process.exit(1)
  }
}
const app = start()
if (process.env.BIBLON_DEMO) fillShelf(app.store, app.assets)

const loopback = "127.0.0.1"
app.server.listen(Number(process.env.BIBLON_PORT ?? 4780), loopback, () => {
  const address = app.server.address()
  if (address && typeof address === "object") console.log(`Biblon is at http://${loopback}:${address.port}`)
})
app.server.on("error", (error: NodeJS.ErrnoException) => {
  console.error(error.code === "EADDRINUSE" ? "That port is taken: set BIBLON_PORT to another one." : error.message)
  process.exit(1)
})
for (const signal of ["SIGINT", "SIGTERM"] as const)
  process.on(signal, () => void app.close().then(() => process.exit(0)))
// The last resort: one request that could not be foreseen ends neither the server nor anybody's writing.
process.on("uncaughtException", (error) => console.error(error))
process.on("unhandledRejection", (error) => console.error(error))
