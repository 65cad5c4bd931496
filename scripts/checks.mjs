/** What can be checked without running anything of ours: types, rules, form, and what nobody uses. */
import { spawn } from "node:child_process"
import { root } from "./setup.mjs"
import { typing } from "./types.mjs"

const checks = [
  { name: "types", args: typing },
  { name: "rules", args: ["eslint", ".", "--max-warnings", "0"] },
  { name: "form", args: ["prettier", "--check", "--log-level", "warn", "."] },
  { name: "nothing unused", args: ["knip"] },
]

/** @returns {Promise<{ ok: boolean, output: string }>} */
function perform(args) {
  return new Promise((resolve) => {
    const child = spawn("npx", args, { cwd: root })
    let output = ""
    for (const stream of [child.stdout, child.stderr]) stream.on("data", (data) => (output += String(data)))
    child.on("close", (code) => resolve({ ok: code === 0, output }))
  })
}

/** Makes the checks one after another and says what each found. @returns how many passed and failed */
export async function makeChecks() {
  const sum = { passed: 0, failed: 0 }
  for (const { name, args } of checks) {
    const { ok, output } = await perform(args)
    console.log(`${ok ? "✓" : "✗"} ${name}${ok ? "" : `\n${output}`}`)
    sum[ok ? "passed" : "failed"]++
  }
  return sum
}
