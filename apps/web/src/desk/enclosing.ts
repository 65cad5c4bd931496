/** Files that go along with the document: put in at the caret, and had back. */
import { enclosureFormat, largestEnclosure, type Enclosure } from "@biblon/core/document"
import { insertFieldOf, type Command } from "@biblon/core/editing"
import { api } from "../api"
import { addFile, keptFile } from "../live/files"
import { saveFile } from "../ui/saving"
import type { DeskStore } from "./store"

export interface EnclosingTarget {
  run(command: Command): boolean
  focus(): void
  /** Keys typed meanwhile wait. */
  hold<T>(work: Promise<T>): Promise<T>
}

export class Enclosing {
  constructor(
    private readonly store: DeskStore,
    private readonly target: EnclosingTarget,
  ) {}

  private tell(what: string, error: unknown): void {
    const why = error instanceof TypeError ? "The server cannot be reached." : (error as Error).message
    this.store.setState({ trouble: `${what} ${why}` })
  }

  /** Puts a file in at the caret. */
  async add(file: File): Promise<void> {
    try {
      if (file.size > largestEnclosure)
        throw new Error(
          `Files of up to ${largestEnclosure / 1048576} MB are enclosed; this one has ${Math.ceil(file.size / 1048576)} MB.`,
        )
      if (file.size === 0) throw new Error("There is nothing in it.")
      const asset = await this.target.hold(addFile(file, "enclosure"))
      const format = enclosureFormat({ asset, size: file.size, name: file.name })
      this.target.run(insertFieldOf("enclosure", format, "File enclosed"))
      this.target.focus()
    } catch (error) {
      this.tell("The file was not put in.", error)
    }
  }

  /** Saves an enclosed file on this device. */
  async save({ asset, name }: Enclosure): Promise<void> {
    try {
      saveFile((await keptFile(asset)) ?? (await api.picture(asset)), name)
    } catch (error) {
      this.tell(`“${name}” could not be had.`, error)
    }
  }
}
