/** A draft in which everything was made by hand, to be tidied. */
import type { Node } from "prosemirror-model"
import { letters, p, paragraph } from "@biblon/core/document"

export const messy = (): Node[] => [
  paragraph("title", ["What passengers ask"]),
  p(letters("Before you come", { bold: true, size: 14 })),
  p("\tThe ferry is hauled  by hand , and and nobody is in haste. She leaves when the board says so."),
  p(),
  p("Take with you:"),
  p("- a coat, in any weather"),
  p("- small change for the the box"),
  p("- patience"),
  p(),
  p(),
  p(letters("On the water", { bold: true, size: 14 })),
  p("    Stand clear of the chain. Dogs travel free      and so do children."),
  p("1. Wait for the flag."),
  p("2. Step on one at a time."),
  p("3. Haul if you like.   "),
  p("More stands in ", letters("the rules", { link: "#rules" }), "."),
]
