/** Pictures of first sheets and numbers of sheets, made one after the other without holding up other requests. */
import { Composition, type Typesetter } from "@biblon/core/layout"
import { sheetPicture } from "@biblon/core/output"
import type { DocumentStore, Picture } from "./store/documents"

const turn = () => new Promise((resolve) => setImmediate(resolve))
const sheetsPerTurn = 5

export class Pictures {
  private queue: Promise<unknown> = Promise.resolve()

  constructor(
    private readonly store: DocumentStore,
    private readonly typesetter: Typesetter,
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
    const doc = this.store.at(id, entry.version)
    if (!doc) return undefined
    const composition = new Composition(this.typesetter, doc, { mode: "sheets" })
    while (!composition.step()) if (composition.settled % sheetsPerTurn === 0) await turn()
    const { placed } = composition.layout
    const first = placed[0]
    const picture = { version: entry.version, sheets: placed.length, svg: first ? sheetPicture(first.sheet, this.typesetter.fonts) : "" }
    this.store.keepPicture(id, picture)
    return picture
  }
}
