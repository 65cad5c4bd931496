/** The ways out for what could not become a part of the document. */
import { Slice } from "prosemirror-model"
import { document, schema } from "@biblon/core/document"
import { documentOf, pasteSlice } from "@biblon/core/editing"
import { api } from "../api"
import { dropAside, keepAside } from "../live/aside"
import type { DeskPort } from "./ports"
import type { Aside } from "../live/records"

export class AsideKeeping {
  /** Hears what was dropped, as long as it can be brought back; null once that is over. */
  onDropped: (aside: Aside | null) => void = () => {}

  constructor(private readonly session: DeskPort) {}

  /** At the caret, as one change. */
  async putInAgain(aside: Aside): Promise<void> {
    if (!this.session.run(pasteSlice(sliceOf(aside), "Put in again"))) return
    this.session.focus()
    await this.gone(aside)
  }

  /** @returns the new document's address */
  async keepAsNew(aside: Aside): Promise<string | null> {
    try {
      const kept = documentOf(sliceOf(aside), this.session.now?.doc ?? document([]))
      const { id } = await api.keepAsNew(null, kept.toJSON())
      await this.gone(aside)
      return id
    } catch (error) {
      this.session.store.setState({
        trouble: `It could not be kept as a new document: ${(error as Error).message}. It is still here.`,
      })
      return null
    }
  }

  async copy(aside: Aside): Promise<void> {
    try {
      await navigator.clipboard.writeText(aside.text)
      this.session.store.setState({ trouble: "Copied." })
    } catch {
      this.session.store.setState({
        trouble: "The browser did not let Biblon copy. Select the text and copy it with the keyboard.",
      })
    }
  }

  async drop(aside: Aside): Promise<void> {
    await this.gone(aside)
    this.onDropped(aside)
  }

  async bringBack(aside: Aside): Promise<void> {
    this.onDropped(null)
    await keepAside(aside)
    this.session.store.setState((state) => ({ aside: [...state.aside, aside] }))
  }

  private async gone({ id }: Aside): Promise<void> {
    await dropAside(id)
    this.session.store.setState((state) => ({ aside: state.aside.filter((own) => own.id !== id) }))
  }
}

function sliceOf({ slice }: Aside): Slice {
  return Slice.fromJSON(schema, slice)
}
