/** Checks the types of everything, scripts and tests included. */
import { run } from "./setup.mjs"

const projects = ["packages/core", "packages/wire", "apps/server", "apps/web", "e2e", "bench", "scripts"]

/** All in one process, which reads what several of them use once. */
export const typing = ["tsc", "-b", ...projects]

if (process.argv[1]?.endsWith("types.mjs")) process.exitCode = run("npx", typing)
