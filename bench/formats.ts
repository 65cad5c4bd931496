/** Reading and writing of files in a process of its own, bundled as what ships. */
import { execFileSync } from "node:child_process"
import { programNamed } from "../scripts/programs.mjs"
import type { FormatFigures } from "./converted"

export function measureFormats(): FormatFigures {
  return JSON.parse(execFileSync(process.execPath, [programNamed("formats")], { encoding: "utf8" })) as FormatFigures
}

if (process.argv[1]?.endsWith("formats.ts")) console.log(measureFormats())
