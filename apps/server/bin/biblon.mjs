#!/usr/bin/env node
import { fileURLToPath } from "node:url"
import { loadProgram } from "../../../scripts/programs.mjs"

process.env.BIBLON_ROOT ??= fileURLToPath(new URL("../../..", import.meta.url))
const { run } = loadProgram("biblon")
process.exitCode = await run(process.argv.slice(2))
