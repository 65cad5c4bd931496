/** When a part of the screen fails, the text stays within reach. */
import { Component, type ReactNode } from "react"
import { documentAttrs, leavesOf, spokenText } from "@biblon/core/document"
import { endSight } from "../early/begun"
import type { DeskSession } from "./session"
import { Press } from "../ui/bar"

interface State {
  failed: Error | null
}

export class Shelter extends Component<{ session: DeskSession; children: ReactNode }, State> {
  override state: State = { failed: null }

  static getDerivedStateFromError(failed: Error): State {
    return { failed }
  }

  override componentDidCatch(): void {
    endSight()
  }

  private get text(): string {
    const doc = this.props.session.now?.doc
    if (!doc) return ""
    const { styles } = documentAttrs(doc)
    return leavesOf(doc)
      .nodes.map((block) => spokenText(styles, block))
      .join("\n")
  }

  override render(): ReactNode {
    const { failed } = this.state
    if (!failed) return this.props.children
    return (
      <div role="alert" className="flex h-full flex-col gap-3 bg-desk p-6">
        <h1 className="m-0 font-display text-[22px] text-ink">The screen could not be drawn</h1>
        <p className="m-0 font-ui text-[15px] text-ink-soft">{`What you wrote is saved or kept on this device. Reload the page to go on; if that does not help, copy the text from here. (${failed.message})`}</p>
        <Press
          onClick={() => location.reload()}
          className="h-11 self-start rounded-button border-0 bg-murex px-5 font-ui-bold text-[15px] text-on-murex"
        >
          Reload
        </Press>
        <textarea
          readOnly
          aria-label="The text of the document"
          value={this.text}
          className="min-h-0 flex-1 rounded-button border border-line bg-raised p-3 font-ui text-[15px] text-ink"
        />
      </div>
    )
  }
}
