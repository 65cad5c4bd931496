import { readFileSync } from "node:fs"
import type { AddressInfo } from "node:net"
import { WebSocket } from "ws"
import { document, p } from "@biblon/core/document"
import { faceFile } from "@biblon/core/node"
import { createApp, type App } from "../src/app"
import { fillShelf } from "../src/demo/fill"

let app: App
let address: string
beforeAll(async () => {
  app = createApp({ database: ":memory:" })
  fillShelf(app.store, app.assets, Date.now())
  await new Promise<void>((resolve) => app.server.listen(0, "127.0.0.1", resolve))
  address = `http://127.0.0.1:${(app.server.address() as AddressInfo).port}`
})
afterAll(() => app.close())

const json = async (path: string, init?: RequestInit) => {
  const response = await fetch(`${address}/api${path}`, init)
  return { status: response.status, body: (await response.json()) as any }
}
const patch = (id: string, body: unknown) =>
  json(`/documents/${id}`, {
    method: "PATCH",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(body),
  })

test("the shelf lists the demo documents, the newest first, and is filled once", async () => {
  fillShelf(app.store, app.assets)
  const { body } = await json("/documents")
  expect(body.map((d: { name: string }) => d.name)).toEqual([
    "Letter to the harbour master",
    "Tides and timetables",
    "Minutes, 3 November",
    "Notice for the slipway",
    "Risk report",
    "Record of a ferry hand",
    "The first week",
    "Handbook for ferry hands",
    "What passengers ask, draft",
  ])
})

test("a document is made, named, and unnamed again; a name too long is refused in words", async () => {
  const { status, body } = await json("/documents", { method: "POST" })
  expect([status, body.name, body.opening]).toEqual([201, null, ""])
  expect((await patch(body.id, { name: "  Notice " })).body.name).toBe("Notice")
  expect((await patch(body.id, { name: "" })).body.name).toBeNull()
  const long = await patch(body.id, { name: "x".repeat(300) })
  expect([long.status, long.body.message]).toEqual([400, expect.stringContaining("200 characters")])
  expect((await patch("nothing", { name: "x" })).status).toBe(404)
})

test("the paper has at least twelve sheets and a picture of the first", async () => {
  const { body } = await json("/documents")
  const { id } = body.find((d: { name: string | null }) => d.name === "Tides and timetables")
  expect((await json(`/documents/${id}/sheets`)).body.sheets).toBeGreaterThanOrEqual(12)
  const picture = await fetch(`${address}/api/documents/${id}/picture`)
  expect(picture.headers.get("content-type")).toContain("image/svg+xml")
  expect(await picture.text()).toContain("<use ")
})

test("content carries its version; what is not there says so", async () => {
  const { body } = await json("/documents")
  const content = await fetch(`${address}/api/documents/${body[0].id}/content`)
  expect(content.headers.get("Biblon-Version")).toBe("0")
  expect((await json(`/documents/${body[0].id}/content?version=7`)).status).toBe(404)
  for (const path of [
    "/documents/none",
    "/documents/none/content",
    "/documents/none/picture",
    "/documents/none/sheets",
    "/other",
  ])
    expect((await json(path)).status).toBe(404)
})

test("a font file is taken, kept by what is in it, and given out again; others are refused in words", async () => {
  const font = readFileSync(faceFile("comic-neue/700Bold_Italic/ComicNeue_700Bold_Italic.ttf"))
  const send = (bytes: Uint8Array<ArrayBuffer>) =>
    json("/fonts", { method: "POST", headers: { "Content-Type": "application/octet-stream" }, body: bytes })
  const first = await send(new Uint8Array(font))
  expect(first).toMatchObject({ status: 201, body: { family: "Comic Neue", variant: "boldItalic" } })
  expect((await send(new Uint8Array(font))).body.asset).toBe(first.body.asset)
  const back = await fetch(`${address}/api/assets/${first.body.asset}`)
  expect(back.headers.get("content-type")).toBe("font/ttf")
  expect(Buffer.from(await back.arrayBuffer()).equals(font)).toBe(true)
  expect((await json("/assets/0")).status).toBe(404)
  for (const [bytes, reason] of [
    ["Dear Captain", "not a font file"],
    ["wOFF and more than that", "packed for web pages"],
    ["ttcf and more than that", "holds several fonts"],
    ["\u0000\u0001\u0000\u0000\u0000\u0009 broken", "damaged"],
  ] as const)
    expect(await send(new Uint8Array(Buffer.from(bytes, "latin1")))).toMatchObject({
      status: 422,
      body: { message: expect.stringContaining(reason) },
    })
  expect(await send(new Uint8Array(13 * 1024 * 1024))).toMatchObject({
    status: 413,
    body: { message: expect.stringContaining("up to 12 MB") },
  })
})

