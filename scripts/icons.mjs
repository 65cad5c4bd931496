/** Writes the drawings of the icons in use, apps/web/src/ui/drawings.json, from the package that holds them all: to be run when ui/icons.ts names a new one. */
import { readFileSync, writeFileSync } from "node:fs"
import { join } from "node:path"
import { format } from "prettier"
import { root } from "./setup.mjs"

const assets = join(root, "node_modules/@phosphor-icons/core/assets/duotone")
export const target = join(root, "apps/web/src/ui/drawings.json")

/** Their second tone would be but a box behind them. */
const strokes = new Set(["dots-three", "minus", "plus", "x"])

/** @returns path data by the name of the icon: of its lines, and of its second tone, which drawings of mere strokes lack */
export function drawings() {
  const source = readFileSync(join(root, "apps/web/src/ui/icons.ts"), "utf8")
  const names = [...source.matchAll(/= drawings(?:\.(\w+)|\["([\w-]+)"\])/g)].map((found) => found[1] ?? found[2])
  return Object.fromEntries(
    names.sort().map((name) => {
      const paths = [
        ...readFileSync(join(assets, `${name}-duotone.svg`), "utf8").matchAll(/<path d="([^"]+)"( opacity)?/g),
      ]
      const of = (tone) =>
        paths
          .filter((path) => (path[2] !== undefined) === tone)
          .map((path) => path[1])
          .join("")
      return [name, of(true) === "" || strokes.has(name) ? [of(false)] : [of(false), of(true)]]
    }),
  )
}

export const written = () => format(JSON.stringify(drawings()), { parser: "json", printWidth: 120 })

if (process.argv[1]?.endsWith("icons.mjs")) writeFileSync(target, await written())
