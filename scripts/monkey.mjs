/** Sets up, builds and lets somebody do anything on the page: npm run monkey -- --minutes 5. */
import { installPackages, installPrograms, run } from "./setup.mjs"

installPackages()
installPrograms()
const { buildApp } = await import("./build.mjs")
await buildApp()
process.exitCode = run(process.execPath, ["--import", "tsx", "e2e/monkey/monkey.ts", ...process.argv.slice(2)])
