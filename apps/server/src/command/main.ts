/** The biblon command. Exit codes: 0 done, 1 the input could not be read or the output written, 2 the call's words are off. */
import { mkdir } from "node:fs/promises"
import { parseArgs } from "node:util"
import { documentAttrs, papers } from "@biblon/core/document"
import { ReadingError } from "@biblon/core/document/reading"
import { leftOutWords } from "@biblon/core/formats/format"
import { readableEndings } from "@biblon/core/formats/kinds"
import { layoutOf } from "@biblon/core/node"
import {
  isPicture,
  outputFor,
  writePictures,
  readInput,
  standard,
  UsageError,
  writeOutput,
  writtenEndings,
  type Settings,
} from "./files"
import { describeBoxes, describeLayout } from "./describe"
import { readSettings } from "./settings"

const help = `biblon convert INPUT OUTPUT   makes a file of another kind; the endings say which (read: ${readableEndings.join(" ")};
                              written: ${writtenEndings.join(" ")}); - is standard input or output
biblon convert --to KIND INPUT...   the same for many files, each beside itself or in --out-dir FOLDER
biblon layout INPUT --json    prints the sheets with their lines: text, and x, y (baseline) and width in points
biblon layout INPUT --boxes   prints the tree of boxes: what it is, its first leaf, and x, y, width and height in points

  --to KIND           what is written, by its ending, such as pdf
  --from KIND         what is read, where neither content nor name say it
  --out-dir FOLDER    where files go that --to makes
  --font NAME         typeface, such as Tinos
  --size PT           size of the body text
  --spacing N         line spacing, as a multiple of single
  --paper NAME        ${Object.keys(papers).join(", ")}
  --margins LENGTH    all four margins, such as 25mm, 2.5cm, 1in or 72pt
  --columns N         columns of text
  --header TEXT       at the head of each sheet: left|middle|right, with {page}, {pages}, {title}, {author}, {date}, {heading}
  --footer TEXT       the same at the foot
  --numbers PLACE     numbers of the sheets: head-left, head-middle, head-right, head-outer, or the same with foot
  --sheets WHICH      (or --pages) of a PDF or of pictures: all, odd, even, or numbers such as 1-3,7,9-
  --dpi N             dots an inch of pictures; OUTPUT is then such as sheet-%d.png, with %d for the number
  --archive           a PDF for archives (PDF/A-3b)
  --arrange HOW       of a PDF: one, two or four sheets on a side, or a booklet
  --two-sided         of a PDF: for both sides of the paper
  --lines             in plain text, every line is a paragraph (otherwise a blank line ends one)
`

const options = {
  to: { type: "string" },
  from: { type: "string" },
  "out-dir": { type: "string" },
  font: { type: "string" },
  size: { type: "string" },
  spacing: { type: "string" },
  paper: { type: "string" },
  margins: { type: "string" },
  columns: { type: "string" },
  header: { type: "string" },
  footer: { type: "string" },
  numbers: { type: "string" },
  sheets: { type: "string" },
  pages: { type: "string" },
  dpi: { type: "string" },
  arrange: { type: "string" },
  "two-sided": { type: "boolean" },
  archive: { type: "boolean", default: false },
  lines: { type: "boolean", default: false },
  json: { type: "boolean", default: false },
  boxes: { type: "boolean", default: false },
  help: { type: "boolean", short: "h", default: false },
} as const

function parse(args: string[]) {
  try {
    return parseArgs({ args, options, allowPositionals: true })
  } catch (error) {
    throw new UsageError((error as Error).message)
  }
}

async function convert(input: string, output: string, to: string | undefined, settings: Settings): Promise<void> {
  const read = await readInput(input, settings)
  if (isPicture(output, to)) await writePictures(output, read, settings)
  else await writeOutput(output, read, to, settings)
  if (read.left.length > 0) process.stderr.write(`biblon: ${input}: left out: ${leftOutWords(read.left)}\n`)
}

/** One after the other; those that cannot be read or written are named, and the others are made all the same. */
async function convertAll(
  inputs: readonly string[],
  to: string,
  folder: string | undefined,
  settings: Settings,
): Promise<void> {
  if (folder !== undefined) await mkdir(folder, { recursive: true })
  let failed = 0
  for (const [i, input] of inputs.entries()) {
    if (process.stderr.isTTY && inputs.length > 1) process.stderr.write(`\r${i + 1} of ${inputs.length}`)
    try {
      await convert(input, outputFor(input, to, folder), to, settings)
    } catch (error) {
      if (!(error instanceof ReadingError)) throw error
      failed++
      process.stderr.write(`biblon: ${error.message}\n`)
    }
  }
  if (process.stderr.isTTY && inputs.length > 1) process.stderr.write("\n")
  if (failed > 0 && inputs.length > 1) throw new ReadingError(`${failed} of ${inputs.length} files were not made`)
  if (failed > 0) throw new QuietError()
}

/** What went wrong was said already. */
class QuietError extends Error {}

async function perform(args: string[]): Promise<void> {
  const { values, positionals } = parse(args)
  const [verb, input, output, ...rest] = positionals
  if (values.help || verb === undefined) {
    process.stdout.write(help)
    if (verb === undefined && !values.help) throw new UsageError("Say what to do: convert or layout")
    return
  }
  if (verb !== "convert" && verb !== "layout") throw new UsageError(`There is no "${verb}": it is convert or layout`)
  if (!input) throw new UsageError("Name the file to read")
  const settings: Settings = readSettings(values)
  if (verb === "convert") {
    const { to, "out-dir": folder } = values
    if (to !== undefined && output !== standard) return convertAll(positionals.slice(1), to, folder, settings)
    if (!output || rest.length > 0) throw new UsageError("Name one file to read and one to write")
    await convert(input, output, to, settings)
  } else {
    if (output) throw new UsageError("Layout takes one file and prints to standard output")
    if (values.json === values.boxes) throw new UsageError("Say how to print the layout: --json or --boxes")
    const { doc } = await readInput(input, settings)
    if (values.boxes) {
      process.stdout.write(describeBoxes(layoutOf(doc)) + "\n")
      return
    }
    process.stdout.write(JSON.stringify(describeLayout(layoutOf(doc), documentAttrs(doc).setup)) + "\n")
  }
}

export async function run(args: string[]): Promise<number> {
  try {
    await perform(args)
    return 0
  } catch (error) {
    if (error instanceof QuietError) return 1
    if (error instanceof UsageError) {
      process.stderr.write(`biblon: ${error.message}\nbiblon --help lists what it can do.\n`)
      return 2
    }
    if (error instanceof ReadingError) {
      process.stderr.write(`biblon: ${error.message}\n`)
      return 1
    }
    throw error
  }
}
