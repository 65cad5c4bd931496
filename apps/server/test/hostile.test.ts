/** Whatever is sent to a real server process, by HTTP, as an upgrade or over a socket: it answers others afterwards, and nothing of anybody's is hurt. */
import { connect } from "node:net"
import fc from "fast-check"
import { WebSocket } from "ws"
import { ServerProcess } from "./process"

const server = new ServerProcess()
let id = ""

const runs = (few: number) => ({ numRuns: Number(process.env.BIBLON_RUNS ?? few) })

beforeAll(async () => {
  expect(await server.start()).toBe(true)
  id = ((await (await fetch(`${server.address}/api/documents`, { method: "POST" })).json()) as { id: string }).id
})
afterAll(() => server.remove())

async function healthy(): Promise<void> {
  const response = await fetch(`${server.address}/api/documents/${id}/content`)
  expect([server.alive, response.status]).toEqual([true, 200])
  expect(await response.text()).toContain('"doc"')
}

/** Bytes as they are over a connection; ends when the server ends it, or is silent for a moment after its answer. */
function raw(text: string, reset = false): Promise<string> {
  return new Promise((resolve) => {
    let got = ""
    const socket = connect(server.port, "127.0.0.1", () => {
      socket.write(text)
      if (reset) socket.resetAndDestroy()
    })
    const end = () => {
      socket.destroy()
      resolve(got)
    }
    let waits = 0
    const silent = () => (got !== "" || ++waits > 40 ? end() : socket.setTimeout(150))
    socket.setTimeout(150)
    socket.on("timeout", silent)
    socket.on("data", (data) => (got += String(data)))
    socket.on("close", end)
    socket.on("error", end)
  })
}

const host = () => `127.0.0.1:${server.port}`
const upgrade = (path: string, headers = `Host: ${host()}\r\n`) =>
  `GET ${path} HTTP/1.1\r\n${headers}Upgrade: websocket\r\nConnection: Upgrade\r\nSec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\nSec-WebSocket-Version: 13\r\n\r\n`

test("upgrades to addresses that are none, broken off or not", async () => {
  for (const path of [
    "//",
    "http://[/",
    "/nope",
    "/live/",
    "/live/%ff?since=1",
    `/live/${id}?since=-1`,
    `/live/${id}?since=1e9`,
    `/live/${id}?since=0&stamp=${"x".repeat(9000)}`,
    "/live/constructor?since=0",
    "*",
    `/live/${"a".repeat(20_000)}?since=0`,
  ])
    for (const reset of [false, true]) {
      await raw(upgrade(path), reset)
      await healthy()
    }
})

test("other hosts and other sites' pages are not answered, our names are", async () => {
  expect(await raw("GET /api/documents HTTP/1.1\r\nHost: evil.example\r\n\r\n")).toMatch(/^HTTP\/1.1 403/)
  expect(await raw(upgrade(`/live/${id}?since=0`, "Host: evil.example\r\nOrigin: http://evil.example\r\n"))).toMatch(
    /^HTTP\/1.1 403/,
  )
  expect(await raw(upgrade(`/live/${id}?since=0`, `Host: ${host()}\r\nOrigin: http://evil.example\r\n`))).toMatch(
    /^HTTP\/1.1 403/,
  )
  expect(await raw(upgrade(`/live/${id}?since=0`, `Host: ${host()}\r\nOrigin: null\r\n`))).toMatch(/^HTTP\/1.1 403/)
  for (const name of ["localhost", "127.0.0.1", "LOCALHOST"])
    expect(
      await raw(`GET /api/documents HTTP/1.1\r\nHost: ${name}:${server.port}\r\nConnection: close\r\n\r\n`),
    ).toMatch(/^HTTP\/1.1 200/)
})

test("what is answered says what pages may do", async () => {
  const { headers } = await fetch(`${server.address}/api/documents`)
  const policy = headers.get("content-security-policy") ?? ""
  expect(policy).toContain("frame-ancestors 'none'")
  expect(/script-src[^;]*/.exec(policy)?.[0]).toBe("script-src 'self' 'wasm-unsafe-eval'")
  expect([headers.get("x-content-type-options"), headers.get("referrer-policy")]).toEqual(["nosniff", "no-referrer"])
})

test("any request gets an answer that is no failure of the server", async () => {
  const path = fc
    .constantFrom(
      "/",
      "/api/documents",
      "/api/documents/kept",
      "/api/fonts",
      "/api/assets/x",
      "/%ff.js",
      "/%00",
      "/..%2f..%2fx.js",
      "/d/x/y",
    )
    .chain((own) =>
      fc.oneof(
        fc.constant(own),
        fc.string({ maxLength: 40 }).map((tail) => `${own}/${encodeURIComponent(tail)}`),
      ),
    )
  const body = fc.oneof(
    fc.json(),
    fc.string({ maxLength: 200 }),
    fc.constant(`{"name":${"[".repeat(100_000)}`),
    fc.constant(`{"name":"x","document":{"type":"doc","content":[${'{"type":"body","content":['.repeat(3000)}`),
  )
  await fc.assert(
    fc.asyncProperty(
      path,
      fc.constantFrom("GET", "POST", "PATCH", "PUT", "DELETE", "OPTIONS"),
      body,
      async (address, method, own) => {
        const response = await fetch(server.address + address, {
          method,
          ...(method === "GET" ? {} : { body: own, headers: { "Content-Type": "application/json" } }),
        })
        await response.arrayBuffer()
        expect(response.status).not.toBe(500)
        await healthy()
      },
    ),
    runs(60),
  )
})

