/**
 * Keeps one document in step with the server: sends what it has not confirmed, takes in what others
 * did, comes back after every loss of connection. What is unconfirmed lies on the device all the while.
 */
import { personHere } from "../kept"
import { Delayed } from "../ui/delayed"
import { getVersion, receiveTransaction, sendableSteps } from "prosemirror-collab"
import type { EditorState, Transaction } from "prosemirror-state"
import { readStep } from "@biblon/core/document"
import { lostBetween } from "@biblon/core/editing"
import type { FromServer, StepBatch } from "@biblon/wire"
import { largestMessage, stampOf, usualMessage } from "@biblon/wire/limits"
import { asideOf } from "./aside"
import { withoutFirst } from "./dropping"
import { PendingKeeper } from "./pending"
import { stepText } from "./stepText"
import type { Aside, AsideCause } from "./records"

export type Saving =
  /** `at` in milliseconds since 1970; null when nothing has been changed since the document was opened. */
  | { kind: "saved"; at: number | null }
  | { kind: "saving" }
  /** No server; what was typed is kept on this device, or, where even that failed, is not. */
  | { kind: "offline"; kept: boolean }
  /** The server is there but cannot write; it is asked again and again. */
  | { kind: "postponed"; reason: string; kept: boolean }

export interface LiveDocument {
  id: string
  client: string
  /** What tells the history of the state's version from others. */
  stamp: string
  state(): EditorState
  /** Applies a transaction that came from outside. */
  receive(tr: Transaction): void
  onSaving(saving: Saving): void
  onName(name: string | null): void
  /** Something that was written here is not in the document any more. */
  onAside(aside: Aside): void
  /** The server has another history of the document: it has to be opened anew, and what is here alone is to be set aside. */
  onUnfit(reason: string): void
}

