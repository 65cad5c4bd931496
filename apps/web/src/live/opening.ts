/** Opens a document: a fresh copy from the server, with what an earlier tab left unconfirmed on this device. */
import { collab } from "prosemirror-collab"
import { Node } from "prosemirror-model"
import { EditorState, TextSelection, type Plugin } from "prosemirror-state"
import { applySteps, schema } from "@biblon/core/document"
import { insertedBy } from "@biblon/core/editing"
import { api, NotThere, type Content } from "../api"
import { asideOf, keepAside } from "./aside"
import { Connection } from "./connection"
import { dropRecord, recordOf, sessionsOf } from "./pending"
import { takeSession } from "./sessions"
import { stepText } from "./stepText"
import type { Aside, AsideCause, PendingRecord } from "./records"

export interface OpenedDocument {
  client: string
  stamp: string
  editor: EditorState
  /** Unconfirmed changes that were taken up, on top of the content; in JSON. */
  steps: string[]
  /** What was written here and turned out on opening not to be in the document. */
  aside: Aside[]
}

/** Sets aside what a session has left, since it does not fit. It leaves the device only once it lies there as set aside. */
async function setRecordAside(
  record: PendingRecord,
  cause: AsideCause,
  reason: string,
  steps = record.steps,
): Promise<Aside> {
  const aside = asideOf(record.document, cause, reason, insertedBy(steps))
  if (await keepAside(aside)) await dropRecord(record.client).catch(() => undefined)
  return aside
}

interface Based {
  opened: OpenedDocument
  /** Why the session's changes could not be taken up. */
  misfit: string | null
}

/** The state of a document with a session's unconfirmed changes on top. */
function stateOf(got: Content, client: string, record: PendingRecord | null, plugins: readonly Plugin[]): Based {
  const { content, version, stamp } = got
  if (record && record.stamp !== stamp)
    throw new Misfit("The server holds another history of this document: it was put back to an earlier state.")
  const doc = Node.fromJSON(schema, JSON.parse(content))
  let editor = EditorState.create({
    doc,
    selection: TextSelection.atStart(doc),
    plugins: [collab({ version, clientID: client }), ...plugins],
  })
  const applied = applySteps(doc, record?.steps ?? [])
  const steps = applied.own.map(({ step }) => stepText(step))
  if (steps.length > 0) {
    const tr = editor.tr
    for (const { step } of applied.own) tr.step(step)
    editor = editor.apply(tr.setMeta("addToHistory", false))
  }
  return { opened: { client, stamp, editor, steps, aside: [] }, misfit: applied.refusal }
}

/** What a session left does not fit what the server has. */
class Misfit extends Error {}

/** Sends what a tab that is gone had not got confirmed. Ends when all is saved or set aside, or after a while. */
async function deliverRecord(id: string, record: PendingRecord): Promise<Aside[]> {
  const aside: Aside[] = []
  let state: EditorState
  let stamp: string
  try {
    const { opened, misfit } = stateOf(await api.content(id, record.version), record.client, record, [])
    ;({ editor: state, stamp } = opened)
    if (misfit !== null)
      aside.push(await setRecordAside(record, "unfit", misfit, record.steps.slice(opened.steps.length)))
  } catch (error) {
    if (!(error instanceof Misfit || error instanceof NotThere)) throw error
    return [await setRecordAside(record, "unfit", error.message)]
  }
  await new Promise<void>((resolve) => {
    const end = () => {
      clearTimeout(giveUp)
      connection.close()
      resolve()
    }
    const giveUp = setTimeout(end, 10_000)
    const connection = new Connection({
      id,
      client: record.client,
      stamp,
      state: () => state,
      receive: (tr) => (state = state.apply(tr)),
      onName: () => {},
      onAside: (own) => {
        aside.push(own)
        void keepAside(own)
      },
      onUnfit: (reason) => void setRecordAside(record, "unfit", reason).then((own) => (aside.push(own), end())),
      onSaving: (saving) => {
        if (saving.kind === "saved") end()
      },
    })
    void Promise.resolve().then(() => connection.changed())
  })
  return aside
}

/**
 * @param onContent gets the content before it is read here, so that the layout can read it at the same time
 * @throws NotThere if the document does not exist; other errors mean that the server cannot be reached
 */
export async function openDocument(
  id: string,
  plugins: readonly Plugin[],
  ended: Promise<void>,
  onContent: (content: Content) => void,
): Promise<OpenedDocument> {
  let giveUp = () => {}
  const over = Promise.race([ended, new Promise<void>((resolve) => (giveUp = resolve))])
  try {
    return await attempt(id, plugins, over, onContent)
  } catch (error) {
    // The next attempt has to get the names that this one took.
    giveUp()
    throw error
  }
}

async function attempt(
  id: string,
  plugins: readonly Plugin[],
  ended: Promise<void>,
  onContent: (content: Content) => void,
): Promise<OpenedDocument> {
  const aside: Aside[] = []
  let own: PendingRecord | null = null
  // Seldom is anything left here, so the content is asked for at once.
  const latest = api.content(id)
  latest.catch(() => undefined)
  for (const client of await sessionsOf(id).catch(() => [])) {
    let release = () => {}
    // The name first, then what lies under it: another tab may be taking it up in this moment.
    if (
      !(await takeSession(
        client,
        Promise.race([ended, new Promise<void>((resolve) => (release = resolve))]),
        await ageOf(client),
      ))
    )
      continue
    const record = await recordOf(client).catch(() => null)
    if (record === null) {
      void dropRecord(client).catch(() => undefined)
      release()
    } else if (own === null) own = record
    else {
      aside.push(...(await deliverRecord(id, record)))
      release()
    }
  }
  if (own !== null) {
    try {
      const got = await api.content(id, own.version)
      const { opened, misfit } = stateOf(got, own.client, own, plugins)
      onContent(got)
      if (misfit !== null) aside.push(asideOf(id, "unfit", misfit, insertedBy(own.steps.slice(opened.steps.length))))
      for (const one of aside) await keepAside(one)
      return { ...opened, aside }
    } catch (error) {
      if (!(error instanceof Misfit || error instanceof NotThere)) throw error
      // The server no longer has the version that the changes follow on.
      aside.push(await setRecordAside(own, "unfit", error.message))
    }
  }
  const client = crypto.randomUUID()
  // Nobody else knows this name yet: the lock is asked for before anything lies under it, and need not be waited for.
  void takeSession(client, ended)
  const got = await latest
  onContent(got)
  const { opened } = stateOf(got, client, null, plugins)
  for (const one of aside) await keepAside(one)
  return { ...opened, aside }
}

const ageOf = async (client: string) => (navigator.locks ? 0 : ((await recordOf(client).catch(() => null))?.kept ?? 0))
