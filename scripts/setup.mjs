/** Brings a fresh checkout to where it can run: packages, the native build, and what Debian provides. */
import { execFileSync, spawnSync } from "node:child_process"
import { existsSync } from "node:fs"
import { createRequire } from "node:module"
import { dirname, join } from "node:path"
import { fileURLToPath } from "node:url"

export const root = join(dirname(fileURLToPath(import.meta.url)), "..")
const require = createRequire(join(root, "package.json"))

export function run(command, args, options = {}) {
  const { status } = spawnSync(command, args, { cwd: root, stdio: "inherit", ...options })
  return status ?? 1
}

function must(what, command, args, options) {
  // What setting up says goes to standard error, so that a command's own output stays clean.
  if (run(command, args, { stdio: ["inherit", 2, 2], ...options }) !== 0) {
    console.error(`\n${what} failed: see above.`)
    process.exit(1)
  }
}

function worksNatively() {
  try {
    const Database = require("better-sqlite3")
    new Database(":memory:").close()
    return true
  } catch {
    return false
  }
}

/** Packages and the native build. */
export function installPackages() {
  const wanted = ["expo", "@playwright/test", "better-sqlite3", "typescript"]
  if (!wanted.every((name) => existsSync(join(root, "node_modules", name)))) {
    console.log("Installing packages…")
    must("Installing packages", "npm", [
      existsSync(join(root, "package-lock.json")) ? "ci" : "install",
      "--no-audit",
      "--no-fund",
      "--loglevel=error",
    ])
  }
  if (!worksNatively()) {
    console.log("Building the database library…")
    must("Building the database library", "npm", ["rebuild", "better-sqlite3", "esbuild", "--loglevel=error"])
  }
}

const has = (program) => spawnSync("sh", ["-c", `command -v ${program}`]).status === 0

const programs = { chromium: "chromium", pdftotext: "poppler-utils", qpdf: "qpdf", pandoc: "pandoc" }
/** What the tests are quicker with, and do without. */
const comforts = { "chromium-headless-shell": "chromium-headless-shell" }

const missingOf = (of) =>
  Object.entries(of)
    .filter(([program]) => !has(program))
    .map(([, name]) => name)

/** Programs that the tests use, from Debian's packages where they are missing. */
export function installPrograms() {
  const missing = missingOf(programs)
  const wished = missingOf(comforts)
  if (missing.length + wished.length === 0) return
  console.log(`Installing ${[...missing, ...wished].join(", ")}…`)
  const apt = process.getuid?.() === 0 ? [] : ["sudo"]
  const call = (...args) =>
    execFileSync(apt[0] ?? args[0], apt[0] ? args : args.slice(1), {
      stdio: ["inherit", 2, 2],
      env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
    })
  // What is only wished for is not waited for long.
  const patience = missing.length > 0 ? [] : ["-o", "Acquire::Retries=0", "-o", "Acquire::http::Timeout=15"]
  const install = (names) => names.length > 0 && call("apt-get", "install", "-y", "-qq", ...patience, ...names)
  try {
    call("apt-get", "update", "-qq", ...patience)
    install(missing)
    install(wished)
  } catch (error) {
    if (missingOf(programs).length > 0) throw error
  }
}
