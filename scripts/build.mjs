/** Builds the application into apps/web/dist: fonts, workers, the Expo export, and compressed copies. Does nothing if that is newer than its sources. */
import {
  copyFileSync,
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs"
import { createHash } from "node:crypto"
import { createRequire } from "node:module"
import { basename, dirname, join } from "node:path"
import { brotliCompressSync, constants } from "node:zlib"
import { programNamed } from "./programs.mjs"
import { root, run } from "./setup.mjs"

const require = createRequire(join(root, "package.json"))
const web = join(root, "apps/web")
const dist = join(web, "dist")

function files(folder) {
  return readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath ?? entry.path, entry.name))
}

function newest(paths) {
  let time = 0
  for (const path of paths)
    for (const file of statSync(path).isDirectory() ? files(path) : [path])
      time = Math.max(time, statSync(file).mtimeMs)
  return time
}

const sources = [
  "apps/web/app",
  "apps/web/src",
  "packages/core/src",
  "packages/core/citing",
  "packages/wire/src",
  "package-lock.json",
  "scripts/build.mjs",
  "scripts/symbols.ts",
  ...[
    "public/index.html",
    "public/sign.svg",
    "app.json",
    "babel.config.js",
    "metro.config.js",
    "tailwind.config.js",
    "global.css",
  ].map((f) => `apps/web/${f}`),
]
  .map((path) => join(root, path))
  .filter(existsSync)

async function copyFonts() {
  const { build } = await import("esbuild")
  const out = join(root, ".cache/catalogue.mjs")
  await build({
    entryPoints: [join(root, "packages/core/src/layout/fonts/catalogue.ts")],
    outfile: out,
    bundle: true,
    format: "esm",
    logLevel: "error",
  })
  const { shippedFaces } = await import(out)
  const folder = join(web, "public/fonts")
  mkdirSync(folder, { recursive: true })
  for (const { id, path } of shippedFaces()) {
    const target = join(folder, `${id}.ttf`)
    if (!existsSync(target)) copyFileSync(join(root, "node_modules/@expo-google-fonts", path), target)
  }
}

function copyPatterns() {
  const from = join(dirname(require.resolve("hyphenopoly/package.json")), "patterns")
  const folder = join(web, "public/hyphenation")
  mkdirSync(folder, { recursive: true })
  for (const name of readdirSync(from)) copyFileSync(join(from, name), join(folder, name))
}

/** Dictionaries by our names for them. */
function copyDictionaries() {
  const folder = join(web, "public/dictionaries")
  mkdirSync(folder, { recursive: true })
  for (const name of ["en", "en-gb", "fr", "es", "pt", "nl", "pl", "sv", "el", "ru"])
    for (const part of ["aff", "dic"])
      copyFileSync(join(root, `node_modules/dictionary-${name}/index.${part}`), join(folder, `${name}.${part}`))
}

/** Styles of citation, and the words of languages for them. */
function copyCiting() {
  cpSync(join(root, "packages/core/citing"), join(web, "public/citing"), {
    recursive: true,
    filter: (path) => !path.endsWith(".md"),
  })
}

const workers = join(web, "public/workers")
/** WebAssembly by our names for it. */
const modules = {
  "harfbuzz.wasm": "harfbuzzjs/dist/harfbuzz.wasm",
  "harfbuzz-subset.wasm": "harfbuzzjs/dist/harfbuzz-subset.wasm",
  "resvg.wasm": "@resvg/resvg-wasm/index_bg.wasm",
  "wording.wasm": "harper.js/dist/harper_wasm_bg.wasm",
}
const tell = (addresses) => `globalThis.addresses=${JSON.stringify(addresses)};`

const workerNames = ["layout", "file", "find", "paste", "picture", "spelling", "wording"].map(
  (name) => `${name}.worker.ts`,
)
/** What workers begin or fetch when they need it. */
const laterNames = ["citing.ts", "drawing.worker.ts"]

/** How the workers are bundled. @param {{ addresses?: Record<string, string>, names?: string[] }} ways names that tell their content, if they have such; and which of them */
export function workerBuild({ addresses, names = [...laterNames, ...workerNames] } = {}) {
  return {
    entryPoints: names.map((name) => join(web, "src/workers", name)),
    outdir: workers,
    entryNames: addresses ? "[name]-[hash]" : "[name]",
    ...(addresses ? { banner: { js: tell(addresses) } } : {}),
    bundle: true,
    minify: addresses !== undefined,
    metafile: true,
    format: "esm",
    target: "es2022",
    platform: "browser",
    // The speller asks for them where it runs without a page, which it does not here.
    external: ["fs", "path", "crypto"],
    alias: {
      // Lists of sources are read from what people bring, never from an address.
      "sync-fetch": join(web, "src/workers/noFetch.ts"),
    },
    logLevel: "error",
  }
}

/** How the script is bundled that runs before the program is here. @param told what it is told first */
export function earlyBuild(told = "") {
  return {
    entryPoints: [join(web, "src/early/early.ts")],
    outfile: join(web, "public/early.js"),
    banner: { js: told },
    bundle: true,
    minify: told !== "",
    format: "iife",
    target: "es2022",
    platform: "browser",
    // It shows the sheets in a tree of its own, with their style sheet.
    loader: { ".css": "text" },
    logLevel: "error",
  }
}

