/**
 * What app and server say to each other. The server checks what comes in with these schemas; the app
 * imports their types only.
 */
import { z } from "zod"

const Id = z.string().regex(/^[A-Za-z0-9_-]{8,40}$/)

/** A document as the shelf shows it. */
export const ShelfEntry = z.object({
  id: Id,
  /** null for a document that was never named. */
  name: z.string().nullable(),
  /** The first words of its text, to tell unnamed documents apart; empty if there are none. */
  opening: z.string(),
  /** Milliseconds since 1970. */
  created: z.number(),
  changed: z.number(),
  version: z.number().int(),
})

export const Rename = z.object({ name: z.string().trim().max(200).nullable() })

/** App to server, over the WebSocket at /live/ID?since=VERSION. */
export const FromApp = z.discriminatedUnion("type", [
  z.object({
    type: z.literal("steps"),
    /** The version that the steps follow on. */
    version: z.number().int().min(0),
    steps: z.array(z.record(z.string(), z.unknown())).min(1).max(5000),
    client: z.string().min(1).max(60),
  }),
])

export const FromServer = z.discriminatedUnion("type", [
  /** First message: all is sent up to this version; what the app has pending may be sent now. */
  z.object({ type: z.literal("ready"), version: z.number().int(), name: z.string().nullable() }),
  /** Steps that are in the database, in order; `version` is the one they follow on. */
  z.object({
    type: z.literal("steps"),
    version: z.number().int(),
    steps: z.array(z.record(z.string(), z.unknown())),
    clients: z.array(z.string()),
    /** When they were saved, in milliseconds since 1970. */
    saved: z.number(),
  }),
  /** The steps followed on an older version: send them again on top of what came in between. */
  z.object({ type: z.literal("behind"), version: z.number().int() }),
  /** The steps do not fit the document. Sending them again will not help. */
  z.object({ type: z.literal("refused"), reason: z.string() }),
  z.object({ type: z.literal("renamed"), name: z.string().nullable() }),
])

/** A font file that was taken in. */
export const AddedFont = z.object({
  /** Its SHA-256, under which it is kept. */
  asset: z.string(),
  family: z.string(),
  variant: z.enum(["regular", "italic", "bold", "boldItalic"]),
})

/** Every error of the API. */
export const Problem = z.object({ message: z.string() })

export type ShelfEntry = z.infer<typeof ShelfEntry>
export type Rename = z.infer<typeof Rename>
export type FromApp = z.infer<typeof FromApp>
export type FromServer = z.infer<typeof FromServer>
export type AddedFont = z.infer<typeof AddedFont>
export type Problem = z.infer<typeof Problem>