const firstWait = 300
const longestWait = 5000
/** Without a confirmation in this time the state says that it is offline, though the connection may still seem to stand; a long message has longer. */
const patience = { least: 8000, perMegabyte: 8000 }
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
  private readonly doubt = new Delayed(() => this.lost())
  private savedAt: number | null = null
  private postponed: { reason: string; wait: number; timer: ReturnType<typeof setTimeout> } | null = null
  private deviceKeeps = true
  private closed = false
  private stamp: string
  private readonly keeper = new PendingKeeper((kept) => {
    if (this.deviceKeeps === kept) return
    this.deviceKeeps = kept
    this.tell()
  })

  constructor(private readonly live: LiveDocument) {
    this.stamp = live.stamp
    addEventListener("online", this.reconnectNow)
    addEventListener("offline", this.lost)
    addEventListener("pagehide", this.leaving)
    addEventListener("beforeunload", this.asking)
    this.connect()
  }

  private connect(): void {
    if (this.closed) return
    const { protocol, host } = location
    const url = `${protocol === "https:" ? "wss" : "ws"}://${host}/live/${this.live.id}?since=${getVersion(this.live.state())}&stamp=${encodeURIComponent(this.stamp)}&person=${personHere()}`
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
    // A server that comes back may be able to write again.
    this.endPostponing()
    this.doubt.close()
    clearTimeout(this.retry)
    if (this.closed) return
    this.tell()
    this.retry = setTimeout(() => this.connect(), this.wait)
    this.wait = Math.min(longestWait, this.wait * 1.6)
  }

  private readonly leaving = (): void => this.keeper.flush()

  /** The browser asks before the page goes with what is kept nowhere. */
  private readonly asking = (event: BeforeUnloadEvent): void => {
    if (!this.deviceKeeps && sendableSteps(this.live.state())) event.preventDefault()
  }

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
      case "steps":
        if (!this.takeBatches(message.version, message.batches)) return this.lost()
        break
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
        this.inFlight = false
        this.setFirstAside("refused", message.reason)
        break
      case "postponed":
        this.inFlight = false
        this.postpone(message.reason)
        break
      case "unfit":
        this.close()
        return this.live.onUnfit(message.reason)
      case "renamed":
        this.live.onName(message.name)
        break
    }
    this.changed()
  }

  /** @returns whether the batches follow on what is here */
  private takeBatches(version: number, batches: readonly StepBatch[]): boolean {
    const known = getVersion(this.live.state()) - version
    if (known < 0) return false
    let seen = 0
    const fresh = batches.flatMap((own) => {
      const skip = Math.max(0, Math.min(own.steps.length, known - seen))
      seen += own.steps.length
      return skip < own.steps.length ? [{ ...own, steps: own.steps.slice(skip) }] : []
    })
    const takeIn = (list: readonly StepBatch[]) => {
      const clients = list.flatMap((own) => own.steps.map(() => own.client))
      // Of one's own only the number counts: they are here already.
      const mine = sendableSteps(this.live.state())?.steps ?? []
      const steps = list.flatMap((own) =>
        own.client === this.live.client && list.length === 1 && mine.length >= own.steps.length
          ? mine.slice(0, own.steps.length)
          : own.steps.map((json) => readStep(json)),
      )
      this.live.receive(receiveTransaction(this.live.state(), steps, clients, { mapSelectionBackward: true }))
    }
    // Unconfirmed changes go over each batch by itself, as they do on the server.
    if (sendableSteps(this.live.state())) for (const own of fresh) takeIn([own])
    else if (fresh.length > 0) takeIn(fresh)
    const last = fresh.at(-1)
    if (!last) return true
    this.savedAt = last.saved
    this.stamp = stampOf(last)
    if (fresh.some(({ client }) => client === this.live.client)) {
      this.inFlight = false
      this.endPostponing()
    }
    return true
  }

  /** Takes the first unconfirmed change out of the document, with what depends on it, and writing goes on. */
  private setFirstAside(cause: AsideCause, reason: string): void {
    const before = this.live.state().doc
    const tr = withoutFirst(this.live.state())
    if (!tr) return
    this.live.receive(tr)
    this.live.onAside(asideOf(this.live.id, cause, reason, lostBetween(before, this.live.state().doc)))
  }

  private postpone(reason: string): void {
    const wait = Math.min(longestWait * 2, (this.postponed?.wait ?? firstWait) * 1.6)
    clearTimeout(this.postponed?.timer)
    this.postponed = { reason, wait, timer: setTimeout(() => this.send(), wait) }
  }

  private endPostponing(): void {
    clearTimeout(this.postponed?.timer)
    this.postponed = null
  }

  /** To be called after every change of the document's state. */
  changed(): void {
    const { id, client } = this.live
    const state = this.live.state()
    this.keeper.keep({
      client,
      document: id,
      version: getVersion(state),
      stamp: this.stamp,
      steps: sendableSteps(state)?.steps.map(stepText) ?? [],
    })
    // While the server cannot write, it is asked at its own pace.
    if (!this.postponed) this.send()
    this.tell()
  }

  private send(): void {
    const sendable = sendableSteps(this.live.state())
    if (
      sendable &&
      this.ready &&
      !this.inFlight &&
      getVersion(this.live.state()) >= this.awaited &&
      this.socket?.readyState === WebSocket.OPEN
    ) {
      const texts: string[] = []
      let size = 0
      for (const step of sendable.steps.slice(0, batch)) {
        const text = stepText(step)
        // Three bytes for each unit at the most.
        if (texts.length > 0 && (size + text.length) * 3 > largestMessage) break
        texts.push(text)
        size += text.length
        if (size >= usualMessage) break
      }
      const message = `{"type":"steps","version":${sendable.version},"client":${JSON.stringify(this.live.client)},"steps":[${texts.join(",")}]}`
      const bytes = size * 3 > largestMessage ? new Blob([message]).size : 0
      if (bytes > largestMessage) {
        this.setFirstAside(
          "tooLarge",
          `A single change of ${Math.ceil(bytes / 1e6)} MB is too large: up to ${largestMessage / 1e6} MB can be saved at once. Put it in in parts.`,
        )
        return this.changed()
      }
      this.inFlight = true
      this.socket.send(message)
      this.doubt.in(patience.least + (patience.perMegabyte * message.length) / 1e6)
    }
    if (!this.inFlight) this.doubt.cancel()
  }

  private tell(): void {
    const unsaved = sendableSteps(this.live.state()) !== null
    const kept = this.deviceKeeps
    if (!this.ready && (unsaved || this.wait > firstWait)) this.live.onSaving({ kind: "offline", kept })
    else if (unsaved && this.postponed) this.live.onSaving({ kind: "postponed", reason: this.postponed.reason, kept })
    else if (unsaved) this.live.onSaving({ kind: "saving" })
    else this.live.onSaving({ kind: "saved", at: this.savedAt })
  }

  close(): void {
    this.closed = true
    removeEventListener("online", this.reconnectNow)
    removeEventListener("offline", this.lost)
    removeEventListener("pagehide", this.leaving)
    removeEventListener("beforeunload", this.asking)
    this.keeper.flush()
    this.endPostponing()
    this.lost()
  }
}