/** Sends messages over one socket and waits for an answer or the end of it. */
function over(messages: readonly (string | Buffer)[]): Promise<void> {
  return new Promise((resolve) => {
    const socket = new WebSocket(`ws://${host()}/live/${id}?since=0`)
    const end = () => {
      clearTimeout(timer)
      socket.terminate()
      resolve()
    }
    const timer = setTimeout(end, 400)
    socket.on("open", () => messages.forEach((message) => socket.send(message)))
    let answers = 0
    socket.on("message", () => ++answers > messages.length && end())
    socket.on("close", end)
    socket.on("error", end)
  })
}

test("any message over a socket, random, mutated, too large or too deep", async () => {
  const step = fc.record(
    {
      stepType: fc.constantFrom("replace", "replaceAround", "addMark", "attr", "docAttr", "entries", "constructor"),
      from: fc.oneof(fc.integer({ min: -3, max: 8 }), fc.double()),
      to: fc.oneof(fc.integer({ min: -3, max: 8 }), fc.constant(1e15)),
      pos: fc.integer({ min: -2, max: 9 }),
      attr: fc.constantFrom("styles", "format", "__proto__", "setup"),
      value: fc.anything(),
      mark: fc.record({ type: fc.constantFrom("bold", "size", "constructor"), attrs: fc.anything() }),
      entries: fc.array(
        fc.record({
          path: fc.array(fc.constantFrom("styles", "lists", "__proto__", "constructor", "body")),
          value: fc.anything(),
        }),
      ),
      slice: fc.oneof(
        fc.anything(),
        fc.record({
          content: fc.array(
            fc.record(
              {
                type: fc.constantFrom("text", "paragraph", "doc", "toString"),
                text: fc.string(),
                content: fc.anything(),
              },
              { requiredKeys: [] },
            ),
          ),
          openStart: fc.integer(),
        }),
      ),
    },
    { requiredKeys: ["stepType"] },
  )
  const deep = (levels: number) =>
    `{"type":"steps","version":0,"client":"x","steps":[{"stepType":"replace","from":1,"to":1,"slice":${'{"content":[{"type":"paragraph","content":'.repeat(levels)}[]${"}]}".repeat(levels)}}]}`
  const message = fc.oneof(
    fc
      .record({
        type: fc.constant("steps"),
        version: fc.constantFrom(0, 0, 0, 1, -1, 0.5),
        client: fc.string({ maxLength: 80 }),
        steps: fc.array(step, { maxLength: 5 }),
      })
      .map((own) => JSON.stringify(own)),
    fc.string(),
    fc.json(),
    fc.constantFrom(
      deep(50),
      deep(5000),
      "[".repeat(200_000),
      `{"type":"steps","version":0,"client":"x","steps":[${'{"stepType":"replace"},'.repeat(6000)}{}]}`,
    ),
    fc.uint8Array({ maxLength: 100 }).map((bytes) => Buffer.from(bytes)),
  )
  await over([Buffer.alloc(13_000_000, 0x20)])
  await healthy()
  await fc.assert(
    fc.asyncProperty(fc.array(message, { minLength: 1, maxLength: 4 }), async (messages) => {
      await over(messages)
      await healthy()
    }),
    runs(60),
  )
})

test("a document that cannot be drawn in time keeps nobody waiting", async () => {
  const { id: other } = (await (await fetch(`${server.address}/api/documents`, { method: "POST" })).json()) as {
    id: string
  }
  const kept = await fetch(`${server.address}/api/documents/kept`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({
      name: "Long word",
      document: {
        type: "doc",
        content: [
          { type: "body", content: [{ type: "paragraph", content: [{ type: "text", text: "a".repeat(100_000) }] }] },
        ],
      },
    }),
  })
  expect(kept.status).toBe(201)
  const { id: long } = (await kept.json()) as { id: string }
  const picture = fetch(`${server.address}/api/documents/${long}/picture`)
  expect((await fetch(`${server.address}/api/documents/${other}/content`)).status).toBe(200)
  expect((await (await picture).text()).startsWith("<svg")).toBe(true)
  expect(
    ((await (await fetch(`${server.address}/api/documents/${long}/sheets`)).json()) as { sheets: number }).sheets,
  ).toBeGreaterThan(20)
})

test("a second server on the same database says so and leaves the first alone", async () => {
  const second = new ServerProcess()
  expect(await second.start({ BIBLON_DATABASE: server.database, BIBLON_PORT: "0" })).toBe(false)
  expect(second.errors).toContain("is in use")
  await second.remove()
  await healthy()
})
