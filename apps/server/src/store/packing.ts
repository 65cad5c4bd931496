/** Text as it lies in the database, in brotli. */
import { brotliCompress, brotliCompressSync, brotliDecompressSync, constants } from "node:zlib"
import { promisify } from "node:util"

const packing = { params: { [constants.BROTLI_PARAM_QUALITY]: 4 } }
const later = promisify(brotliCompress)

export const pack = (text: string): Uint8Array => brotliCompressSync(text, packing)
/** The same while others are answered. */
export const packLater = (text: string): Promise<Uint8Array> => later(text, packing)
export const unpack = (packed: Uint8Array): string => brotliDecompressSync(packed).toString("utf8")
