/** The picture thread's program, which the set-up bundles; anew when it is first needed after a change of its sources. */
import { execFile } from "node:child_process"
import { join } from "node:path"
import { promisify } from "node:util"
import { projectRoot } from "@biblon/core/node"

let made: Promise<string> | undefined

/** Path of the program. */
export function pictureProgram(): Promise<string> {
  return (made ??= promisify(execFile)(process.execPath, [
    join(projectRoot(), "scripts/programs.mjs"),
    "pictures",
  ]).then(({ stdout }) => stdout.trim()))
}
