#!/usr/bin/env node
import { fileURLToPath } from "node:url"
import { register } from "tsx/esm/api"

process.env.BIBLON_ROOT ??= fileURLToPath(new URL("../../..", import.meta.url))
register()
const { run } = await import("../src/command/main.ts")
process.exitCode = await run(process.argv.slice(2))
