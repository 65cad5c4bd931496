import { readFile as readBytes, rename, rm, writeFile } from "node:fs/promises"
import { dirname, join } from "node:path"
import type { Node } from "prosemirror-model"
import { EditorState } from "prosemirror-state"
import {
  documentAttrs,
  equal,
  fitSetup,
  papers,
  schema,
  type DocumentAttrs,
  type PaperName,
} from "@biblon/core/document"
import { ReadingError } from "@biblon/core/document/reading"
import { fillEdge, placeNumbers, type NumberPlace } from "@biblon/core/editing"
import { formatFor, formats, isToldByContent, nameAndEnding, readFile } from "@biblon/core/formats"
import type { FileRead, Format, NamedDocument } from "@biblon/core/formats/format"
import { kinds, type KindId } from "@biblon/core/formats/kinds"
import { lossesIn } from "@biblon/core/formats/losses"
import { archiveFile, pdfFormat, pngsOf, prepareCiting, printFile } from "@biblon/core/node"
import { usualDots } from "@biblon/core/output/pixels"
import type { PrintPlan } from "@biblon/core/output/printing"

/** The words of a call are off. */
export class UsageError extends Error {}

/** What the options of a call change in the document that was read. */
export interface Settings {
  lines: boolean
  /** The ending that says what is read, where the file's own does not. */
  from?: string
  family?: string
  size?: number
  spacing?: number
  paper?: PaperName
  /** Points. */
  margin?: number
  columns?: number
  /** Parts divided by bars, with fields in braces. */
  header?: string
  footer?: string
  numbers?: NumberPlace
  /** How the sheets of a PDF lie on paper, or which become pictures. */
  print?: PrintPlan
  /** Whether a PDF is for archives. */
  archive?: boolean
  /** Of pictures of sheets. */
  dpi?: number
}

const all: readonly Format[] = [...Object.values(formats), pdfFormat]

/** The ending of each kind that can be written. */
export const writtenEndings = all.flatMap(({ write, endings }) => (write ? [endings[0]] : []))

/** In place of a path: standard input, or standard output. */
export const standard = "-"

async function readStandard(): Promise<Uint8Array> {
  const parts: Buffer[] = []
  for await (const part of process.stdin) parts.push(part as Buffer)
  return Buffer.concat(parts)
}

/** A format that can do what is asked, by the ending of a path. */
function formatThat<Way extends "read" | "write">(way: Way, path: string): Format & Required<Pick<Format, Way>> {
  const able = all.filter((format): format is Format & Required<Pick<Format, Way>> => format[way] !== undefined)
  const format = formatFor(path, able)
  if (!format)
    throw new UsageError(`${path}: a file to ${way} ends in ${able.flatMap(({ endings }) => endings).join(", ")}`)
  return format as Format & Required<Pick<Format, Way>>
}

/** Typeface, size and spacing go into the defaults and the body style, so that headings keep their own. */
function withSettings(doc: Node, settings: Settings): Node {
  const { family, size, spacing, paper, margin, columns } = settings
  const before = documentAttrs(doc)
  const { styles, setup } = before
  const letters = { ...(family === undefined ? {} : { family }), ...(size === undefined ? {} : { size }) }
  const paragraph = spacing === undefined ? {} : { lineSpacing: { rule: "multiple" as const, value: spacing } }
  const body = styles.styles.body
  const attrs: DocumentAttrs = {
    ...before,
    styles: {
      ...styles,
      defaults: {
        letters: { ...styles.defaults.letters, ...letters },
        paragraph: { ...styles.defaults.paragraph, ...paragraph },
      },
      styles: body
        ? {
            ...styles.styles,
            body: { ...body, letters: { ...body.letters, ...letters }, paragraph: { ...body.paragraph, ...paragraph } },
          }
        : styles.styles,
    },
    setup: {
      ...setup,
      ...(paper === undefined ? {} : papers[paper]),
      ...(margin === undefined ? {} : { margins: { top: margin, right: margin, bottom: margin, left: margin } }),
      ...(columns === undefined ? {} : { columns: { ...setup.columns, count: columns } }),
    },
  }
  const { width, height, margins } = attrs.setup
  if (!equal(fitSetup(attrs.setup).columns, attrs.setup.columns))
    throw new UsageError("So many columns leave no room for text on this paper")
  if (margins.left + margins.right > width - 36 || margins.top + margins.bottom > height - 36)
    throw new UsageError("The margins leave no room for text on this paper")
  return withEdges(schema.nodes.doc.create(attrs, doc.content), settings)
}