/** @returns the address of each by its plain name */
async function buildWorkers() {
  const { build } = await import("esbuild")
  rmSync(workers, { recursive: true, force: true })
  mkdirSync(workers, { recursive: true })
  const addresses = {}
  for (const [name, path] of Object.entries(modules)) {
    const bytes = readFileSync(join(root, "node_modules", path))
    const named = name.replace(".wasm", `-${createHash("sha256").update(bytes).digest("hex").slice(0, 8)}.wasm`)
    writeFileSync(join(workers, named), bytes)
    addresses[name] = `/workers/${named}`
  }
  // Workers are told the addresses of what was made before them.
  for (const names of [laterNames, workerNames]) {
    const { metafile } = await build(workerBuild({ addresses, names }))
    for (const [path, { entryPoint }] of Object.entries(metafile.outputs))
      addresses[basename(entryPoint).replace(/\.ts$/, ".js")] = `/workers/${basename(path)}`
  }
  return addresses
}

function makeSymbols() {
  const symbols = join(web, "public/data/symbols.json")
  if (!existsSync(symbols) || statSync(symbols).mtimeMs < newest([join(root, "scripts/symbols.ts")]))
    run(process.execPath, ["--import", "tsx", "scripts/symbols.ts"], { stdio: ["ignore", 2, 2] })
}

/** Modules under their plain names, beside workers that are not built for good. */
export function copyModules() {
  mkdirSync(workers, { recursive: true })
  for (const [name, path] of Object.entries(modules))
    copyFileSync(join(root, "node_modules", path), join(workers, name))
}

/** What the page needs beside its program and its workers. */
export async function prepareWeb() {
  mkdirSync(join(root, ".cache"), { recursive: true })
  await copyFonts()
  copyPatterns()
  copyDictionaries()
  copyCiting()
  makeSymbols()
}

function compress() {
  const cache = join(root, ".cache/brotli")
  mkdirSync(cache, { recursive: true })
  for (const file of files(dist).filter((f) => /\.(html|js|css|ttf|wasm|aff|dic|csl|xml)$/.test(f))) {
    const stays = /\.(ttf|aff|dic|wasm)$/.test(file)
    const kept = join(cache, file.split(/[\\/]/).pop() + ".br")
    if (stays && existsSync(kept)) {
      copyFileSync(kept, file + ".br")
      continue
    }
    const bytes = brotliCompressSync(readFileSync(file), {
      params: { [constants.BROTLI_PARAM_QUALITY]: !stays ? 10 : statSync(file).size > 2e6 ? 5 : 9 },
    })
    writeFileSync(file + ".br", bytes)
    if (stays) writeFileSync(kept, bytes)
  }
}

/** Takes the program's scripts out of the page and puts in their place the script that fetches and starts them, so that it is here with the page. */
async function holdProgram(addresses) {
  const { build } = await import("esbuild")
  const page = join(dist, "index.html")
  const now = []
  const html = readFileSync(page, "utf8").replace(/<script src="([^"]+)" defer><\/script>/g, (_, address) => {
    now.push(address)
    return ""
  })
  const last = now.pop()
  if (last === undefined) throw new Error("The page names no script that starts the program")
  const scripts = "/_expo/static/js/web/"
  const named = readdirSync(join(dist, scripts)).filter((name) => name.endsWith(".js"))
  const scriptOf = (route) => {
    const name = named.find((n) => n.startsWith(`${route}-`))
    if (name === undefined) throw new Error(`The page ${route} has no script of its own`)
    return scripts + name
  }
  const pages = ["index", "starters", "outbox", "[id]"].map((route) => [route, ["_layout", route].map(scriptOf)])
  const told = `${tell(addresses)}globalThis.program=${JSON.stringify({ now, last, pages })};`
  const { outputFiles } = await build({ ...earlyBuild(told), write: false })
  const script = outputFiles[0].text.trim()
  const place = '<script src="/early.js"></script>'
  if (!html.includes(place) || /<(?:\/script|!--)/i.test(script)) throw new Error("early.js cannot stand in the page")
  writeFileSync(
    page,
    html.replace(place, () => `<script>${script}</script>`),
  )
}

export async function buildApp() {
  const mark = join(dist, ".built")
  if (existsSync(mark) && statSync(mark).mtimeMs > newest(sources)) return
  console.log("Building the application (a few minutes the first time)…")
  rmSync(dist, { recursive: true, force: true })
  await prepareWeb()
  const addresses = await buildWorkers()
  const status = run("npx", ["expo", "export", "--platform", "web"], {
    cwd: web,
    stdio: ["ignore", "ignore", "inherit"],
    env: { ...process.env, EXPO_NO_TELEMETRY: "1", CI: "1" },
  })
  if (status !== 0) throw new Error("The application could not be built")
  await holdProgram(addresses)
  compress()
  for (const name of ["biblon", "server", "pictures", "drawings"]) programNamed(name)
  writeFileSync(mark, "")
}

if (process.argv[1]?.endsWith("build.mjs")) await buildApp()
