/** Programs for Node, each bundled into one file in .cache, anew where a source is newer than it. */
import { existsSync, readdirSync, readFileSync, renameSync, statSync, writeFileSync } from "node:fs"
import Module, { createRequire } from "node:module"
import { dirname, join } from "node:path"
import { setPriority } from "node:os"
import { fileURLToPath } from "node:url"
import { spawnSync } from "node:child_process"
import { setFlagsFromString } from "node:v8"
import { Script } from "node:vm"

const root = join(dirname(fileURLToPath(import.meta.url)), "..")

const entries = {
  biblon: "apps/server/src/command/main.ts",
  server: "apps/server/src/main.ts",
  pictures: "apps/server/src/pictures/worker.ts",
  drawings: "apps/server/src/drawings/worker.ts",
  cold: "bench/cold.ts",
  spelling: "bench/spelled.ts",
  formats: "bench/converted.ts",
}

const sources = [
  "packages/core/src",
  "packages/core/node",
  "packages/wire/src",
  "apps/server/src",
  "bench",
  "scripts/programs.mjs",
  "scripts/lazyFflate.cjs",
  "package-lock.json",
]

function newest(path) {
  const stat = statSync(path)
  return stat.isDirectory()
    ? readdirSync(path, { withFileTypes: true }).reduce((time, { name }) => Math.max(time, newest(join(path, name))), 0)
    : stat.mtimeMs
}

/** Path of a program. @param {keyof typeof entries} name */
export function programNamed(name) {
  const program = join(root, ".cache", `${name}.cjs`)
  if (existsSync(program) && statSync(program).mtimeMs > Math.max(...sources.map((path) => newest(join(root, path)))))
    return program
  const beside = join(root, ".cache", `${name}-${process.pid}.cjs`)
  const esbuild = join(createRequire(join(root, "package.json")).resolve("esbuild"), "../../bin/esbuild")
  const { status } = spawnSync(
    esbuild,
    [
      join(root, entries[name]),
      "--bundle",
      "--platform=node",
      "--format=cjs",
      "--target=node20",
      "--external:better-sqlite3",
      "--define:import.meta.url=undefined",
      // Without comments there is next to nothing but ASCII in it, see below.
      "--minify-whitespace",
      "--line-limit=160",
      "--charset=ascii",
      // What it is for pages needs no canvas of the machine.
      `--alias:emf-converter=${join(dirname(createRequire(join(root, "packages/core/package.json")).resolve("emf-converter")), "browser.mjs")}`,
      `--alias:fflate=${join(root, "scripts/lazyFflate.cjs")}`,
      `--outfile=${beside}`,
      "--log-level=error",
    ],
    { stdio: ["ignore", 2, 2] },
  )
  if (status !== 0) throw new Error(`The program ${name} could not be bundled`)
  // Regular expressions keep what is beyond ASCII. Without that the program is read as it is, at half its size in memory.
  const ascii = (sign) => `\\u${sign.charCodeAt(0).toString(16).padStart(4, "0")}`
  writeFileSync(beside, readFileSync(beside, "utf8").replace(/[^\x00-\x7f]/g, ascii))
  // Another process may be reading the one that is there.
  renameSync(beside, program)
  return program
}

/** What was kept of a program's code; undefined where the program is newer. */
function keptCode(kept, program) {
  try {
    return statSync(kept).mtimeMs > statSync(program).mtimeMs ? readFileSync(kept) : undefined
  } catch {
    return undefined
  }
}

/**
 * How a process runs that is soon over: it ends before optimised WebAssembly pays, and would wait half a second for it to be made;
 * what it makes mostly stays, so that a young space that grows in small steps has the same values copied again and again; and its
 * functions are optimised beside it, on the same few cores, so that code that is a little slower and much sooner there is the better one.
 */
const flagsOfShort = [
  "--wasm-tiering-budget=18000000",
  "--semi-space-growth-factor=16",
  "--always-sparkplug",
  "--max-inlined-bytecode-size-cumulative=200",
  "--no-turbo-loop-peeling",
  "--no-turbo-splitting",
]

/** Has the threads that compile and collect beside the main one give way to it, where they have to share its cores; only Linux counts them one by one. */
function giveWay() {
  if (process.platform !== "linux") return
  try {
    for (const thread of readdirSync("/proc/self/task"))
      if (Number(thread) !== process.pid) setPriority(Number(thread), 10)
  } catch {
    // Where that is not allowed, they share.
  }
}

/**
 * Loads a program of a process that is soon over, and gives what it exports. What the machine has made of its code by the end is kept beside it, so that the next
 * start need not make it again; where it cannot be kept, or comes from another machine, nothing is lost but time.
 * @param {keyof typeof entries} name
 */
export function loadProgram(name) {
  flagsOfShort.forEach((flag) => setFlagsFromString(flag))
  giveWay()
  const program = programNamed(name)
  const kept = join(root, ".cache", `${name}.code`)
  const cachedData = keptCode(kept, program)
  const script = new Script(Module.wrap(readFileSync(program, "latin1")), { filename: program, cachedData })
  const made = { exports: {} }
  script.runInThisContext()(made.exports, createRequire(program), made, program, dirname(program))
  if (!cachedData || script.cachedDataRejected)
    process.once("exit", () => {
      try {
        const beside = `${kept}-${process.pid}`
        writeFileSync(beside, script.createCachedData())
        renameSync(beside, kept)
      } catch {
        // A disk that is full, or not ours to write on.
      }
    })
  return made.exports
}

if (process.argv[1]?.endsWith("programs.mjs")) for (const name of process.argv.slice(2)) console.log(programNamed(name))
