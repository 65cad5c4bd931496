/** The picture thread's program, bundled when it is first needed and after each change of its sources. */
import { execFile } from "node:child_process"
import { rename } from "node:fs/promises"
import { createRequire } from "node:module"
import { join } from "node:path"
import { promisify } from "node:util"
import { projectRoot } from "@biblon/core/node"

let made: Promise<string> | undefined

/** Path of the program. */
export function pictureProgram(): Promise<string> {
  return (made ??= bundle())
}

async function bundle(): Promise<string> {
  const root = projectRoot()
  const program = join(root, ".cache/pictures.cjs")
  const out = join(root, ".cache", `pictures-${process.pid}.cjs`)
  const esbuild = join(createRequire(join(root, "package.json")).resolve("esbuild"), "..", "..", "bin", "esbuild")
  await promisify(execFile)(esbuild, [
    join(root, "apps/server/src/pictures/worker.ts"),
    "--bundle",
    "--platform=node",
    "--format=cjs",
    "--target=node20",
    `--outfile=${out}`,
    "--log-level=error",
  ])
  // Another process may be reading the one that is there.
  await rename(out, program)
  return program
}
