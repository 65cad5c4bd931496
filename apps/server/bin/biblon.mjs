#!/usr/bin/env node
import { setFlagsFromString } from "node:v8"
import { fileURLToPath } from "node:url"
import { loadProgram } from "../../../scripts/programs.mjs"

// A process this short ends before optimised WebAssembly pays, and would wait half a second for it to be made.
setFlagsFromString("--wasm-tiering-budget=18000000")
process.env.BIBLON_ROOT ??= fileURLToPath(new URL("../../..", import.meta.url))
const { run } = loadProgram("biblon")
process.exitCode = await run(process.argv.slice(2))
