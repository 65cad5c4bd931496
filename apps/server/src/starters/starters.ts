/** The starters that ship: real documents of our own, by what they are for. */
import type { Node } from "prosemirror-model"
import type { ShippedStarter } from "../store/starters"
import { letter, life, receipt } from "./letters"
import { meetingNotes, minutes } from "./meetings"
import { card, certificate, notice, sidewaysSheet } from "./notices"
import { booklet, paper, report } from "./papers"

const shipped: readonly (readonly [id: string, name: string, purpose: string, doc: () => Node])[] = [
  ["letter", "Letter", "To write to somebody", letter],
  ["receipt", "Receipt with sums", "To write to somebody", receipt],
  ["life", "Record of a life", "To write to somebody", life],
  ["minutes", "Minutes with actions", "When people meet", minutes],
  ["meeting", "Notes of a meeting", "When people meet", meetingNotes],
  ["sideways", "Rota, sideways", "When people meet", sidewaysSheet],
  ["report", "Report with a cover", "To be read and kept", report],
  ["paper", "Paper, double spaced", "To be read and kept", paper],
  ["booklet", "Booklet", "To be read and kept", booklet],
  ["notice", "Notice", "To hang up or hand over", notice],
  ["certificate", "Certificate", "To hang up or hand over", certificate],
  ["card", "Card to fold", "To hang up or hand over", card],
]

export function shippedStarters(): ShippedStarter[] {
  return shipped.map(([id, name, purpose, doc]) => ({ id: `starter-${id}`, name, purpose, doc: doc() }))
}
