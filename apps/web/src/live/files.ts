/** Files of documents that the server does not have yet: kept on this device, and shown from here, until it has. */
import type { FileKind } from "@biblon/core/document"
import { assetName } from "@biblon/core/formats/assets"
import { api } from "../api"
import { device } from "./device"

/** Milliseconds between attempts. */
const pause = 10_000

/** Addresses on this page of the files that are kept. */
const addresses = new Map<string, Promise<string | null>>()

/** Where a file is to be had on this device; null if it is not kept here. */
export function keptAddress(asset: string): Promise<string | null> {
  let address = addresses.get(asset)
  if (!address) {
    address = keptFile(asset).then((file) => file && URL.createObjectURL(file))
    addresses.set(asset, address)
    // What is not here now may be later.
    void address.then((found) => found ?? addresses.delete(asset))
  }
  return address
}

export async function keptFile(asset: string): Promise<Blob | null> {
  try {
    return (await (await device()).get("files", asset))?.file ?? null
  } catch {
    return null
  }
}

/** Those of some files that are kept here, with their bytes. */
export async function keptBytes(assets: Iterable<string>): Promise<[asset: string, bytes: Uint8Array][]> {
  const found = await Promise.all([...assets].map(async (asset) => [asset, await keptFile(asset)] as const))
  return Promise.all(
    found.flatMap(([asset, file]) =>
      file ? [file.arrayBuffer().then((bytes): [string, Uint8Array] => [asset, new Uint8Array(bytes)])] : [],
    ),
  )
}

function give(kind: FileKind, file: Blob): Promise<{ asset: string }> {
  if (kind === "picture") return api.addPicture(file)
  return kind === "font" ? api.addFont(file) : api.addEnclosure(file)
}

/**
 * Gives a file to the server, or where that cannot be reached to this device.
 * @returns the name under which documents know it, its SHA-256
 * @throws Error in words where the server does not take it, or the device keeps nothing
 */
export async function addFile(file: Blob, kind: FileKind = "picture"): Promise<string> {
  try {
    return (await give(kind, file)).asset
  } catch (error) {
    // What the server said is said; only a server that does not answer can be waited for.
    if (!(error instanceof TypeError)) throw error
    const asset = assetName(new Uint8Array(await file.arrayBuffer()))
    try {
      await (await device()).put("files", { asset, file, kind, kept: Date.now() })
    } catch {
      throw error
    }
    sendLater()
    return asset
  }
}

let waiting: ReturnType<typeof setTimeout> | undefined

function sendLater(): void {
  waiting ??= setTimeout(() => {
    waiting = undefined
    void sendKept()
  }, pause)
}

/** Gives the server what is kept here. To be called when it can be reached again. What it refuses stays here. */
export async function sendKept(): Promise<void> {
  const kept = await device().catch(() => null)
  for (const { asset, file, kind = "picture" } of (await kept?.getAll("files").catch(() => [])) ?? []) {
    try {
      await give(kind, file)
      await kept?.delete("files", asset)
    } catch (error) {
      if (error instanceof TypeError) return sendLater()
    }
  }
}
