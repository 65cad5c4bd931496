import type { IncomingMessage, Server } from "node:http"
import type { Duplex } from "node:stream"
import { WebSocketServer, type WebSocket } from "ws"
import { FromApp, largestMessage, Person, type FromServer } from "@biblon/wire"
import { isWelcome, type Hosts } from "../guard"
import type { Member } from "./room"
import type { Rooms } from "./rooms"

const heartbeat = 20_000
/** Bounds that nobody who writes comes near: open sockets in all, messages a socket may send within ten seconds, bytes that may wait to be taken by one. */
const most = { sockets: 2000, messages: 2000, waiting: 64_000_000 }
const spell = 10_000

interface Asked {
  id: string
  since: number
  stamp: string | null
  person: string
}

/** What a request for a socket asks for; null for what is no such request. */
function readRequest({ url = "" }: IncomingMessage): Asked | null {
  const [path = "", query = ""] = url.split("?", 2)
  const id = /^\/live\/([A-Za-z0-9_-]{1,40})$/.exec(path)?.[1]
  const parameters = new URLSearchParams(query)
  const since = parameters.get("since")
  const stamp = parameters.get("stamp")
  const person = Person.safeParse(parameters.get("person") ?? "")
  return id && person.success && since !== null && /^\d{1,15}$/.test(since) && (stamp?.length ?? 0) <= 200
    ? { id, since: Number(since), stamp, person: person.data }
    : null
}

function turnAway(socket: Duplex, status: string): void {
  socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\n\r\n`)
}

/** Accepts WebSockets at /live/ID?since=VERSION&stamp=STAMP&person=PERSON. */
export function acceptLive(server: Server, rooms: Rooms, hosts: Hosts): WebSocketServer {
  const sockets = new WebSocketServer({ noServer: true, maxPayload: largestMessage })
  server.on("upgrade", (request, socket, head) => {
    // Who breaks off harms only himself.
    socket.on("error", () => socket.destroy())
    const asked = readRequest(request)
    if (!isWelcome(request, hosts)) return turnAway(socket, "403 Forbidden")
    if (!asked) return turnAway(socket, "400 Bad Request")
    if (sockets.clients.size >= most.sockets) return turnAway(socket, "503 Service Unavailable")
    sockets.handleUpgrade(request, socket, head, (ws) => serve(ws, asked, rooms))
  })
  server.on("clientError", (_error, socket) =>
    socket.writable ? turnAway(socket, "400 Bad Request") : socket.destroy(),
  )
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

const texts = new WeakMap<FromServer, string>()
/** A message as text, made once for all who get it. */
function textOf(message: FromServer): string {
  let text = texts.get(message)
  if (text === undefined) texts.set(message, (text = JSON.stringify(message)))
  return text
}

function read(data: unknown): FromApp | null {
  try {
    const message = FromApp.safeParse(JSON.parse(String(data)))
    return message.success ? message.data : null
  } catch {
    return null
  }
}

function serve(ws: WebSocket, { id, since, stamp, person }: Asked, rooms: Rooms): void {
  const member: Member = {
    person,
    // Whoever reaches the server may edit; links with fewer rights come with sharing.
    right: "edit",
    send: (message) => {
      if (ws.bufferedAmount > most.waiting) ws.terminate()
      else ws.send(textOf(message))
    },
  }
  ws.on("error", () => ws.terminate())
  ws.on("pong", () => silent.delete(ws))
  const room = rooms.enter(id, member, since, stamp)
  if (!room) return ws.close()
  let began = 0
  let messages = 0
  ws.on("message", (data) => {
    silent.delete(ws)
    const now = Date.now()
    if (now - began > spell || now < began) [began, messages] = [now, 0]
    if (++messages > most.messages) return ws.close(1008, "Too many messages")
    const message = read(data)
    if (message) room.receive(member, message)
    else member.send({ type: "refused", reason: "The server did not understand a message." })
  })
  ws.on("close", () => rooms.leave(room, member))
}
