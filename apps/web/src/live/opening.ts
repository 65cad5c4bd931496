/** Opens a document: a fresh copy from the server, or what an earlier tab left unconfirmed on this device. */
import { collab } from "prosemirror-collab"
import { Node } from "prosemirror-model"
import { EditorState, TextSelection, type Plugin } from "prosemirror-state"
import { readStep, schema } from "@biblon/core/document"
import { api, NotThere, type Content } from "../api"
import { Connection } from "./connection"
import { abandonedRecords, dropRecord, holdSession, type PendingRecord } from "./pending"

export interface OpenedDocument {
  client: string
  editor: EditorState
  /** Unconfirmed changes that were taken up, on top of the content. */
  steps: unknown[]
}

/** The state of a document with a session's unconfirmed changes on top. */
async function stateOf(id: string, record: PendingRecord | null, plugins: readonly Plugin[], onContent?: (content: Content) => void): Promise<OpenedDocument> {
  const got = await api.content(id, record?.version)
  onContent?.(got)
  const { content, version } = got
  const client = record?.client ?? crypto.randomUUID()
  const doc = Node.fromJSON(schema, JSON.parse(content))
  let editor = EditorState.create({ doc, selection: TextSelection.atStart(doc), plugins: [collab({ version, clientID: client }), ...plugins] })
  const steps = record?.steps ?? []
  if (steps.length > 0) {
    const tr = editor.tr
    for (const json of steps) tr.step(readStep(json))
    editor = editor.apply(tr.setMeta("addToHistory", false))
  }
  return { client, editor, steps }
}

/** Sends what a tab that is gone had not got confirmed. Ends when all is saved, refused or after a while. */
async function deliverRecord(id: string, record: PendingRecord): Promise<void> {
  const { client, editor } = await stateOf(id, record, [])
  let state = editor
  await new Promise<void>((resolve) => {
    const giveUp = setTimeout(resolve, 10_000)
    const connection = new Connection({
      id,
      client,
      state: () => state,
      receive: (tr) => (state = state.apply(tr)),
      onName: () => {},
      onSaving: (saving) => {
        if (saving.kind !== "saved" && saving.kind !== "refused") return
        clearTimeout(giveUp)
        resolve()
      },
    })
    void Promise.resolve().then(() => connection.changed())
  })
}

/**
 * @param onContent gets the content before it is read here, so that the layout can read it at the same time
 * @throws NotThere if the document does not exist; other errors mean that the server cannot be reached
 */
export async function openDocument(id: string, plugins: readonly Plugin[], ended: Promise<void>, onContent: (content: Content) => void): Promise<OpenedDocument> {
  const records = await abandonedRecords(id).catch(() => [])
  const own = records.pop() ?? null
  for (const record of records) await deliverRecord(id, record)
  let opened: OpenedDocument
  try {
    opened = await stateOf(id, own, plugins, onContent)
  } catch (error) {
    if (!own || !(error instanceof NotThere)) throw error
    // The server no longer has the version that the changes follow on; the record stays where it is.
    opened = await stateOf(id, null, plugins, onContent)
  }
  holdSession(opened.client, ended)
  if (own && own.steps.length === 0) void dropRecord(own.client).catch(() => {})
  return opened
}
