/** Spelling of a thousand sheets in a process of its own, bundled as what ships. */
import { execFileSync } from "node:child_process"
import { programNamed } from "../scripts/programs.mjs"
import type { SpellingFigures } from "./spelled"

export function measureSpelling(): SpellingFigures {
  return JSON.parse(execFileSync(process.execPath, [programNamed("spelling")], { encoding: "utf8" })) as SpellingFigures
}

if (process.argv[1]?.endsWith("spelling.ts")) console.log(measureSpelling())
