/** Files of a document: named by the SHA-256 of their bytes. */
import { sha256 } from "@noble/hashes/sha2"
import { bytesToHex } from "@noble/hashes/utils"

export function assetName(bytes: Uint8Array): string {
  return bytesToHex(sha256(bytes))
}
