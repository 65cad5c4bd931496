/** A library that is asked for works, simulated: it answers, or on purpose slowly or not at all. */
import type { LibraryMood, Work } from "@biblon/wire"
import { works } from "./works"

/** Milliseconds that it takes when it is slow. */
const slow = 4000
/** So many works are told of. */
const most = 20

const plain = (text: string) => text.toLowerCase().normalize("NFD").replace(/\p{M}/gu, "")
const texts = works.map((work) => ({
  work,
  head: plain(`${work.title} ${work.authors.map(({ family, given }) => `${given} ${family}`).join(" ")} ${work.year}`),
  inside: work.passages.map(({ words }) => plain(words)),
}))

/** Works in whose titles, authors, years or passages all words stand, the nearest first; with the passages in which they do. */
export function findWorks(asked: string): Work[] {
  const words =
    plain(asked)
      .match(/[\p{L}\p{N}]+/gu)
      ?.slice(0, 12) ?? []
  if (words.length === 0) return []
  return texts
    .flatMap(({ work, head, inside }) => {
      if (!words.every((word) => head.includes(word) || inside.some((own) => own.includes(word)))) return []
      const inHead = words.filter((word) => head.includes(word)).length
      const passages = work.passages.filter((_own, i) => words.some((word) => inside[i]?.includes(word)))
      return [
        {
          work: { ...work, passages: passages.length > 0 ? passages : work.passages },
          rank: inHead * 2 + passages.length,
        },
      ]
    })
    .sort((a, b) => b.rank - a.rank || a.work.title.localeCompare(b.work.title))
    .slice(0, most)
    .map(({ work }) => work)
}

export class Library {
  mood: LibraryMood = "well"

  /** @throws Error where it does not answer */
  async ask(words: string): Promise<Work[]> {
    if (this.mood === "slow") await new Promise((resolve) => setTimeout(resolve, slow).unref())
    if (this.mood === "silent") throw new Error("The library does not answer")
    return findWorks(words)
  }
}
