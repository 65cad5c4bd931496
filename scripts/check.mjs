/** All but the journeys. */
import { makeChecks } from "./checks.mjs"
import { installPackages, run } from "./setup.mjs"

installPackages()
const { failed } = await makeChecks()
process.exitCode = Math.max(failed > 0 ? 1 : 0, run("npx", ["jest"]))
