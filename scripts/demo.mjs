/** Sets up, builds and starts Biblon with the demo documents. */
import { spawn } from "node:child_process"
import { programNamed } from "./programs.mjs"
import { installPackages, root } from "./setup.mjs"

installPackages()
const { buildApp } = await import("./build.mjs")
await buildApp()
const server = spawn(process.execPath, [programNamed("server")], {
  cwd: root,
  stdio: "inherit",
  env: { BIBLON_ROOT: root, ...process.env, BIBLON_DEMO: "1" },
})
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal))
server.on("exit", (code) => process.exit(code ?? 0))
