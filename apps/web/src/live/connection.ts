/**
 * Keeps one document in step with the server: sends what it has not confirmed, takes in what others
 * did, comes back after every loss of connection. What is unconfirmed lies in IndexedDB all the while.
 */
import { getVersion, receiveTransaction, sendableSteps } from "prosemirror-collab"
import type { EditorState, Transaction } from "prosemirror-state"
import { readStep } from "@biblon/core/document"
import type { FromServer } from "@biblon/wire"
import { PendingKeeper } from "./pending"
import { stepJson } from "./stepJson"

export type Saving =
  /** `at` in milliseconds since 1970; null when nothing has been changed since the document was opened. */
  | { kind: "saved"; at: number | null }
  | { kind: "saving" }
  /** No server; what was typed is kept on this device, or, where even that failed, is not. */
  | { kind: "offline"; kept: boolean }
  | { kind: "refused"; reason: string }

export interface LiveDocument {
  id: string
  client: string
  state(): EditorState
  /** Applies a transaction that came from outside. */
  receive(tr: Transaction): void
  onSaving(saving: Saving): void
  onName(name: string | null): void
}

const firstWait = 300
const longestWait = 5000
/** Without a confirmation in this time the state says that it is offline, though the connection may still seem to stand. */
const patience = 8000
/** At most so many steps in one message. */
const batch = 2000

export class Connection {
  private socket: WebSocket | null = null
  private ready = false
  /** Steps sent and not yet answered. */
  private inFlight = false
  /** The version that has to be here before anything is sent again. */
  private awaited = 0
  private wait = firstWait
  private retry: ReturnType<typeof setTimeout> | undefined
  private doubt: ReturnType<typeof setTimeout> | undefined
  private savedAt: number | null = null
  private refusal: string | null = null
  private deviceKeeps = true
  private closed = false
  private readonly keeper = new PendingKeeper(() => {
    this.deviceKeeps = false
    this.tell()
  })

  constructor(private readonly live: LiveDocument) {
    addEventListener("online", this.reconnectNow)
    addEventListener("offline", this.lost)
    addEventListener("pagehide", this.leaving)
    this.connect()
  }

  private connect(): void {
    if (this.closed) return
    const { protocol, host } = location
    const url = `${protocol === "https:" ? "wss" : "ws"}://${host}/live/${this.live.id}?since=${getVersion(this.live.state())}`
    const socket = (this.socket = new WebSocket(url))
    socket.onmessage = (event) => {
      if (socket === this.socket) this.take(JSON.parse(String(event.data)) as FromServer)
    }
    socket.onclose = () => {
      if (socket === this.socket) this.lost()
    }
  }

  private readonly lost = (): void => {
    const { socket } = this
    this.socket = null
    socket?.close()
    this.ready = this.inFlight = false
    this.awaited = 0
    clearTimeout(this.doubt)
    clearTimeout(this.retry)
    if (this.closed) return
    this.tell()
    this.retry = setTimeout(() => this.connect(), this.wait)
    this.wait = Math.min(longestWait, this.wait * 1.6)
  }

  private readonly leaving = (): void => this.keeper.flush()

  private readonly reconnectNow = (): void => {
    if (this.ready) return
    clearTimeout(this.retry)
    this.wait = firstWait
    this.socket?.close()
    this.socket = null
    this.connect()
  }

  private take(message: FromServer): void {
    switch (message.type) {
      case "steps": {
        const state = this.live.state()
        const known = getVersion(state) - message.version
        if (known < 0) return this.lost()
        const fresh = message.steps.slice(known).map((json) => readStep(json))
        if (message.clients.includes(this.live.client)) this.inFlight = false
        this.savedAt = message.saved
        if (fresh.length > 0) this.live.receive(receiveTransaction(state, fresh, message.clients.slice(known), { mapSelectionBackward: true }))
        break
      }
      case "ready":
        this.ready = true
        this.wait = firstWait
        this.live.onName(message.name)
        break
      case "behind":
        this.inFlight = false
        this.awaited = message.version
        break
      case "refused":
        this.refusal = message.reason
        this.inFlight = false
        break
      case "renamed":
        this.live.onName(message.name)
        break
    }
    this.changed()
  }

  /** To be called after every change of the document's state. */
  changed(): void {
    const sendable = sendableSteps(this.live.state())
    const { id, client } = this.live
    this.keeper.keep({ client, document: id, version: getVersion(this.live.state()), steps: sendable?.steps.map(stepJson) ?? [], kept: Date.now() })
    if (sendable && this.ready && !this.inFlight && getVersion(this.live.state()) >= this.awaited && this.refusal === null && this.socket?.readyState === WebSocket.OPEN) {
      this.inFlight = true
      const steps = sendable.steps.slice(0, batch).map(stepJson)
      this.socket.send(JSON.stringify({ type: "steps", version: sendable.version, steps, client }))
      clearTimeout(this.doubt)
      this.doubt = setTimeout(this.lost, patience)
    }
    if (!this.inFlight) clearTimeout(this.doubt)
    this.tell()
  }

  private tell(): void {
    const unsaved = sendableSteps(this.live.state()) !== null
    if (this.refusal !== null) this.live.onSaving({ kind: "refused", reason: this.refusal })
    else if (!this.ready && (unsaved || this.wait > firstWait)) this.live.onSaving({ kind: "offline", kept: this.deviceKeeps })
    else if (unsaved) this.live.onSaving({ kind: "saving" })
    else this.live.onSaving({ kind: "saved", at: this.savedAt })
  }

  close(): void {
    this.closed = true
    removeEventListener("online", this.reconnectNow)
    removeEventListener("offline", this.lost)
    removeEventListener("pagehide", this.leaving)
    this.lost()
  }
}
