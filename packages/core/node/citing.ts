/** Citations in Node: the program and the files of citing, read when a document cites. */
import { existsSync, readFileSync } from "node:fs"
import { createRequire } from "node:module"
import { join } from "node:path"
import { citesSources, hasCiter, setCiter } from "../src/document"
import { createCiter, type Citeproc } from "../src/sources"
import { projectRoot } from "./root"
import type { Node } from "prosemirror-model"

function fileOf(folder: "styles" | "locales", name: string): string | undefined {
  if (!/^[\w-]+$/.test(name)) return undefined
  const path = join(projectRoot(), "packages/core/citing", folder, `${name}.${folder === "styles" ? "csl" : "xml"}`)
  return existsSync(path) ? readFileSync(path, "utf8") : undefined
}

/** Sees to it that the citations of a document can be shown. */
export function prepareCiting(doc: Node): void {
  if (hasCiter() || !citesSources(doc)) return
  const program = createRequire(join(projectRoot(), "package.json"))("citeproc") as Citeproc
  setCiter(createCiter(program, { style: (id) => fileOf("styles", id), locale: (id) => fileOf("locales", id) }))
}
