/** Pictures that the server does not have yet are kept here, shown from here, and sent when it can be reached. */
import "fake-indexeddb/auto"
import "./browser"
import { assetName } from "@biblon/core/formats/assets"
import { api } from "../src/api"
import { device } from "../src/live/device"
import { addFile, keptAddress, keptBytes, keptFile, sendKept } from "../src/live/files"

const unreachable = () => Promise.reject(new TypeError("Failed to fetch"))
const refused = () => Promise.reject(new Error("This picture is too large."))
const picture = (text: string) => ({ file: new Blob([text]), asset: assetName(new TextEncoder().encode(text)) })
const adding = jest.spyOn(api, "addPicture")
const takes = async (file: Blob) => ({ asset: assetName(new Uint8Array(await file.arrayBuffer())) }) as never

beforeEach(async () => {
  jest.useFakeTimers({ doNotFake: ["setImmediate", "queueMicrotask", "nextTick"] })
  adding.mockReset()
  await (await device()).clear("files")
})
afterEach(() => jest.useRealTimers())

test("what the server takes is not kept here", async () => {
  const { file, asset } = picture("a ferry")
  adding.mockImplementation(takes)
  expect(await addFile(file)).toBe(asset)
  expect(await keptFile(asset)).toBeNull()
  expect(await keptAddress(asset)).toBeNull()
})

test("what the server refuses is said and not kept", async () => {
  const { file, asset } = picture("a wide ferry")
  adding.mockImplementation(refused)
  await expect(addFile(file)).rejects.toThrow("This picture is too large.")
  expect(await keptFile(asset)).toBeNull()
})

test("without a server a picture is known by the same name, is to be had here, and goes when its time comes", async () => {
  const { file, asset } = picture("a chain")
  adding.mockImplementation(unreachable)
  expect(await keptAddress(asset)).toBeNull()
  expect(await addFile(file)).toBe(asset)
  expect(await keptAddress(asset)).toMatch(/^blob:/)
  expect(await keptAddress(asset)).toBe(await keptAddress(asset))
  const [[name, bytes] = []] = await keptBytes(new Set([asset, picture("unknown").asset]))
  expect([name, new TextDecoder().decode(bytes)]).toEqual([asset, "a chain"])
  await jest.advanceTimersByTimeAsync(10_000)
  expect(await keptFile(asset)).not.toBeNull()
  adding.mockImplementation(takes)
  await jest.advanceTimersByTimeAsync(10_000)
  await until(async () => (await keptFile(asset)) === null)
})

test("one that is refused later stays here and holds up no other", async () => {
  const [first, second] = [picture("refused"), picture("taken")]
  adding.mockImplementation(unreachable)
  await addFile(first.file)
  await addFile(second.file)
  adding.mockImplementation(async (file) => ((await file.text()) === "refused" ? refused() : takes(file)))
  await sendKept()
  expect(await keptFile(first.asset)).not.toBeNull()
  expect(await keptFile(second.asset)).toBeNull()
})

test("where the device keeps nothing, the reason is that the server cannot be reached", async () => {
  const { file, asset } = picture("nowhere")
  adding.mockImplementation(unreachable)
  const denied = (why: string) => () => {
    throw new DOMException("denied", why)
  }
  const putting = jest.spyOn(IDBObjectStore.prototype, "put").mockImplementation(denied("QuotaExceededError"))
  await expect(addFile(file)).rejects.toThrow("Failed to fetch")
  putting.mockRestore()
  const reading = jest.spyOn(IDBObjectStore.prototype, "get").mockImplementation(denied("InvalidStateError"))
  expect(await keptFile(asset)).toBeNull()
  expect(await keptBytes([asset])).toEqual([])
  reading.mockRestore()
})

async function until(holds: () => Promise<boolean>): Promise<void> {
  for (let turns = 0; turns < 200; turns++) {
    if (await holds()) return
    await jest.advanceTimersByTimeAsync(1)
  }
  throw new Error("It did not come to pass.")
}

test("a file that is to be enclosed goes to the server as what it is, now or later", async () => {
  const enclosing = jest.spyOn(api, "addEnclosure")
  const { file, asset } = picture("a timetable")
  enclosing.mockImplementation(unreachable)
  expect(await addFile(file, "enclosure")).toBe(asset)
  enclosing.mockImplementation(takes)
  await sendKept()
  expect(await keptFile(asset)).toBeNull()
  expect(enclosing).toHaveBeenCalledTimes(2)
  expect(adding).not.toHaveBeenCalled()
})
