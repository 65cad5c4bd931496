/** Sets up, builds and measures. With --json only the figures go to standard output. */
import { installPackages, installPrograms, run } from "./setup.mjs"

const log = console.log
console.log = console.error
installPackages()
installPrograms()
const { buildApp } = await import("./build.mjs")
await buildApp()
console.log = log
process.exitCode = run(process.execPath, ["--expose-gc", "--import", "tsx", "bench/run.ts", ...process.argv.slice(2)])
