/** All formats that need nothing but the document. The PDF, which needs the layout, joins them in core/node and in the page's file worker. */
import { documentAttrs } from "../document"
import { ReadingError } from "../document/reading"
import type { FileRead, Format, NamedDocument, ReadOptions } from "./format"
import { readCommonMark } from "./commonmark/reading"
import { writeCommonMark } from "./commonmark/writing"
import { readCsv, writeCsv } from "./csv"
import { writeEpub } from "./epub/writing"
import { readHtmlFile } from "./html/file"
import { htmlPage } from "./html/page"
import { readJson, writeJson } from "./json"
import { kindOf } from "./content"
import { textOf } from "./encoding"
import { kinds, readableEndings } from "./kinds"
import { readOfficeOpenXml } from "./officeopenxml/reading"
import { writeOfficeOpenXml } from "./officeopenxml/writing"
import { readOpenDocument } from "./opendocument/reading"
import { writeOpenDocument } from "./opendocument/writing"
import { readRtf } from "./rtf/reading"
import { writeRtf } from "./rtf/writing"
import { readText, writeText } from "./text"

const bytesOf = (text: string) => new TextEncoder().encode(text)

const whole = (named: NamedDocument): FileRead => ({ ...named, assets: new Map(), left: [] })

const html: Format = {
  ...kinds.html,
  read: (bytes) => readHtmlFile(textOf(bytes)),
  write: ({ name, doc }, asset) => bytesOf(htmlPage(doc, name ?? documentAttrs(doc).properties.title, asset)),
}

const text: Format = {
  ...kinds.text,
  read: (bytes, { lines = false }) => whole({ name: null, doc: readText(textOf(bytes), { lines }) }),
  write: ({ doc }) => bytesOf(writeText(doc)),
}

const json: Format = {
  ...kinds.json,
  read: (bytes) => readJson(textOf(bytes)),
  write: (named, asset) => bytesOf(writeJson(named, asset)),
}

const csv: Format = {
  ...kinds.csv,
  read: (bytes, { divider }) => whole({ name: null, doc: readCsv(textOf(bytes), divider) }),
  write: ({ doc }) => bytesOf(writeCsv(doc)),
}

const docx: Format = {
  ...kinds.docx,
  read: readOfficeOpenXml,
  write: ({ name, doc }, asset = () => undefined) => writeOfficeOpenXml(doc, { name, asset }),
}

const odt: Format = {
  ...kinds.odt,
  read: readOpenDocument,
  write: ({ name, doc }, asset = () => undefined) => writeOpenDocument(doc, { name, asset }),
}

const rtf: Format = {
  ...kinds.rtf,
  read: readRtf,
  write: ({ name, doc }, asset = () => undefined) => writeRtf(doc, { name, asset }),
}

const commonmark: Format = {
  ...kinds.commonmark,
  read: (bytes) => readCommonMark(textOf(bytes)),
  write: ({ name, doc }, asset) => bytesOf(writeCommonMark(doc, name, asset)),
}

const epub: Format = {
  ...kinds.epub,
  write: ({ name, doc }, asset) => writeEpub(doc, name, asset),
}

export const formats = { docx, odt, rtf, html, commonmark, epub, text, csv, json }

/** Bytes of the largest file that is read. */
export const largestFile = 256 * 1024 * 1024

/** "tide.table.txt" is "tide.table" and ".txt". */
export function nameAndEnding(file: string): { name: string; ending: string } {
  const base = file.slice(Math.max(file.lastIndexOf("/"), file.lastIndexOf("\\")) + 1)
  const dot = base.lastIndexOf(".")
  return dot > 0 ? { name: base.slice(0, dot), ending: base.slice(dot).toLowerCase() } : { name: base, ending: "" }
}

/** The format that an ending stands for, among some. */
export function formatFor(file: string, among: readonly Format[]): Format | undefined {
  const { ending } = nameAndEnding(file)
  return among.find(({ endings }) => endings.includes(ending))
}

/** Whether what a file is need not be told by its name. @throws ReadingError for files that are something else */
export const isToldByContent = (bytes: Uint8Array): boolean => kindOf(bytes) !== null

const readable: readonly Format[] = Object.values(formats).filter(({ reads }) => reads)

/**
 * A file as a document, named as it says itself or as the file is. What kind of file it is, its content says; its ending only where
 * that says nothing.
 * @throws ReadingError
 */
export function readFile(bytes: Uint8Array, file: string, options: ReadOptions = {}): FileRead {
  const told = kindOf(bytes)
  const format = told ? formats[told] : formatFor(file, readable)
  if (!format?.read) throw new ReadingError(`A file to be read ends in ${readableEndings.join(", ")}`)
  if (bytes.length > largestFile)
    throw new ReadingError(`It is too large: up to ${largestFile / 1024 / 1024} MB can be read`)
  const tabs = [".tsv", ".tab"].includes(nameAndEnding(file).ending)
  const read = format.read(bytes, { ...options, ...(tabs ? { divider: "\t" } : {}) })
  return { ...read, name: read.name ?? nameAndEnding(file).name }
}
