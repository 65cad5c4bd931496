/** Checks the types of everything, scripts and tests included. */
import { run } from "./setup.mjs"

export const projects = ["packages/core", "packages/wire", "apps/server", "apps/web", "e2e", "bench", "scripts"]

if (process.argv[1]?.endsWith("types.mjs"))
  process.exitCode = Math.max(...projects.map((project) => run("npx", ["tsc", "-p", project])))
