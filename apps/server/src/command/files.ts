import { readFile, rename, rm, writeFile } from "node:fs/promises"
import { basename, extname } from "node:path"
import type { Node } from "prosemirror-model"
import { documentAttrs, papers, schema, type DocumentAttrs, type PaperName } from "@biblon/core/document"
import { ReadingError } from "@biblon/core/document/reading"
import { readJson, writeJson, type NamedDocument } from "@biblon/core/formats/json"
import { readText, writeText } from "@biblon/core/formats/text"
import { layoutOf, pdfOf } from "@biblon/core/node"

/** The words of a call are off. */
export class UsageError extends Error {}

/** What the options of a call change in the document that was read. */
export interface Settings {
  lines: boolean
  family?: string
  size?: number
  spacing?: number
  paper?: PaperName
  /** Points. */
  margin?: number
}

const largestInput = 256 * 1024 * 1024

const readers: Record<string, (source: string, settings: Settings) => NamedDocument> = {
  ".txt": (source, { lines }) => ({ name: null, doc: readText(source, { lines }) }),
  ".json": (source) => readJson(source),
}

const writers: Record<string, (named: NamedDocument) => string | Uint8Array> = {
  ".pdf": ({ name, doc }) => pdfOf(layoutOf(doc), name ?? ""),
  ".json": writeJson,
  ".txt": ({ doc }) => writeText(doc),
}

function forEnding<T>(kinds: Record<string, T>, path: string, what: string): T {
  const kind = kinds[extname(path).toLowerCase()]
  if (!kind) throw new UsageError(`${path}: a file to ${what} ends in ${Object.keys(kinds).join(", ")}`)
  return kind
}

/** Typeface, size and spacing go into the defaults and the body style, so that headings keep their own. */
function withSettings(doc: Node, { family, size, spacing, paper, margin }: Settings): Node {
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
    },
  }
  const { width, height, margins } = attrs.setup
  if (margins.left + margins.right > width - 36 || margins.top + margins.bottom > height - 36)
    throw new UsageError("The margins leave no room for text on this paper")
  return schema.nodes.doc.create(attrs, doc.content)
}

/** @throws ReadingError if the file cannot be read or is not what its ending says */
export async function readInput(path: string, settings: Settings): Promise<NamedDocument> {
  const read = forEnding(readers, path, "read")
  const bytes = await readFile(path).catch((error: NodeJS.ErrnoException) => {
    throw new ReadingError(
      `${path} cannot be read: ${error.code === "ENOENT" ? "there is no such file" : error.message}`,
    )
  })
  if (bytes.length > largestInput)
    throw new ReadingError(`${path} is too large: up to ${largestInput / 1024 / 1024} MB can be read`)
  let source: string
  try {
    source = new TextDecoder("utf-8", { fatal: true }).decode(bytes)
  } catch {
    throw new ReadingError(`${path} is not text in UTF-8: save it in that encoding and try again`)
  }
  let named: NamedDocument
  try {
    named = read(source, settings)
  } catch (error) {
    if (error instanceof ReadingError) throw new ReadingError(`${path}: ${error.message}`)
    throw error
  }
  return { name: named.name ?? basename(path, extname(path)), doc: withSettings(named.doc, settings) }
}

export async function writeOutput(path: string, named: NamedDocument): Promise<void> {
  const write = forEnding(writers, path, "write")
  // Beside it first, so that a disk that is full leaves an older file whole.
  const beside = `${path}.${process.pid}.part`
  try {
    await writeFile(beside, write(named))
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