test("any file is taken to be enclosed, given out again as a file and never as a page; too much or nothing is refused in words", async () => {
  const enclose = (body: Uint8Array<ArrayBuffer>) =>
    json("/enclosures", { method: "POST", headers: { "Content-Type": "application/octet-stream" }, body })
  const page = new TextEncoder().encode("<script>alert(1)</script>")
  const { status, body } = await enclose(page)
  expect(status).toBe(201)
  const answer = await fetch(`${address}/api/assets/${body.asset}`)
  expect(answer.headers.get("content-disposition")).toBe("attachment")
  expect(answer.headers.get("content-type")).toBe("application/octet-stream")
  expect(answer.headers.get("x-content-type-options")).toBe("nosniff")
  expect(new Uint8Array(await answer.arrayBuffer())).toEqual(page)
  expect(await enclose(new Uint8Array())).toMatchObject({
    status: 422,
    body: { message: "There is nothing in this file." },
  })
  expect(await enclose(new Uint8Array(25 * 1048576 + 2))).toMatchObject({
    status: 413,
    body: { message: "Files of up to 25 MB are enclosed." },
  })
})

test("pages of other sites are not answered, over HTTP or WebSocket", async () => {
  expect((await json("/documents", { headers: { Origin: "http://elsewhere.example" } })).status).toBe(403)
  const socket = new WebSocket(`${address.replace("http", "ws")}/live/whatever1?since=0`, {
    origin: "http://elsewhere.example",
  })
  expect(await new Promise((resolve) => socket.on("error", resolve))).toBeInstanceOf(Error)
})

test("a message that makes no sense is answered, not obeyed", async () => {
  const { body } = await json("/documents")
  const socket = new WebSocket(`${address.replace("http", "ws")}/live/${body[0].id}?since=0`)
  const got: any[] = []
  await new Promise<void>((resolve) => {
    socket.on("open", () => socket.send("{]"))
    socket.on("message", (data) => {
      got.push(JSON.parse(String(data)))
      if (got.length === 2) resolve()
    })
  })
  expect(got.map((m) => m.type)).toEqual(["ready", "refused"])
  socket.terminate()
})

test("documents are found by name and by what is written in them, as it is now, with the sentence around it", async () => {
  const found = async (words: string) =>
    (
      (await json(`/search?words=${encodeURIComponent(words)}`)).body as {
        entry: { name: string }
        sentence: string | null
      }[]
    ).map(({ entry, sentence }) => [entry.name, sentence])
  const { body } = await json("/documents/kept", {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({
      name: "Éclusier",
      document: document([p("The weir was mended at Whitsun.")]).toJSON() as unknown,
    }),
  })
  expect(await found("mended whit")).toEqual([["Éclusier", "The weir was \u0001mended\u0002 at \u0001Whitsun\u0002."]])
  expect(await found("ÉCLUS")).toEqual([["Éclusier", null]])
  expect(await found('" OR 1 * ( NEAR')).toEqual([])
  expect(await found("%")).toEqual([])
  await changeShelf({ kind: "document", id: body.id, binned: true })
  expect(await found("mended whit")).toEqual([])
  expect((await json("/shelf")).body.binned.map((own: { id: string }) => own.id)).toEqual([body.id])
})

/** Changes the shelf as the page does. */
function changeShelf(...changes: object[]) {
  return json("/shelf/changes", {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ changes }),
  })
}

test("what is in the bin can be had again until it is removed; what is on the shelf cannot be removed", async () => {
  const { body: made } = await json("/documents", { method: "POST" })
  const { id } = made
  const listed = () => app.store.list().some((own) => own.id === id)
  expect((await changeShelf({ kind: "document", id, removed: true })).body.message).toContain("not in the bin")
  await changeShelf({ kind: "document", id, binned: true })
  expect(listed()).toBe(false)
  await changeShelf({ kind: "document", id, binned: false })
  expect(listed()).toBe(true)
  await changeShelf({ kind: "document", id, binned: true })
  const { body } = await changeShelf({ kind: "document", id, removed: true })
  expect((await fetch(`${address}/api/documents/${id}/copies`, { method: "POST" })).status).toBe(404)
  await changeShelf(...body.back)
  expect(app.store.binned().map((own) => own.id)).toContain(id)
  expect((await changeShelf({ kind: "document", id: "no such one", binned: true })).status).toBe(400)
})
