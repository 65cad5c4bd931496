/** Everything that is checked: types, rules, unit tests, journeys. The last line adds them up. */
import { spawn } from "node:child_process"
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs"
import { join } from "node:path"
import { makeChecks } from "./checks.mjs"
import { installPackages, installPrograms, root, run } from "./setup.mjs"

installPackages()
installPrograms()

const results = join(root, "test-results")
rmSync(results, { recursive: true, force: true })
mkdirSync(results, { recursive: true })

const sum = { passed: 0, failed: 0 }
function check(name, command, args) {
  console.log(`\n— ${name}`)
  const ok = run(command, args) === 0
  sum[ok ? "passed" : "failed"]++
  return ok
}

/** @returns {Promise<boolean>} whether it went well */
function start(command, args) {
  const child = spawn(command, args, { cwd: root, stdio: "inherit" })
  return new Promise((resolve) => child.on("close", (code) => resolve(code === 0)))
}

function passedAtSecondTry(suites) {
  return suites.flatMap((suite) => [
    ...passedAtSecondTry(suite.suites ?? []),
    ...suite.specs
      .filter(({ tests }) => tests.some(({ status }) => status === "flaky"))
      .map(({ title }) => `${suite.file}: ${title}`),
  ])
}

console.log("\n— types, rules and form, beside the building")
const building = start(process.execPath, ["scripts/build.mjs"])
const checked = await makeChecks()
sum.passed += checked.passed
sum.failed += checked.failed
const built = await building

console.log("\n— unit tests")
const jestFile = join(results, "jest.json")
const jestStatus = run("npx", ["jest", "--json", `--outputFile=${jestFile}`])
if (existsSync(jestFile)) {
  const { numPassedTests, numFailedTests, numFailedTestSuites } = JSON.parse(readFileSync(jestFile, "utf8"))
  sum.passed += numPassedTests
  sum.failed += numFailedTests || (jestStatus === 0 ? 0 : Math.max(1, numFailedTestSuites))
} else sum.failed++

check("a short storm", process.execPath, ["scripts/storm.mjs", "--seconds", "25"])

console.log("\n— journeys in the browser")
try {
  if (!built) throw new Error("The application could not be built: see above.")
  const status = run("npx", ["playwright", "test", "-c", "e2e/playwright.config.ts"])
  const { stats, suites } = JSON.parse(readFileSync(join(results, "playwright.json"), "utf8"))
  for (const title of passedAtSecondTry(suites)) console.log(`passed at the second try only: ${title}`)
  sum.passed += stats.expected + stats.flaky
  sum.failed += stats.unexpected || (status === 0 ? 0 : 1)
} catch (error) {
  console.error(error)
  sum.failed++
}

console.log(`${sum.passed} passed, ${sum.failed} failed`)
process.exitCode = sum.failed > 0 ? 1 : 0
