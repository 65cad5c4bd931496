import type { Saving } from "../live/connection"

const clock = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit", hour12: false })

/** Whether what was typed is safe, in words. */
export function savingWords(saving: Saving): { words: string; tone: "laurel" | "ochre" | "madder" } {
  switch (saving.kind) {
    case "saved":
      return { words: saving.at === null ? "Saved" : `Saved ${clock.format(saving.at)}`, tone: "laurel" }
    case "saving":
      return { words: "Saving", tone: "laurel" }
    case "offline":
      return {
        words: saving.kept ? "Offline: kept on this device" : "Offline: not kept, stay on this page",
        tone: saving.kept ? "ochre" : "madder",
      }
    case "postponed":
      return {
        words: saving.kept ? "Not saved: tried again" : "Not saved: stay on this page",
        tone: saving.kept ? "ochre" : "madder",
      }
  }
}
