/** One cold layout and PDF, in a process that begins as the command does: `node --expose-gc bench/cold.mjs prose|wide|shaped|everything`. */
import { loadProgram } from "../scripts/programs.mjs"

loadProgram("cold")
