/** Runs the property tests with values that are drawn anew each time: npm run search -- --minutes 10 [test files]. Names the seeds that fail. */
import { parseArgs } from "node:util"
import { installPackages, run } from "./setup.mjs"

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { minutes: { type: "string", default: "10" } },
})
installPackages()

const ends = Date.now() + Number(values.minutes) * 60_000
const failed = []
let rounds = 0
do {
  rounds++
  process.env.BIBLON_SEED = String(Math.floor(Math.random() * 2 ** 31))
  if (run("npx", ["jest", "--silent", ...positionals]) !== 0) failed.push(process.env.BIBLON_SEED)
} while (Date.now() < ends)

for (const seed of failed) console.log(`failed with BIBLON_SEED=${seed}`)
console.log(`${rounds} rounds, ${failed.length} failed`)
process.exitCode = failed.length > 0 ? 1 : 0
