/** Finding a tool by its name or by what one would call it. */
import type { Tool } from "./registry"

/** How well a tool answers to what was typed: 0 not at all, more is better. */
export function answers(tool: Pick<Tool, "name" | "words">, typed: string): number {
  const wanted = typed.toLowerCase().split(/\s+/).filter(Boolean)
  const name = tool.name.toLowerCase()
  const words = tool.words.toLowerCase().split(/\s+/)
  let score = 0
  for (const part of wanted) {
    if (name.startsWith(part)) score += 4
    else if (name.split(/\s+/).some((word) => word.startsWith(part))) score += 3
    else if (words.some((word) => word.startsWith(part))) score += 2
    else if (name.includes(part)) score += 1
    else return 0
  }
  return score
}

/** The tools that answer, the best first; all of them where nothing was typed. */
export function findTools<T extends Pick<Tool, "name" | "words">>(tools: readonly T[], typed: string): T[] {
  if (typed.trim() === "") return [...tools]
  return tools
    .map((tool) => ({ tool, score: answers(tool, typed) }))
    .filter(({ score }) => score > 0)
    .sort((a, b) => b.score - a.score)
    .map(({ tool }) => tool)
}
