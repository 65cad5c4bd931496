/** Sets up and lets the storm loose: npm run storm -- --minutes 15. Bundled, so that the page's code and ours share one of each library. */
import { join } from "node:path"
import { installPackages, root, run } from "./setup.mjs"

installPackages()
const { build } = await import("esbuild")
const program = join(root, ".cache/storm.mjs")
await build({
  entryPoints: [join(root, "e2e/storm.ts")],
  outfile: program,
  bundle: true,
  platform: "node",
  format: "esm",
  target: "node20",
  external: ["better-sqlite3", "ws", "zod"],
  logLevel: "error",
})
process.exitCode = run(process.execPath, [program, ...process.argv.slice(2)])
