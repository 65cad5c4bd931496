import { keep, readKept } from "../kept"

/** The program's scripts, which scripts/build.mjs tells by their names; where it has not, the page asks for them itself. */
declare global {
  var program: Scripts | undefined
}

interface Scripts {
  /** Those of all pages. */
  now: readonly string[]
  /** What brings the program to life once all others are here. */
  last: string
  /** What a page needs besides, by its file in app/. */
  pages: readonly (readonly [page: string, scripts: readonly string[]])[]
}

let started = false

/**
 * Once; and not before there is a page for it, which scripts that the browser has kept would come ahead of. The page's own scripts
 * are here before the last: a page that the program had to wait for would be shown a third of a second after it came.
 */
export function startProgram(page: string): void {
  if (started) return
  started = true
  const begin = () => insert(page)
  if (document.readyState === "loading") document.addEventListener("DOMContentLoaded", begin)
  else begin()
}

/** All that a page needs, in their order. */
function scriptsOf(page: string): readonly string[] {
  const { program } = globalThis
  const own = program?.pages.find(([name]) => name === page)?.[1] ?? []
  return program ? [...program.now, ...own, program.last] : []
}

/** Under this is kept with which scripts a page has begun on this device. */
const begunAs = (page: string) => `program ${page}`

function insert(page: string): void {
  const scripts = scriptsOf(page)
  for (const address of scripts) {
    const script = document.createElement("script")
    script.src = address
    script.async = false
    if (address === scripts.at(-1)) script.onload = () => keep(begunAs(page), scripts.join())
    document.head.append(script)
  }
}

/**
 * Has the browser fetch the scripts if they are not here from another time. It would also read those that are, for as long as the
 * first sheets take: these are seen a fifth sooner if it does not.
 */
export function fetchProgram(page: string): void {
  const scripts = scriptsOf(page)
  if (readKept(begunAs(page)) === scripts.join()) return
  for (const href of scripts)
    document.head.append(Object.assign(document.createElement("link"), { rel: "preload", as: "script", href }))
}
