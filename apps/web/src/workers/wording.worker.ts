/** Looks the wording of passages through away from the page. */
import type { Passage, Remark } from "@biblon/core/checking"
import { addressOf } from "./addresses"
import { answering } from "./asking"
import { WordingChecker } from "./wordingChecker"

export interface WordingQuestion {
  passages: readonly Passage[]
}

// The linter keeps a promise of its own of what could not be fetched, which nobody asks; who asked for remarks is told.
self.addEventListener("unhandledrejection", (event) => event.preventDefault())

const checker = new WordingChecker(addressOf("wording.wasm"))

answering(async ({ passages }: WordingQuestion) => {
  const remarks: Remark[][] = []
  for (const passage of passages) remarks.push(await checker.remarks(passage))
  return remarks
})
