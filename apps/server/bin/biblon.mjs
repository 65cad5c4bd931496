#!/usr/bin/env node
import { createRequire } from "node:module"
import { fileURLToPath } from "node:url"
import { programNamed } from "../../../scripts/programs.mjs"

process.env.BIBLON_ROOT ??= fileURLToPath(new URL("../../..", import.meta.url))
const { run } = createRequire(import.meta.url)(programNamed("biblon"))
process.exitCode = await run(process.argv.slice(2))
