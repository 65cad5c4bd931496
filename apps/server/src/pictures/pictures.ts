/** Pictures of first sheets and numbers of sheets, made one after the other in a thread of their own, with bounds of time and memory. */
import type { DocumentAttrs } from "@biblon/core/document"
import type { AssetStore } from "../store/assets"
import type { DocumentStore, Picture } from "../store/documents"
import { Thread } from "../thread"
import type { Drawn, ToDraw } from "./worker"

/** So many pictures of a document are given along. */
const firstPictures = 12
const longest = 20_000

/** A sheet without anything on it, for documents that could not be drawn. */
const blank =
  '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 595 842"><rect width="595" height="842" fill="#fff"/></svg>'

export class Pictures {
  private queue: Promise<unknown> = Promise.resolve()
  private readonly thread = new Thread<ToDraw, Drawn>("pictures", longest)
  /** Versions that could not be drawn within the bounds: not tried again in this process. */
  private readonly failed = new Map<string, number>()

  constructor(
    private readonly store: DocumentStore,
    private readonly assets: AssetStore,
  ) {}

  /** The picture of the newest version; undefined if there is no such document. */
  of(id: string): Promise<Picture | undefined> {
    const made = this.queue.then(() => this.make(id))
    this.queue = made.catch(() => undefined)
    return made
  }

  private async make(id: string): Promise<Picture | undefined> {
    const entry = this.store.entry(id)
    if (!entry) return undefined
    const kept = this.store.picture(id)
    if (kept?.version === entry.version) return kept
    const { version } = entry
    const undrawn = { version, sheets: null, svg: blank }
    if (this.failed.get(id) === version) return undrawn
    const content = this.store.contentAt(id, version)
    if (content === undefined) return undefined
    let drawn: Drawn
    try {
      drawn = await this.thread.ask({ content, name: entry.name ?? "", assets: this.assetsOf(content) })
    } catch (error) {
      console.error(`The picture of document ${id} could not be made: ${(error as Error).message}`)
      this.failed.set(id, version)
      return undrawn
    }
    const picture = { version, ...drawn }
    try {
      this.store.keepPicture(id, picture)
    } catch (error) {
      // It is made again when it is asked for again.
      console.error(`The picture of document ${id} could not be kept: ${(error as Error).message}`)
    }
    return picture
  }

  private assetsOf(content: string): ToDraw["assets"] {
    const { attrs } = JSON.parse(content) as { attrs: DocumentAttrs }
    const fonts = Object.values(attrs.styles.fonts).flatMap((family) => Object.values(family))
    // The first pictures are those of the first sheet, if it has any.
    const pictures = [...content.matchAll(/"asset":"([0-9a-f]{64})"/g)]
      .slice(0, firstPictures)
      .map(([, name]) => name ?? "")
    return [...fonts, ...pictures].flatMap((sha256) =>
      ((bytes) => (bytes ? [[sha256, bytes] as const] : []))(this.assets.bytes(sha256)),
    )
  }

  close(): Promise<void> {
    return this.thread.close()
  }
}
