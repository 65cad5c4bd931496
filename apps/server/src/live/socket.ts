import type { IncomingMessage, Server } from "node:http"
import { WebSocketServer, type WebSocket } from "ws"
import { FromApp } from "@biblon/wire"
import type { DocumentStore } from "../store/documents"
import type { Member, Rooms } from "./room"

const largestMessage = 16 * 1024 * 1024
const heartbeat = 20_000

/** Pages of other sites may not talk to this server in the name of the person at the browser. */
export function sameOrigin(request: IncomingMessage): boolean {
  const { origin, host } = request.headers
  if (!origin) return true
  try {
    return new URL(origin).host === host
  } catch {
    return false
  }
}

/** Accepts WebSockets at /live/ID?since=VERSION. */
export function acceptLive(server: Server, rooms: Rooms, store: DocumentStore): WebSocketServer {
  const sockets = new WebSocketServer({ noServer: true, maxPayload: largestMessage })
  server.on("upgrade", (request, socket, head) => {
    const url = new URL(request.url ?? "/", "http://localhost")
    const id = /^\/live\/([A-Za-z0-9_-]+)$/.exec(url.pathname)?.[1]
    const since = Number(url.searchParams.get("since"))
    if (!id || !Number.isInteger(since) || since < 0 || !sameOrigin(request)) {
      socket.end("HTTP/1.1 400 Bad Request\r\n\r\n")
      return
    }
    sockets.handleUpgrade(request, socket, head, (ws) => serve(ws, id, since, rooms, store))
  })
  const beat = setInterval(() => {
    for (const ws of sockets.clients) {
      if (silent.has(ws)) ws.terminate()
      else {
        silent.add(ws)
        ws.ping()
      }
    }
  }, heartbeat)
  beat.unref()
  return sockets
}

/** Sockets that have not answered since the last heartbeat. */
const silent = new WeakSet<WebSocket>()

function serve(ws: WebSocket, id: string, since: number, rooms: Rooms, store: DocumentStore): void {
  const member: Member = { send: (message) => ws.send(JSON.stringify(message)) }
  const room = rooms.enter(id)
  if (!room) {
    member.send({ type: "refused", reason: "There is no such document." })
    ws.close()
    return
  }
  ws.on("pong", () => silent.delete(ws))
  ws.on("message", (data) => {
    silent.delete(ws)
    let value: unknown
    try {
      value = JSON.parse(String(data))
    } catch {
      value = null
    }
    const message = FromApp.safeParse(value)
    if (message.success) room.receive(member, message.data)
    else member.send({ type: "refused", reason: "The server did not understand a message. Reload the page; what was typed is kept on this device." })
  })
  ws.on("close", () => rooms.leave(room, member))
  ws.on("error", () => ws.terminate())
  room.join(member, since, store.entry(id)?.name ?? null)
}
