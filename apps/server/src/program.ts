/** Programs for threads, which the set-up bundles; anew when one is first needed after a change of its sources. */
import { execFile } from "node:child_process"
import { join } from "node:path"
import { promisify } from "node:util"
import { projectRoot } from "@biblon/core/node"

export type ThreadProgram = "pictures" | "drawings"

const made = new Map<ThreadProgram, Promise<string>>()

/** Path of a program. */
export function programPath(name: ThreadProgram): Promise<string> {
  let path = made.get(name)
  if (!path) {
    path = promisify(execFile)(process.execPath, [join(projectRoot(), "scripts/programs.mjs"), name]).then(
      ({ stdout }) => stdout.trim(),
    )
    made.set(name, path)
  }
  return path
}
