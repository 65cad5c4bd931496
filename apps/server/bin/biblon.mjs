#!/usr/bin/env node
import { createRequire } from "node:module"
import { setFlagsFromString } from "node:v8"
import { fileURLToPath } from "node:url"
import { programNamed } from "../../../scripts/programs.mjs"

// A process this short ends before optimised WebAssembly pays, and would wait half a second for it to be made.
setFlagsFromString("--wasm-tiering-budget=18000000")
process.env.BIBLON_ROOT ??= fileURLToPath(new URL("../../..", import.meta.url))
const { run } = createRequire(import.meta.url)(programNamed("biblon"))
process.exitCode = await run(process.argv.slice(2))
