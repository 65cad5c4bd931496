import { createHash } from "node:crypto"
import { mkdirSync, mkdtempSync, writeFileSync } from "node:fs"
import type { AddressInfo } from "node:net"
import { tmpdir } from "node:os"
import { join } from "node:path"
import { createApp, type App } from "../src/app"
import { openDatabase } from "../src/store/database"

const web = mkdtempSync(join(tmpdir(), "biblon-web-"))
const outside = join(web, "..", "secret.js")
const own = 'const a = "ä"\n'
let app: App
let address: string

beforeAll(async () => {
  mkdirSync(join(web, "fonts"))
  mkdirSync(join(web, "_expo"))
  writeFileSync(join(web, "index.html"), `<title>Biblon</title><script>${own}</script>`)
  writeFileSync(join(web, "index.html.br"), "compressed page")
  writeFileSync(join(web, "fonts/Tinos-regular.ttf"), "plain")
  writeFileSync(join(web, "fonts/Tinos-regular.ttf.br"), "compressed")
  writeFileSync(join(web, "_expo/entry.js"), "1")
  writeFileSync(outside, "secret")
  app = createApp({ database: ":memory:", web })
  await new Promise<void>((resolve) => app.server.listen(0, "127.0.0.1", resolve))
  address = `http://127.0.0.1:${(app.server.address() as AddressInfo).port}`
})
afterAll(() => app.close())

const get = (path: string, encoding = "identity") => fetch(address + path, { headers: { "Accept-Encoding": encoding } })

test("every route of the application is its page; files that are missing are not", async () => {
  for (const path of ["/", "/d/abcdefgh", "/anything"])
    expect(await (await get(path)).text()).toContain("<title>Biblon")
  expect((await get("/_expo/missing.js")).status).toBe(404)
})

test("compressed copies go to those who take them, and files with a fingerprint may be kept", async () => {
  const plain = await get("/fonts/Tinos-regular.ttf")
  expect([await plain.text(), plain.headers.get("cache-control")]).toEqual([
    "plain",
    expect.stringContaining("immutable"),
  ])
  const compressed = await get("/fonts/Tinos-regular.ttf", "br")
  expect([compressed.headers.get("content-encoding"), compressed.headers.get("content-type")]).toEqual([
    "br",
    "font/ttf",
  ])
  expect((await get("/")).headers.get("cache-control")).toBe("no-cache")
})

test("of scripts in a page's text the one that stands in ours runs", async () => {
  const policyOf = (response: Response) =>
    /script-src ([^;]*)/.exec(response.headers.get("content-security-policy") ?? "")?.[1]
  const allowed = `'self' 'sha256-${createHash("sha256").update(own).digest("base64")}' 'wasm-unsafe-eval'`
  const packed = await get("/d/abcdefgh", "br")
  expect([policyOf(packed), packed.headers.get("content-encoding")]).toEqual([allowed, "br"])
  for (const path of ["/", "/anything"]) expect(policyOf(await get(path))).toBe(allowed)
  for (const path of ["/_expo/entry.js", "/index.html", "/api/documents"])
    expect(policyOf(await get(path))).toBe("'self' 'wasm-unsafe-eval'")
})

test("nothing outside the folder is served", async () => {
  for (const path of ["/../secret.js", "/%2e%2e/secret.js", "/fonts/..%2f..%2fsecret.js"])
    expect(await (await get(path)).text()).not.toBe("secret")
})

test("bodies that are no JSON get an answer in words", async () => {
  const response = await fetch(`${address}/api/documents/x`, {
    method: "PATCH",
    headers: { "Content-Type": "application/json" },
    body: "{",
  })
  expect(response.status).toBe(400)
  expect(((await response.json()) as { message: string }).message).toBeTruthy()
})

test("a database of a newer version is refused rather than spoilt", () => {
  const path = join(web, "newer.sqlite")
  const db = openDatabase(path)
  db.pragma("user_version = 99")
  db.close()
  expect(() => openDatabase(path)).toThrow("newer Biblon")
})
