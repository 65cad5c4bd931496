/** Starts the server. Settings come from the environment: BIBLON_PORT, BIBLON_DATABASE, BIBLON_WEB, BIBLON_DEMO. */
import { mkdirSync } from "node:fs"
import { dirname, resolve } from "node:path"
import { createApp } from "./app"
import { fillShelf } from "./demo/fill"

const database = resolve(process.env.BIBLON_DATABASE ?? "var/biblon.sqlite")
mkdirSync(dirname(database), { recursive: true })
const app = createApp({ database, web: resolve(process.env.BIBLON_WEB ?? "apps/web/dist") })
if (process.env.BIBLON_DEMO) fillShelf(app.store)

const loopback = "127.0.0.1"
app.server.listen(Number(process.env.BIBLON_PORT ?? 4780), loopback, () => {
  const address = app.server.address()
  if (address && typeof address === "object") console.log(`Biblon is at http://${loopback}:${address.port}`)
})
app.server.on("error", (error: NodeJS.ErrnoException) => {
  console.error(error.code === "EADDRINUSE" ? "That port is taken: set BIBLON_PORT to another one." : error.message)
  process.exit(1)
})
for (const signal of ["SIGINT", "SIGTERM"] as const) process.on(signal, () => void app.close().then(() => process.exit(0)))