/** What stands at the heads and feet of the sheets. */
function withEdges(doc: Node, { header, footer, numbers }: Settings): Node {
  const commands = [
    // A line that says where numbers stand is left as it says.
    ...(numbers === undefined ? [] : [placeNumbers(numbers, "%1")]),
    ...(header === undefined ? [] : [fillEdge("head", header)]),
    ...(footer === undefined ? [] : [fillEdge("foot", footer)]),
  ]
  let state = EditorState.create({ doc })
  for (const command of commands) command(state, (tr) => (state = state.apply(tr)))
  return state.doc
}

/** @throws ReadingError if the file cannot be read or is not what its ending says */
export async function readInput(path: string, settings: Settings): Promise<FileRead> {
  const called = settings.from === undefined ? path : `file.${settings.from}`
  const bytes =
    path === standard
      ? await readStandard()
      : await readBytes(path).catch((error: NodeJS.ErrnoException) => {
          formatThat("read", called)
          throw new ReadingError(
            `${path} cannot be read: ${error.code === "ENOENT" ? "there is no such file" : error.message}`,
          )
        })
  try {
    if (!isToldByContent(bytes)) formatThat("read", called)
    const file = readFile(bytes, called, settings)
    // Threads are loaded where there may be a drawing for one.
    const read = file.assets.size > 0 ? await (await import("../drawings/drawing")).drawn(file) : file
    return { ...read, doc: withSettings(read.doc, settings) }
  } catch (error) {
    if (error instanceof ReadingError) throw new ReadingError(`${path}: ${error.message}`)
    throw error
  }
}

/** Whether pictures of sheets are to be written. */
export const isPicture = (path: string, to: string | undefined): boolean =>
  kinds.png.endings.some((ending) =>
    (to === undefined ? path.toLowerCase() : `.${to.replace(/^\./, "")}`).endsWith(ending),
  )

/** Where the files of a document are to be had; undefined where it has none. */
const sourceOf = ({ assets }: Pick<FileRead, "assets">) =>
  assets.size > 0 ? (asset: string) => assets.get(asset) : undefined

/** Sheets as pictures, each under its number where the path says %d. */
export async function writePictures(
  path: string,
  named: NamedDocument & Pick<FileRead, "assets">,
  { print, dpi = usualDots }: Settings,
): Promise<void> {
  const assets = sourceOf(named)
  const made = await pngsOf(named, print?.sheets ?? "all", dpi, assets)
  if (made.size > 1 && !path.includes("%d"))
    throw new UsageError(
      `There are ${made.size} sheets: write %d in the name where their numbers go, or name one with --sheets`,
    )
  for (const [number, bytes] of made) await writeWhole(path.replaceAll("%d", String(number)), bytes)
}

/** Where a file is to be written that was read from a path: beside it, or in a folder. */
export function outputFor(input: string, to: string, folder: string | undefined): string {
  const endings = isPicture("", to) ? ["-%d.png"] : formatThat("write", `a.${to.replace(/^\./, "")}`).endings
  if (input === standard) return standard
  const { name } = nameAndEnding(input)
  return join(folder ?? dirname(input), name + endings[0])
}

/** @param to the ending that says what is written, where the path does not */
export async function writeOutput(
  path: string,
  named: NamedDocument & Pick<FileRead, "assets">,
  to?: string,
  { print, archive = false }: Pick<Settings, "print" | "archive"> = {},
): Promise<void> {
  prepareCiting(named.doc)
  const { write, media } = formatThat("write", to === undefined ? path : `a.${to.replace(/^\./, "")}`)
  const assets = sourceOf(named)
  const isPdf = media === pdfFormat.media
  const kind = (Object.keys(kinds) as KindId[]).find((own) => kinds[own].media === media)
  const losses = kind === undefined ? [] : lossesIn(named.doc, kind)
  if (losses.length > 0) process.stderr.write(`biblon: ${path}: not carried: ${losses.join(", ")}\n`)
  if (isPdf && print) return writeWhole(path, printFile(named, print, assets))
  await writeWhole(path, isPdf && archive ? archiveFile(named, assets) : write(named, assets))
}

/** Writes a file, or to standard output. Half a file is never left behind. @throws ReadingError */
async function writeWhole(path: string, bytes: Uint8Array): Promise<void> {
  // Beside it first, so that a disk that is full leaves an older file whole.
  const beside = `${path}.${process.pid}.part`
  try {
    if (path === standard) {
      await new Promise<void>((resolve, reject) =>
        process.stdout.write(bytes, (error) => (error ? reject(error) : resolve())),
      )
      return
    }
    await writeFile(beside, bytes)
    await rename(beside, path)
  } catch (error) {
    await rm(beside, { force: true })
    const { code, message } = error as NodeJS.ErrnoException
    if (code === undefined) throw error
    throw new ReadingError(
      `${path} cannot be written: ${code === "ENOENT" ? "there is no such folder" : code === "ENOSPC" || code === "EFBIG" ? "the disk is full. What was there before is as it was" : message}`,
    )
  }
}
